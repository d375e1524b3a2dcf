import { refuse } from '../errors';
import { nearest } from '../../core/near';
import { describe, isField, locatorFor } from '../describe';
import { foldSpace, quoteCode } from '../locators';
import { nameOrTextOf } from '../names';
import { roleOf } from '../roles';
import { checkedOf, whyUnusable } from '../states';
import { click, moveFocus } from './click';
import { dispatch, sendPointer, type Send } from './dispatch';

/**
 * Chooses an option of a select, a checkbox, a radio button, or an option of an ARIA listbox or radio group.
 * An option that is already chosen stays as it is.
 *
 * @throws SIM-ACT-OPTION, SIM-ACT-DISABLED
 */
export async function choose(element: Element, options: readonly string[], send: Send): Promise<void> {
  if (element.localName === 'select') return chooseInSelect(element as HTMLSelectElement, options, send);
  if (options.length === 0) {
    if (checkedOf(element) !== true) await click(element, send);
    return;
  }
  if (roleOf(element) === 'combobox' && element.getAttribute('aria-expanded') !== 'true')
    await click(element, send);
  for (const option of options) {
    const found = findOption(element, option);
    if (checkedOf(found) !== true) await click(found, send);
  }
}

async function chooseInSelect(
  select: HTMLSelectElement,
  wanted: readonly string[],
  send: Send,
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
  await send(() => void sendPointer(select, 'down'));
  await moveFocus(select, select.ownerDocument, send);
  await send(() => void sendPointer(select, 'up'));
  await send(() => void dispatch(select, 'click', { detail: 1 }));
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
