import { type Circumstances } from '../../core/errors/registry';
import { refuse } from '../errors';
import { nearest } from '../../core/near';
import { describe, isField, locatorFor } from '../describe';
import { isPlain, whyBehind, whyHidden, whyUntouchable } from '../hidden';
import { nameOrTextOf } from '../names';
import { fieldSelector } from '../query';
import { whyUnusable } from '../states';
import { around } from '../around';

/** What a gesture needs of an element. */
export interface Need {
  /** False for what can be done to a disabled element as well, as hovering. */
  readonly isEnabled?: boolean;
  /** False for what is done by the keyboard alone. */
  readonly isPointed?: boolean;
}

/** @throws SIM-ACT-HIDDEN, SIM-ACT-DISABLED where a person could not reach or use the element */
export function refuseUnable(
  element: Element,
  act: string,
  circumstances: Circumstances,
  { isEnabled = true, isPointed = true }: Need = {},
): void {
  const told = () => ({ act, element: describe(element) });
  const hidden = whyOutOfReach(element) ?? (isPointed ? whyUntouchable(element) : undefined);
  if (hidden) refuse('SIM-ACT-HIDDEN', { ...told(), why: hidden }, circumstances);
  const disabled = isEnabled ? whyUnusable(element) : undefined;
  if (disabled) refuse('SIM-ACT-DISABLED', { ...told(), why: disabled }, circumstances);
}

function whyOutOfReach(element: Element): string | undefined {
  if (!element.isConnected) return 'it has been taken off the page';
  if (isPlain(element)) return whyBehind(element);
  const hidden = whyHidden(element, false) ?? whyBehind(element);
  return (
    hidden ??
    (around(element, (at) => at.hasAttribute('inert')) ? 'it is inside of something inert' : undefined)
  );
}

/** @throws SIM-ACT-FIELD for what nobody can type into, SIM-ACT-DISABLED for what is read-only */
export function refuseNoField(element: Element, act: string, circumstances: Circumstances): void {
  if (isField(element) && element.localName !== 'select') {
    if (!(element as HTMLInputElement).readOnly) return;
    refuse('SIM-ACT-DISABLED', { act, element: describe(element), why: 'it is read-only' }, circumstances);
  }
  const fields = [...element.ownerDocument.querySelectorAll(fieldSelector)].filter(
    (field) => isField(field) && whyHidden(field, false) === undefined,
  );
  const near =
    nearest(nameOrTextOf(element), fields, nameOrTextOf) ?? (fields.length === 1 ? fields[0] : undefined);
  const isChosen = element.localName === 'select';
  const suggested = isChosen ? `subject.choose(${locatorFor(element)}, '…')` : near && locatorFor(near);
  refuse(
    'SIM-ACT-FIELD',
    { act, element: describe(element), fields: fields.map(describe), nearest: suggested, isChosen },
    circumstances,
  );
}
