import { isSpy, spyOf, spyValue, type Needed, type Value } from '../value';

/** A stand-in makes the spies itself. */
export const answerOf = (made: Value): Value =>
  made.kind === 'around' && isSpy(made)
    ? { ...made, before: made.before.slice('spy('.length), after: made.after.slice(0, -1), needs: [] }
    : made;

export const valueOf = ({ name, local, from }: Needed): Needed =>
  local === undefined ? { name, from } : { name, local, from };

/** What is called and answers with a value. */
export function functionOf(made: Value, isPromise: boolean): Value {
  if (isPromise) return spyOf('() => Promise.resolve(', made, ')');
  if (isSpy(made)) return made.kind === 'code' ? spyOf('() => ', made) : spyValue();
  return made.kind === 'object' ? spyOf('() => (', made, ')') : spyOf('() => ', made);
}
