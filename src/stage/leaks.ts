import type { Made } from '../core/left';
import { framesOf } from '../core/errors/frames';
import { packageOf, placeOfCaller, printPlace, siteIn } from '../core/origin';
import { pageTime } from '../core/page-time';
import { once } from '../core/shared';
import { fitsPattern } from '../core/logs';
import { explain } from './errors';
import { printLeft } from './errors/surrounding';
import type { Ground } from './ground';

/** What is done about what a subject leaves behind; a list says what may stay. */
export type Leaks = 'fail' | 'warn' | 'allowed' | readonly (string | RegExp)[];

/** Something that was left behind, in words. */
export interface Left {
  readonly what: string;
  readonly from: string | undefined;
  /** The user's file and line that made it. */
  readonly line: string | undefined;
  /** The package that made it. */
  readonly library: string | undefined;
}

/**
 * Looks for what is still there after a subject was unmounted.
 *
 * @param calledAt where the subject was isolated: what the test's own code makes there is its own matter
 * @throws SIM-LEFT-BEHIND for what the user's own files made
 */
export function refuseLeaks(stage: Ground, policy: Leaks, calledAt: Error): void {
  if (policy === 'allowed') return;
  const all = madeBy(stage);
  // Reading a stack takes longer than everything else here.
  if (all.length === 0) return;
  const test = siteIn(calledAt)?.file;
  const own: Left[] = [];
  const mayStay = (line: string) =>
    Array.isArray(policy) && (policy as (string | RegExp)[]).some((pattern) => fitsPattern(pattern, line));
  for (const made of all) {
    const place = made.calledAt && placeOfCaller(made.calledAt);
    // What is made in the test's own file, and by no component that is known, may be the test's.
    if (!made.calledAt || (place?.file === test && made.from === undefined)) continue;
    const { from } = made;
    const what = typeof made.what === 'string' ? made.what : made.what();
    // A file has a path. The driver of a browser has not.
    if (place && !/[\\/]/.test(place.file)) continue;
    const library = place ? undefined : framesOf(made.calledAt).map(packageOf).find(Boolean);
    const left: Left = { what, from, line: place && printPlace(place), library };
    if (mayStay(printLeft(left))) continue;
    if (place) own.push(left);
    else warnOnce(stage, what, library);
  }
  if (own.length === 0) return;
  const fields = { subject: stage.setting.name, left: own };
  const error = explain('SIM-LEFT-BEHIND', fields, { chronicle: stage.chronicle, calledAt });
  if (policy === 'warn') say(stage, error.message);
  else throw error;
}

function madeBy({ environment }: Ground): Made[] {
  const { clock } = pageTime;
  const scheduled =
    clock?.scheduled.filter(({ owner, kind }) => owner === environment && kind !== 'answer') ?? [];
  return [
    // What is due at once ends by itself.
    ...scheduled
      .filter(({ delay }) => delay > 1)
      .map(({ label, from, calledAt }) => ({ what: label, from, calledAt })),
    ...environment.work.timers.flatMap(({ made, isImmediate }) => (made && !isImmediate ? made : [])),
    ...[...(environment.made ?? [])].filter(({ isOver }) => !isOver?.()),
  ];
}

const warned = once('warned', () => new Set<string>());
// What these leave is theirs: listeners of a document, scheduled work. The last two are the simulated page.
const frameworks = /^(react|react-dom|scheduler|vue|@vue\/.*|@angular\/.*|zone\.js|rxjs|jsdom|nwsapi)$/;

// Nobody can mend a package in a test, so it is reported once.
function warnOnce(stage: Ground, what: string, library: string | undefined): void {
  // A bundler's folder of packages does not show which one it was.
  if (!library || library.startsWith('.') || frameworks.test(library)) return;
  const text = `${stage.setting.name} was taken down, and the package "${library}" left ${what}. If it may stay:   leaks: ['${library}']`;
  const key = `${library} ${what.replace(/\d+/g, '')}`;
  if (warned.has(key)) return;
  warned.add(key);
  say(stage, text);
}

// Our own words are no log of the subject.
function say({ environment }: Ground, text: string): void {
  const { logs } = environment;
  environment.logs = undefined;
  console.warn(text);
  environment.logs = logs;
}
