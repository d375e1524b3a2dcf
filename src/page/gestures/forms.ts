import type { Person } from './person';

/** Does something that may submit a form, and moves to the first field that is not valid, as browsers do. */
export async function showingInvalid(
  { document, send }: Person,
  work: () => Promise<unknown>,
): Promise<void> {
  const invalid: Event[] = [];
  const note = (event: Event) => void invalid.push(event);
  document.addEventListener('invalid', note, true);
  try {
    await work();
  } finally {
    document.removeEventListener('invalid', note, true);
  }
  const first = invalid.find(({ defaultPrevented }) => !defaultPrevented)?.target as HTMLElement | undefined;
  if (first && document.activeElement !== first) await send(() => first.focus());
}
