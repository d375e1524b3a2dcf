import type { Stage } from '../stage/stage';
import { printPage } from '../states/see';
import { Verification } from '../states/verification';
import { failedOf } from './failed';
import type { DeclaredIn, Found, Verdict } from './model';
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
  #name: string | undefined;
  #up: { leave(): void; readonly verdict: Promise<Verdict> } | undefined;

  /** @param given what the file exports @param file its name @throws SIM-STATES-GIVEN */
  constructor(given: unknown, file: string) {
    this.#verification = new Verification(given, `${file}, as a file that declares states,`);
  }

  /** What the file declares. */
  get declared(): DeclaredIn {
    return { component: this.#component, states: this.#verification.names };
  }

  // The name of a lazy component is known by then.
  get #component(): string {
    return this.#name ?? this.#verification.set.component;
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
      this.#name = stage.setting.name;
      seen = { outline: printPage(stage), chronicle: stage.chronicle.toString(110) };
      const undress = await dressUp();
      tellUp(boxOf(stage));
      await isLeft;
      undress();
    };
    const verdict = this.#verification.verify(name, { whileUp, hasArrivals }).then(
      ({ declares, milliseconds }): Verdict => ({ ...seen, declares, milliseconds, failure: undefined }),
      (failure: unknown): Verdict => ({
        ...{ ...seen, declares: [], milliseconds: undefined, failure: failedOf(failure) },
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
  async finish(): Promise<Found & { readonly component: string }> {
    const { pairs, failures } = await this.#verification.findWhole();
    return { component: this.#component, pairs, failures: failures.map(failedOf) };
  }
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
