import { isSimulated } from '../styles';
import { around, isDisabled } from './around';
import { dispatch } from './events';
import { commitChange } from './fields';
import { showingInvalid } from './forms';
import { focusedIn, holding, type Person } from './person';
import { runPopoverButton } from './top-layer';

/** True for what the space bar presses. */
export const isPressable = (element: Element): boolean =>
  /^(button|summary)$/.test(element.localName) ||
  /^(checkbox|radio|button|submit|reset|image|file|color)$/.test((element as HTMLInputElement).type ?? '');

/** A click by a key, which has no place. */
export async function clickByKey(person: Person, target: Element): Promise<void> {
  if (!isDisabled(target)) await activate(person, target, { detail: 0 });
}

/** Sends a click, with what a browser does when it is not prevented and the page does not do by itself. */
export async function activate(person: Person, element: Element, init: object): Promise<void> {
  const work = () =>
    person.send(() => {
      const stop = followLabel(person, element);
      try {
        const allowed = unvalidated(element, () =>
          dispatch(element, 'click', { ...init, ...holding(person) }),
        );
        if (allowed) runPopoverButton(element);
      } finally {
        stop();
      }
    });
  if (belongsToForm(element)) await showingInvalid(person, work);
  else await work();
}

/** A button with "formnovalidate" submits what is not valid; a simulated page does not know. */
function unvalidated<T>(element: Element, work: () => T): T {
  const button = buttonAround(element);
  const form = button?.hasAttribute('formnovalidate') ? button.form : null;
  if (!form || form.noValidate || !isSimulated(element.ownerDocument)) return work();
  form.noValidate = true;
  try {
    return work();
  } finally {
    form.noValidate = false;
  }
}

const buttonAround = (element: Element): HTMLButtonElement | undefined =>
  around(element, ({ localName }) => /^(button|input)$/.test(localName)) as HTMLButtonElement | undefined;

const belongsToForm = (element: Element): boolean =>
  Boolean(buttonAround(element)?.form) ||
  around(element, ({ localName }) => localName === 'form') !== undefined;

/** A label that is clicked clicks its field; a person's click moves the focus there first. */
function followLabel({ document }: Person, element: Element): () => void {
  const label = around(element, ({ localName }) => localName === 'label') as HTMLLabelElement | undefined;
  const field = label?.control;
  const page = document.defaultView;
  if (!field || field === element || !page) return () => undefined;
  const follow = ({ target }: Event) => {
    if (target !== field || focusedIn(document) === field) return;
    void commitChange(focusedIn(document), (work) => work());
    field.focus();
  };
  page.addEventListener('click', follow, true);
  return () => page.removeEventListener('click', follow, true);
}
