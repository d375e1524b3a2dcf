import { count as counted, list } from '../../core/print';
import { describe } from '../describe';
import { tagOf } from '../hidden';
import { nameOf } from '../names';
import { refuse } from '../errors';
import { dispatch, hearing, pageOf } from './events';
import type { Person } from './person';

/**
 * Chooses files: in a file input, or by what opens one, as a button that clicks a hidden input.
 *
 * @throws SIM-ACT-FILE where no file input was opened, or it does not take the files
 */
export async function chooseFiles(person: Person, element: Element, files: readonly File[]): Promise<void> {
  const opened = await openingFiles(person, () => person.hands.click(element));
  if (!opened)
    return refuse('SIM-ACT-FILE', {
      element: describe(element),
      files: files.map(({ name }) => name),
      why: 'it is no file input, and a click on it opens none',
      isOpened: false,
    });
  refuseFiles(opened, files);
  await person.hands.takeFiles(opened, files);
}

/** The file input whose dialog a browser would open for what is done. */
async function openingFiles(
  { document }: Person,
  work: () => Promise<void>,
): Promise<HTMLInputElement | undefined> {
  const shown: HTMLInputElement[] = [];
  const page = document.defaultView as Window & typeof globalThis;
  const restore = replacePicker(page, (input) => void shown.push(input));
  // A browser opens its dialog for a script's click as well.
  const clicked = await hearing(document, 'click', work).finally(restore);
  const event = clicked.findLast(({ target, defaultPrevented }) => isFileInput(target) && !defaultPrevented);
  return shown[shown.length - 1] ?? (event?.target as HTMLInputElement | undefined);
}

/** Takes down which input a script asks to open its dialog. @returns how to put the page's own back */
function replacePicker(
  page: Window & typeof globalThis,
  note: (input: HTMLInputElement) => void,
): () => void {
  const prototype = page.HTMLInputElement.prototype as { showPicker?: () => void };
  const original = Object.getOwnPropertyDescriptor(prototype, 'showPicker');
  Object.defineProperty(prototype, 'showPicker', {
    configurable: true,
    writable: true,
    value(this: HTMLInputElement) {
      if (isFileInput(this)) note(this);
    },
  });
  return () => {
    if (original) Object.defineProperty(prototype, 'showPicker', original);
    else delete prototype.showPicker;
  };
}

const isFileInput = (target: unknown): target is HTMLInputElement =>
  (target as Partial<Element> | null)?.localName === 'input' && (target as HTMLInputElement).type === 'file';

/** Gives a file input its files. */
export async function takeFiles(
  { send }: Person,
  input: HTMLInputElement,
  files: readonly File[],
): Promise<void> {
  await send(() => {
    const transfer = new (pageOf(input).DataTransfer)();
    for (const file of files) transfer.items.add(file);
    writeFiles(input, transfer.files);
    dispatch(input, 'input');
    dispatch(input, 'change');
  });
}

/** A simulated page takes only a list of its own, so there the property is replaced. */
function writeFiles(input: HTMLInputElement, files: FileList): void {
  try {
    input.files = files;
    if (input.files.length === files.length) return;
  } catch {
    // Told apart below.
  }
  let kept: FileList | undefined = files;
  Object.defineProperty(input, 'files', {
    configurable: true,
    enumerable: true,
    get: () => kept ?? emptied(input),
    set: (given: FileList) => void (kept = given),
  });
  const value = Object.getOwnPropertyDescriptor(pageOf(input).HTMLInputElement.prototype, 'value')!;
  Object.defineProperty(input, 'value', {
    configurable: true,
    enumerable: true,
    get: () => (kept && kept.length > 0 ? `C:\\fakepath\\${kept[0]!.name}` : ''),
    // Only emptying is allowed, which lets the same file be chosen again.
    set(this: HTMLInputElement, text: string) {
      value.set!.call(this, text);
      kept = undefined;
    },
  });
}

const emptied = (input: HTMLInputElement): FileList => new (pageOf(input).DataTransfer)().files;

/** @throws SIM-ACT-FILE for what a file input does not take */
export function refuseFiles(input: HTMLInputElement, files: readonly File[]): void {
  const refuseFor = (why: string) =>
    refuse('SIM-ACT-FILE', {
      element: nameOf(input) ? describe(input) : tagOf(input),
      files: files.map(({ name }) => name),
      why,
      isOpened: true,
    });
  if (files.length > 1 && !input.multiple)
    refuseFor(
      `it takes one file, and was given ${counted(files.length, 'file')}: it has no attribute "multiple"`,
    );
  const { accept } = input;
  const wrong = files.filter((file) => !accepts(accept, file));
  if (wrong.length > 0)
    refuseFor(
      `it accepts ${accept}, and ${list(wrong.map(({ name, type }) => `${name} is ${type || 'of no known type'}`))}`,
    );
}

/** @see https://html.spec.whatwg.org/multipage/input.html#attr-input-accept */
function accepts(accept: string, { name, type }: File): boolean {
  const tokens = accept
    .split(',')
    .map((token) => token.trim().toLowerCase())
    .filter(Boolean);
  if (tokens.length === 0) return true;
  return tokens.some((token) =>
    token.startsWith('.')
      ? name.toLowerCase().endsWith(token)
      : token.endsWith('/*')
        ? type.toLowerCase().startsWith(token.slice(0, -1))
        : type.toLowerCase() === token,
  );
}
