import { isSimulated } from '../styles';
import { isDisabled } from '../states';
import { dispatch, type Init } from './events';
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
export async function activate(person: Person, element: Element, init: Init): Promise<void> {
  const { button, label, form } = concernedBy(element);
  const work = () =>
    person.send(() => {
      const stop = followLabel(person, element, label);
      try {
        const allowed = unvalidated(button, () =>
          dispatch(element, 'click', { ...init, ...holding(person) }),
        );
        if (allowed) runPopoverButton(element);
      } finally {
        stop?.();
      }
    });
  if (form ?? button?.form) await showingInvalid(person, work);
  else await work();
}

/** What a click on an element concerns: the nearest button, label and form, itself or around it. */
function concernedBy(element: Element) {
  let button: HTMLButtonElement | undefined;
  let label: HTMLLabelElement | undefined;
  let form: Element | undefined;
  for (let at: Element | null = element; at; at = at.parentElement) {
    const { localName } = at;
    if (localName === 'button' || localName === 'input') button ??= at as HTMLButtonElement;
    else if (localName === 'label') label ??= at as HTMLLabelElement;
    else if (localName === 'form') form ??= at;
  }
  return { button, label, form };
}

/** A button with "formnovalidate" submits what is not valid; a simulated page does not know. */
function unvalidated<T>(button: HTMLButtonElement | undefined, work: () => T): T {
  const form = button?.hasAttribute('formnovalidate') ? button.form : null;
  if (!form || form.noValidate || !isSimulated(form.ownerDocument)) return work();
  form.noValidate = true;
  try {
    return work();
  } finally {
    form.noValidate = false;
  }
}

/** A label that is clicked clicks its field; a person's click moves the focus there first. */
function followLabel(
  { document }: Person,
  element: Element,
  label: HTMLLabelElement | undefined,
): (() => void) | undefined {
  const field = label?.control;
  const page = document.defaultView;
  if (!field || field === element || !page) return undefined;
  const follow = ({ target }: Event) => {
    if (target !== field || focusedIn(document) === field) return;
    void commitChange(focusedIn(document), (work) => work());
    field.focus();
  };
  page.addEventListener('click', follow, true);
  return () => page.removeEventListener('click', follow, true);
}
