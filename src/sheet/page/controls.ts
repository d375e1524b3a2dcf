import { make } from '../../page/make';

/** One of a few values, as buttons side by side. */
export function choice(
  name: string,
  label: string,
  values: readonly (readonly string[])[],
): HTMLFieldSetElement {
  const set = make('fieldset', { className: 'choice', ariaLabel: label });
  set.dataset['of'] = String(values.length);
  for (const [value = '', word = ''] of values)
    set.append(
      make(
        'label',
        {},
        make('input', { type: 'radio', name, value, checked: value === values[0]![0] }),
        make('span', {}, word),
      ),
    );
  return set;
}

// A file that is opened without a server may not be allowed to remember anything.
/** What a person chose before. */
export const localTheme = {
  get(): 'light' | 'dark' {
    try {
      const kept = localStorage.getItem('simulacra-theme');
      if (kept === 'light' || kept === 'dark') return kept;
    } catch {
      // As the system has it.
    }
    return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light';
  },
  keep(theme: string): void {
    try {
      localStorage.setItem('simulacra-theme', theme);
    } catch {
      // It is chosen again next time.
    }
  },
};
/** Shows the sheet itself in light or dark colours. */
export function setTheme(theme: 'light' | 'dark'): void {
  document.documentElement.dataset['theme'] = theme;
}
/** The button that changes that. */
export const themeWord = () =>
  document.documentElement.dataset['theme'] === 'dark' ? 'Light sheet' : 'Dark sheet';
