import { refuse } from '../errors';
import { nearest } from '../../core/near';
import { describe, isField, locatorFor } from '../describe';
import { foldSpace, quoteCode } from '../locators';
import { nameOrTextOf } from '../names';
import { roleOf } from '../roles';
import { checkedOf, whyUnusable } from '../states';
import { activate } from './clicks';
import { dispatch } from './events';
import { chooseFiles } from './files';
import { pickedTypes } from './fields';
import type { Person } from './person';
import { letGo, moveTo, pressDown } from './pointer';
import { pick } from './values';

/**
 * Chooses files in a file input, a value of a date, colour or range, an option of a select, a checkbox, a radio
 * button, or an option of an ARIA listbox or radio group. An option that is already chosen stays as it is.
 *
 * @throws SIM-ACT-OPTION, SIM-ACT-VALUE, SIM-ACT-FILE, SIM-ACT-DISABLED
 */
export async function choose(
  person: Person,
  element: Element,
  wanted: readonly (string | File)[],
): Promise<void> {
  const files = wanted.filter((one) => typeof one !== 'string');
  if (files.length > 0) return chooseFiles(person, element, files);
  const options = wanted as readonly string[];
  if (element.localName === 'select') return chooseInSelect(person, element as HTMLSelectElement, options);
  if (options.length === 0) {
    if (checkedOf(element) !== true) await person.hands.click(element);
    return;
  }
  if (element.localName === 'input' && pickedTypes.test((element as HTMLInputElement).type))
    return pick(person, element as HTMLInputElement, options[0]!);
  if (roleOf(element) === 'combobox' && element.getAttribute('aria-expanded') !== 'true')
    await person.hands.click(element);
  for (const option of options) {
    const found = findOption(element, option);
    if (checkedOf(found) !== true) await person.hands.click(found);
  }
}

async function chooseInSelect(
  person: Person,
  select: HTMLSelectElement,
  wanted: readonly string[],
): Promise<void> {
  const options = [...select.options];
  const found = wanted.map((text) => {
    const labels = options.map((option) => foldSpace(option.label || option.text));
    const at = labels.indexOf(foldSpace(text));
    const option = options[at] ?? options.find(({ value }) => value === text);
    if (!option)
      return refuse('SIM-ACT-OPTION', {
        element: describe(select),
        asked: text,
        options: labels,
        nearest: nearest(text, labels),
      });
    const why = whyUnusable(option);
    return why ? refuse('SIM-ACT-DISABLED', { act: 'choose', element: describe(option), why }) : option;
  });
  const { send } = person;
  await moveTo(person, select);
  await pressDown(person, select, 1);
  await letGo(person, select, 1);
  await activate(person, select, { ...person.place, detail: 1 });
  await send(() => {
    for (const option of found) option.selected = true;
    dispatch(select, 'input');
  });
  await send(() => void dispatch(select, 'change'));
}

function findOption(element: Element, wanted: string): Element {
  const owned = ['aria-controls', 'aria-owns']
    .flatMap((name) => (element.getAttribute(name) ?? '').split(/\s+/))
    .filter(Boolean);
  const places = [element, ...owned.flatMap((id) => element.ownerDocument.getElementById(id) ?? [])];
  const options = places.flatMap((place) => [
    ...place.querySelectorAll(
      '[role=option],[role=radio],[role=menuitemradio],input[type=radio],input[type=checkbox],option',
    ),
  ]);
  const found = options.find((option) => nameOrTextOf(option) === foldSpace(wanted));
  const names = options.map(nameOrTextOf);
  return (
    found ??
    refuse('SIM-ACT-OPTION', {
      element: describe(element),
      asked: wanted,
      options: names,
      nearest: nearest(wanted, names),
      typing: isField(element) ? `subject.type(${locatorFor(element)}, ${quoteCode(wanted)})` : undefined,
    })
  );
}
