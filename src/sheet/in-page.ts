import { withoutHistory } from '../core/errors';
import { startTimer } from '../core/host';
import { isError } from '../core/is-error';
import { siteIn } from '../core/origin';
import type { Stage } from '../stage/stage';
import { declarationOf } from '../states/place';
import { printPage } from '../states/see';
import { Verification } from '../states/verification';
import type { DeclaredIn, Failed, Found, Verdict } from './model';
import { dressUp } from './picture-styles';

/* What happens on the page itself: it runs in the browser, and the sheet asks it for one state after the other. */

/** How far the picture reaches, in CSS pixels. */
interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The declared states of one file, brought about one after the other, each left standing for its picture. */
export class Showing {
  readonly #verification: Verification;
  #up: { leave(): void; readonly verdict: Promise<Verdict> } | undefined;

  /** @param given what the file exports @param file its name @throws SIM-STATES-GIVEN */
  constructor(given: unknown, file: string) {
    this.#verification = new Verification(given, `${file}, as a file that declares states,`);
  }

  /** What the file declares. */
  get declared(): DeclaredIn {
    const { component, declaredAt } = this.#verification.set;
    const lineOf = (name: string) => siteIn(declarationOf(name, declaredAt))?.line;
    return { component, states: this.#verification.names.map((name) => ({ name, line: lineOf(name) })) };
  }

  /**
   * Brings a state about, and leaves it standing.
   *
   * @param hasArrivals whether every order of arrival is tried where a state asks for that
   * @returns how far a picture of it reaches; undefined where it could not be brought up
   */
  async show(name: string, hasArrivals: boolean): Promise<Box | undefined> {
    let leave = () => {};
    const isLeft = new Promise<void>((resolve) => (leave = resolve));
    let seen = { outline: '', chronicle: '' };
    let tellUp = (_: Box | undefined) => {};
    const up = new Promise<Box | undefined>((resolve) => (tellUp = resolve));
    const whileUp = async (stage: Stage) => {
      seen = { outline: printPage(stage), chronicle: stage.chronicle.toString(110) };
      const undress = await dressUp();
      tellUp(boxOf(stage));
      await isLeft;
      undress();
    };
    const verdict = this.#verification.verify(name, { whileUp, hasArrivals }).then(
      ({ declares, milliseconds }): Verdict => ({ ...seen, declares, milliseconds, failure: undefined }),
      (failure: unknown): Verdict => ({
        ...{ ...seen, declares: [], milliseconds: undefined, failure: read(failure) },
      }),
    );
    void verdict.then(() => tellUp(undefined));
    this.#up = { leave, verdict };
    return up;
  }

  /** Takes down the state that is up. @returns what came of it */
  async leave(): Promise<Verdict> {
    const up = this.#up!;
    this.#up = undefined;
    up.leave();
    return up.verdict;
  }

  /** What is wrong with the states as a whole, once all have come about. */
  async finish(): Promise<Found> {
    const verification = this.#verification;
    const pairs = verification.pairs();
    const alike = pairs.filter(([{ state }, other]) => other.alsoHold.has(state.name)).length;
    const unused = verification.complainOfUnused();
    const failures = [...(await verification.complainOfAlike()), ...(unused ? [unused] : [])];
    return { pairs: { compared: pairs.length, apart: pairs.length - alike }, failures: failures.map(read) };
  }
}

function read(failure: unknown): Failed {
  if (!isError(failure)) return { code: undefined, message: String(failure), line: undefined };
  const { code } = failure as { code?: string };
  const line = siteIn(failure)?.line;
  return { code, message: withoutHistory(failure.message), line };
}

const mostElements = 5000;
const margin = 16;

/** What has to be in a picture: all that the subject has put on the page. */
function boxOf(stage: Stage): Box {
  const { innerWidth: width } = window;
  let bottom = 0;
  const all = stage.view().roots.flatMap((root) => [root, ...root.querySelectorAll('*')]);
  for (const element of all.slice(0, mostElements)) {
    const { width: wide, height: high, bottom: end } = element.getBoundingClientRect();
    if (wide > 0 && high > 0 && getComputedStyle(element).visibility !== 'hidden')
      bottom = Math.max(bottom, end + window.scrollY);
  }
  return { x: 0, y: 0, width, height: Math.min(3000, Math.max(48, Math.ceil(bottom + margin))) };
}
