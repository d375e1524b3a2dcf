import { foldSpace } from '../locators';
import { dispatch, tell } from './events';
import { show, writeValue } from './fields';
import { moveFocus } from './focus';
import { holding, type Person } from './person';

/** What a key does to a field whose value is stepped. @returns whether the key was for it */
export async function stepValue(person: Person, target: Element, key: string): Promise<boolean> {
  if (person.held.has('Control') || person.held.has('Meta')) return false;
  if (target.localName === 'select') return stepSelect(person, target as HTMLSelectElement, key);
  if (target.localName !== 'input') return false;
  const input = target as HTMLInputElement;
  if (input.type === 'radio') return stepRadio(person, input, key);
  if (input.readOnly) return false;
  if (input.type === 'range') return stepRange(person, input, key);
  if (input.type === 'number') return stepNumber(person, input, key);
  return input.type === 'search' && key === 'Escape' ? emptySearch(person, input) : false;
}

async function stepNumber({ send }: Person, input: HTMLInputElement, key: string): Promise<boolean> {
  const isUp = key === 'ArrowUp';
  if (!isUp && key !== 'ArrowDown') return false;
  const before = input.value;
  if (isUp) input.stepUp();
  else input.stepDown();
  const after = input.value;
  writeValue(input, before);
  const told = { inputType: 'insertText', data: after };
  if (!(await tell(send, input, 'beforeinput', told)) || after === before) return true;
  await send(() => {
    show(input, after);
    dispatch(input, 'input');
    dispatch(input, 'change');
  });
  return true;
}

const rangeSteps: Readonly<Record<string, number>> = {
  ...{ ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 10, PageDown: -10 },
};

async function stepRange({ send }: Person, input: HTMLInputElement, key: string): Promise<boolean> {
  const { min, max, step, value } = input;
  const [low, high] = [Number(min || 0), Number(max || 100)];
  const one = step === 'any' ? (high - low) / 100 : Number(step || 1);
  const steps = rangeSteps[key];
  if (steps === undefined && key !== 'Home' && key !== 'End') return false;
  const leap =
    Math.abs(steps ?? 0) === 10 ? Math.sign(steps!) * Math.max(one, (high - low) / 10) : (steps ?? 0) * one;
  const to = key === 'Home' ? low : key === 'End' ? high : Number(value) + leap;
  const after = String(Math.min(high, Math.max(low, to)));
  if (after !== value)
    await send(() => {
      writeValue(input, after);
      dispatch(input, 'input');
      dispatch(input, 'change');
    });
  return true;
}

async function emptySearch({ send }: Person, input: HTMLInputElement): Promise<boolean> {
  if (input.value === '') return false;
  await send(() => {
    show(input, '');
    dispatch(input, 'input');
    dispatch(input, 'search');
  });
  return true;
}

async function stepSelect({ send }: Person, select: HTMLSelectElement, key: string): Promise<boolean> {
  const options = [...select.options].filter(
    ({ disabled, parentElement }) => !disabled && !isOff(parentElement),
  );
  const at = options.findIndex(({ selected }) => selected);
  const next = nextOption(options, at, key);
  if (next === undefined) return key.length === 1;
  if (next !== options[at])
    await send(() => {
      select.selectedIndex = next.index;
      dispatch(select, 'input');
      dispatch(select, 'change');
    });
  return true;
}

const isOff = (group: Element | null): boolean =>
  group?.localName === 'optgroup' && (group as HTMLOptGroupElement).disabled;

function nextOption(
  options: readonly HTMLOptionElement[],
  at: number,
  key: string,
): HTMLOptionElement | undefined {
  if (key === 'Home') return options[0];
  if (key === 'End') return options[options.length - 1];
  if (key === 'ArrowDown' || key === 'ArrowRight') return options[Math.min(at + 1, options.length - 1)];
  if (key === 'ArrowUp' || key === 'ArrowLeft') return options[Math.max(at - 1, 0)];
  if (key.length !== 1 || key === ' ') return undefined;
  const begins = ({ label, text }: HTMLOptionElement) =>
    foldSpace(label || text)
      .toLowerCase()
      .startsWith(key.toLowerCase());
  return [...options.slice(at + 1), ...options.slice(0, at + 1)].find(begins);
}

async function stepRadio(person: Person, radio: HTMLInputElement, key: string): Promise<boolean> {
  if (!/^Arrow/.test(key)) return false;
  const root = radio.form ?? radio.ownerDocument;
  const group = [...root.querySelectorAll<HTMLInputElement>('input[type=radio]')].filter(
    ({ name, disabled, form }) => name === radio.name && form === radio.form && !disabled,
  );
  const move = key === 'ArrowDown' || key === 'ArrowRight' ? 1 : -1;
  const next = group[(group.indexOf(radio) + move + group.length) % group.length];
  if (!next || next === radio) return true;
  await moveFocus(person, next);
  await person.send(() => void dispatch(next, 'click', { detail: 0, ...holding(person) }));
  return true;
}
