import { clickByKey } from './clicks';
import { commitChange } from './fields';
import type { Person } from './person';

const blocking = /^(text|search|url|tel|email|password|date|month|week|time|datetime-local|number)$/;
const isSubmit = ({ localName, type }: HTMLButtonElement): boolean =>
  /^(submit|image)$/.test(type) && /^(button|input)$/.test(localName);

/** What Enter in a field does. @see https://html.spec.whatwg.org/#implicit-submission */
export async function submitByKey(person: Person, field: HTMLInputElement): Promise<void> {
  const { form } = field;
  if (!form) return;
  const button = ([...form.elements] as HTMLButtonElement[]).find(isSubmit);
  if (button?.disabled) return;
  await commitChange(field, person.send);
  if (button) return clickByKey(person, button);
  const fields = ([...form.elements] as HTMLInputElement[]).filter(
    ({ localName, type }) => localName === 'input' && blocking.test(type),
  );
  if (fields.length <= 1) await person.send(() => form.requestSubmit());
}
