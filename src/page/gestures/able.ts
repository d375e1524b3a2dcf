import { type Circumstances } from '../../core/errors/registry';
import { refuse } from '../errors';
import { nearest } from '../../core/near';
import { describe, isField, locatorFor } from '../describe';
import { whyBehind, whyHidden } from '../hidden';
import { nameOrTextOf } from '../names';
import { fieldSelector } from '../query';
import { whyUnusable } from '../states';

/** @throws SIM-ACT-HIDDEN, SIM-ACT-DISABLED where a person could not reach or use the element */
export function refuseUnable(element: Element, act: string, circumstances: Circumstances): void {
  const hidden = element.isConnected
    ? (whyHidden(element, false) ?? whyBehind(element))
    : 'it has been taken off the page';
  if (hidden) refuse('SIM-ACT-HIDDEN', { act, element: describe(element), why: hidden }, circumstances);
  const inert = element.closest('[inert]');
  if (inert)
    refuse(
      'SIM-ACT-HIDDEN',
      { act, element: describe(element), why: 'it is inside of something inert' },
      circumstances,
    );
  const disabled = whyUnusable(element);
  if (disabled) refuse('SIM-ACT-DISABLED', { act, element: describe(element), why: disabled }, circumstances);
  if (/pointer-events:\s*none/.test(element.getAttribute('style') ?? '')) {
    refuse(
      'SIM-ACT-HIDDEN',
      { act, element: describe(element), why: 'pointer-events: none lets the pointer through' },
      circumstances,
    );
  }
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
