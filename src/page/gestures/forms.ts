import { hearing } from './events';
import type { Person } from './person';

/** Does something that may submit a form, and moves to the first field that is not valid, as browsers do. */
export async function showingInvalid(
  { document, send }: Person,
  work: () => void | Promise<void>,
): Promise<void> {
  const invalid = await hearing(document, 'invalid', work);
  const first = invalid.find(({ defaultPrevented }) => !defaultPrevented)?.target as HTMLElement | undefined;
  if (first && document.activeElement !== first) await send(() => first.focus());
}
