import { tryArrivals } from '../arrivals/every-arrival';
import { asPart, joinComplaints, locateAt } from '../core/errors';
import type { Chronicle, HappeningKind } from '../core/chronicle';
import type { Environment } from '../core/environment';
import { readClock } from '../core/host';
import { takeDown } from '../core/take-down';
import { printLocator } from '../page/locators';
import { looking } from '../page/looking';
import { isolateOn } from '../stage/isolate';
import type { ReadOptions } from '../stage/plan';
import type { Stage } from '../stage/stage';
import type { Check, StateData } from '../stage/state';
import { makeVerdicts } from '../stage/verdicts';
import type { StateSet } from './sets';
import { explain } from './errors';
import { allHold, onlyIn, printPage, readSigns, readUsed, type Signs, type Used } from './see';

/** A state that has come about and shows what it declares. */
export interface Verified {
  readonly state: StateData;
  /** What it declares, as code. */
  readonly declares: readonly string[];
  /** The rendered tree; empty where nobody wants it. */
  readonly outline: string;
  readonly chronicle: Chronicle;
  /** From the call of `isolate` to rest. */
  readonly milliseconds: number;
  /** The other states that could as well be meant: all they declare is so. */
  readonly alsoHold: ReadonlySet<string>;
  readonly used: Used;
}

/** What else is done with a state that has come about. */
export interface More {
  /** Whether its outline is wanted. */
  readonly isOutlined?: boolean;
  /** False where a state that must come about in every order of arrival was brought about in all of them before. */
  readonly hasArrivals?: boolean;
  /** Done while it is up, whether it shows what it declares or not. */
  readonly whileUp?: (stage: Stage) => Promise<unknown>;
}

/**
 * Brings a state about and looks at it.
 *
 * @throws SIM-STATE-WRONG, SIM-STATE-EARLY, and whatever goes wrong with the subject
 */
export async function verifyState(
  set: StateSet,
  state: StateData,
  { isOutlined = false, hasArrivals = true, whileUp }: More = {},
): Promise<Verified> {
  const { declaredAt: at } = set;
  const begun = readClock();
  let up: Up | undefined;
  const onStage = (stage: Stage, read: ReadOptions) =>
    (up = { stage, read, early: watchArrivals(stage, state) });
  await isolateOn(set.adapter, state, { onStage }, at);
  const milliseconds = readClock() - begun;
  const failures: unknown[] = [];
  let seen: Omit<Verified, 'milliseconds'> | undefined;
  try {
    seen = look(set, state, up!, isOutlined);
  } catch (failure) {
    failures.push(failure);
  }
  if (whileUp) await whileUp(up!.stage);
  // As at the end of a test, so that nothing that answers remembers it.
  await takeDown().catch((complaint: unknown) => failures.push(complaint));
  if (failures.length > 0) throw locateAt(joinComplaints(failures), at);
  if (state.everyArrival && hasArrivals)
    await tryArrivals(() => comeAbout(set, state), { acrossSteps: true }, at);
  return { ...seen!, milliseconds };
}

/** Brings a state about, in whatever order its answers arrive. @throws SIM-STATE-WRONG */
async function comeAbout(set: StateSet, state: StateData): Promise<void> {
  refuseWrong(set, state, await putUp(set, state));
}

/** Puts a state on a stage. @returns the stage, for who looks at it */
async function putUp({ adapter, declaredAt }: StateSet, state: StateData): Promise<Stage> {
  let up: Stage | undefined;
  await isolateOn(adapter, state, { onStage: (stage) => (up = stage) }, declaredAt);
  return up!;
}

/** @throws SIM-STATE-WRONG where it does not show what it declares */
function refuseWrong({ component, declaredAt }: StateSet, { name, checks }: StateData, stage: Stage): void {
  const wrong = wrongIn(checks, stage);
  const told = { calledAt: declaredAt, chronicle: stage.chronicle };
  if (wrong.length > 0) throw explain('SIM-STATE-WRONG', { component, state: name, wrong }, told);
}

interface Up {
  readonly stage: Stage;
  readonly read: ReadOptions;
  readonly early: () => Early | undefined;
}

function look(set: StateSet, state: StateData, { stage, read, early }: Up, isOutlined: boolean) {
  // Nothing changes the page meanwhile, so what is found out of it is found out once.
  return looking(stage.container.ownerDocument, () => {
    refuseWrong(set, state, stage);
    const { chronicle } = stage;
    const declares = state.checks.map((check) => printCheck(check, stage));
    const before = early();
    const outline = isOutlined || before ? printPage(stage) : '';
    if (before && before.outline !== outline) {
      const brought = onlyIn(readSigns(stage), before.signs);
      const about = { component: set.component, state: state.name, answer: before.answer };
      const told = { calledAt: set.declaredAt, chronicle };
      throw explain('SIM-STATE-EARLY', { ...about, shows: declares, brought }, told);
    }
    const view = stage.view();
    const others = set.states.filter((other) => other !== state && allHold(other.checks, view));
    const alsoHold = new Set(others.map(({ name }) => name));
    return { state, declares, outline, chronicle, alsoHold, used: readUsed(stage, read) };
  });
}

/** What a state shows, to be compared with another one: it is brought about once more for that. */
export async function readSignsOf(set: StateSet, state: StateData): Promise<Signs> {
  const signs = readSigns(await putUp(set, state));
  await takeDown().catch(() => undefined);
  return signs;
}

/** What is not as declared, in the words of the matchers. */
function wrongIn(checks: readonly Check[], stage: Stage): string[] {
  const verdicts = makeVerdicts(stage);
  return checks.flatMap(({ locator, times }) => {
    const isUnwanted = times === 0;
    const { pass, message } = verdicts.shows(locator, isUnwanted ? undefined : times);
    return pass === isUnwanted ? [asPart(message())] : [];
  });
}

const printCheck = ({ locator, times }: Check, stage: Stage): string => {
  const code = printLocator(locator, stage.view().nameOf);
  return times === undefined ? code : times === 0 ? `no ${code}` : `${times} × ${code}`;
};

/** What was so before answers were let through. */
interface Early {
  readonly answer: string;
  readonly outline: string;
  readonly signs: Signs;
}

/** What a test does to a subject. */
const acts = new Set<HappeningKind>([
  ...(['updated', 'clicked', 'typed', 'cleared', 'chose', 'pressed', 'hovered', 'left', 'dragged'] as const),
  ...(['dropped', 'scrolled', 'marked', 'copied', 'cut', 'pasted', 'composed', 'moved', 'told'] as const),
]);

/**
 * Looks before the first answer that came after the last thing a test did. Later answers are not looked at: whether
 * two arrive together or one after the other differs from page to page.
 *
 * @returns what was so before it, if all that is declared was
 */
function watchArrivals(stage: Stage, { checks }: StateData): () => Early | undefined {
  let early: Early | undefined;
  let last: number | undefined;
  const { gate }: Environment = stage.environment;
  gate.onOpening = () => {
    if (!stage.mounted || stage.environment.state !== 'up') return;
    const act = stage.chronicle.placeOf(acts);
    if (act === last) return;
    last = act;
    early = undefined;
    if (!looking(stage.container.ownerDocument, () => allHold(checks, stage.view()))) return;
    const answer = gate.pending.map(({ label }) => label).join(' and ');
    early = { answer, outline: printPage(stage), signs: readSigns(stage) };
  };
  return () => early;
}
