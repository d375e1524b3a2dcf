import type { Draft, Given } from '../model';
import { type Known, timeValue } from '../plan';
import type { FailureSeen } from '../run/observed';
import { type Value, code } from '../value';
import { addProps, allowLeft, correctProp, dropProp, dropProvided, dropStub } from './given';
import { mendLogs } from './logs';
import { type Mended, addWrapper, setMore } from './mended';
import { addRoutes, fillAnswer } from './network';
import { addProvider } from './provide';
import { mendThrown } from './thrown';
import { addUnresolved } from './unresolved';

/** Changes what is given for what has failed; nothing where the failure says nothing new. */
export function mend(
  known: Known,
  draft: Draft,
  failures: readonly FailureSeen[],
  tried: ReadonlySet<string>,
): { draft: Draft; done: readonly string[]; isGuess: boolean } {
  let { given } = draft;
  let isGuess = false;
  const done: string[] = [];
  const [threw] = failures;
  for (const failure of failures) {
    // Somebody handled what was worded on the way and is not reported at the end.
    if (failure !== threw && !isTold(failure, threw!)) continue;
    // A consequence of what was mended already.
    if (done.length > 0 && failure.code === 'SIM-RENDER-THREW') continue;
    const mended = mendOne(known, { ...draft, given }, failure, tried);
    if (!mended || same(mended.given, given)) continue;
    given = mended.given;
    isGuess ||= mended.isGuess === true;
    done.push(mended.done);
  }
  return { draft: { ...draft, given, done: [...draft.done, ...done] }, done, isGuess };
}

const isTold = ({ code: told, message }: FailureSeen, threw: FailureSeen): boolean =>
  told !== threw.code && threw.message.includes(message.split('\n\n')[0]!);

export const same = (one: Given, other: Given): boolean =>
  one === other || JSON.stringify(asData(one)) === JSON.stringify(asData(other));
const asData = (given: Given) =>
  Object.fromEntries(
    Object.entries(given).map(([key, value]) => [
      key,
      value instanceof Map ? [...(value as Map<string, Value>)] : value,
    ]),
  );

function mendOne(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const { given } = draft;
  const { code: failed, fields } = failure;
  const words = (key: string): string | undefined =>
    typeof fields[key] === 'string' ? fields[key] : undefined;
  switch (failed) {
    case 'SIM-REQUEST-UNMATCHED':
      return addRoutes(known, given, fields['requests']);
    case 'SIM-GRAPHQL-LACKS':
      return fillAnswer(given, words('route'), (fields['lacking'] as readonly string[] | undefined) ?? []);
    case 'SIM-PROVIDE-MISSING':
    case 'SIM-WRAP-MISSING':
      return addProvider(known, draft, failure);
    case 'SIM-SUSPENSE-MISSING':
      return addWrapper(
        given,
        code('[Suspense, { fallback: null }]', { name: 'Suspense', from: 'react' }),
        'Suspense',
      );
    case 'SIM-RESOLVE-NONE':
      return addUnresolved(given, failure);
    case 'SIM-PROP-MISSING':
      return addProps(known, given, (fields['missing'] as readonly string[] | undefined) ?? []);
    case 'SIM-PROP-TYPE':
      return correctProp(given, words('prop'), words('found'));
    case 'SIM-PROP-UNKNOWN':
      return dropProp(given, words('asked'));
    case 'SIM-STUB-UNUSED':
    case 'SIM-STUB-NAME':
      return dropStub(given, words('stub'));
    case 'SIM-PROVIDE-UNUSED':
      return dropProvided(given, (fields['names'] as readonly string[] | undefined) ?? []);
    case 'SIM-SWAP-UNUSED':
    case 'SIM-SWAP-REFUSED':
    case 'SIM-SEAM-PRESET':
    case 'SIM-SEAM-MISSING':
      return given.swap.length > 0 ? { given: { ...given, swap: [] }, done: 'swapped nothing' } : undefined;
    case 'SIM-SLOT-UNUSED':
    case 'SIM-SLOT-UNKNOWN': {
      const slots = new Map(given.slots);
      return slots.delete(words('asked') ?? '')
        ? { given: { ...given, slots }, done: 'left a slot empty' }
        : undefined;
    }
    case 'SIM-LEFT-BEHIND':
      return allowLeft(given, fields['left']);
    case 'SIM-LOG-UNEXPECTED':
      return mendLogs(known, draft, fields['logs'], tried);
    case 'SIM-REST-NEVER':
      return setMore(given, 'time', timeValue, 'gave it virtual time');
    case 'SIM-PAGE-LACKS':
    case 'SIM-RENDER-THREW':
    case 'SIM-LATE-THREW':
    case 'SIM-HANDLER-THREW':
      return mendThrown(known, draft, failure, tried);
    default:
      return undefined;
  }
}
