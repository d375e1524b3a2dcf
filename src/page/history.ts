import { perceivedOf, lineOf, describeAll, describeChanges, type Line } from './perceived';
import { lookingAnew } from './looking';
import { Likeness } from './likeness';
import { observeChanges } from './globals/observing';

const everything: MutationObserverInit = {
  subtree: true,
  childList: true,
  attributes: true,
  attributeOldValue: true,
  characterData: true,
  characterDataOldValue: true,
};

/** The end of what was rendered in one go. */
interface Moment {
  /** How many records there were. */
  readonly end: number;
  /** What belonged to the subject: outermost elements. */
  readonly roots: readonly Element[];
}

/** The page at an earlier moment, as a copy that is good until the next one is looked at. */
export interface Earlier {
  /** What stands for the body. */
  readonly frame: Element;
  /** Where the next moment differs from it: outermost elements; undefined where all of it may. */
  readonly changed: readonly Element[] | undefined;
}

/**
 * What the page looked like at each moment. While the test runs, only the platform's mutation records are
 * kept. Earlier moments are rebuilt when someone asks for them.
 *
 * @see https://dom.spec.whatwg.org/#mutation-observers
 */
export class PageHistory {
  readonly #body: Element;
  readonly #observer: MutationObserver;
  #records: MutationRecord[] = [];
  readonly #moments: Moment[] = [];
  #roots: readonly Element[] = [];
  /** The roots whose changes are recorded. */
  #watched: readonly Element[] = [];
  readonly #changes: string[] = [];

  constructor(
    /** Where the subject is rendered. */
    private readonly container: Element,
    body: Element,
    /** All that belongs to the subject: the container, and what it has put elsewhere on the page. */
    private readonly readAll: () => readonly Element[],
  ) {
    this.#body = body;
    this.#observer = observeChanges(container.ownerDocument, (records) => this.#keep(records));
  }

  // One by one, because a turn may bring more records than a call can take as arguments.
  #keep(records: readonly MutationRecord[]): void {
    for (const record of records) this.#records.push(record);
  }

  /** Ends a moment: what changes from here on belongs to the next. @returns its number, from 0 */
  mark(): number {
    this.#keep(this.#observer.takeRecords());
    const roots = this.#readRoots();
    // Changes before the first moment do not matter, so recording starts here.
    if (roots !== this.#watched) {
      for (const root of roots) if (!this.#watched.includes(root)) this.#observer.observe(root, everything);
      this.#watched = roots;
    }
    return this.#moments.push({ end: this.#records.length, roots }) - 1;
  }

  #readRoots(): readonly Element[] {
    const body = this.#body;
    if (body.firstElementChild === this.container && body.lastElementChild === this.container)
      return this.#roots.length === 1 ? this.#roots : (this.#roots = [this.container]);
    const found = this.readAll();
    const isSame = found.length === this.#roots.length && found.every((root, at) => root === this.#roots[at]);
    return isSame ? this.#roots : (this.#roots = found);
  }

  /** True where the page has changed since the last moment ended. */
  get changed(): boolean {
    this.#keep(this.#observer.takeRecords());
    const last = this.#moments.at(-1);
    return !last || this.#records.length > last.end || this.#readRoots() !== last.roots;
  }

  /** How many moments there were. */
  get moments(): number {
    return this.#moments.length;
  }

  /** Goes back moment by moment, the last one first, until `look` returns true. */
  goBack(look: (earlier: Earlier) => boolean): boolean {
    return this.#walk(0, (_, earlier) => look(earlier));
  }

  /** What a moment showed that the one before it did not, in a few words. */
  changesAt(moment: number): string {
    if (this.#changes[moment] === undefined) this.#readChanges(moment);
    return this.#changes[moment]!;
  }

  // For each moment only the places that changed are worded. Everything else cancels out.
  #readChanges(first: number): void {
    this.#keep(this.#observer.takeRecords());
    const last = this.#moments.length - 1;
    if (first === 0 && last === 0 && this.#records.length === this.#moments[0]!.end) {
      // The first moment is the page as it is, so nothing is copied.
      this.#changes[0] = describeAll(this.#moments[0]!.roots);
      return;
    }
    let after: Line[] | undefined;
    let afterOf = -1;
    let changing: readonly Element[] | undefined;
    this.#walk(
      Math.max(0, first - 1),
      (moment, { frame }) => {
        if (after && afterOf === moment + 1 && this.#changes[afterOf] === undefined)
          this.#changes[afterOf] = describeChanges(perceivedAround(frame, changing), after);
        if (moment === 0 && this.#changes[0] === undefined) this.#changes[0] = describeAll([frame]);
        return false;
      },
      (moment, frame, places) => {
        changing = places;
        after = perceivedAround(frame, places);
        afterOf = moment;
      },
    );
  }

  /**
   * @param look is shown each moment from the last to `first`
   * @param leave is shown a moment again before it is left, with the places that will change
   */
  #walk(
    first: number,
    look: (moment: number, earlier: Earlier) => boolean,
    leave?: (moment: number, frame: Element, places: readonly Element[] | undefined) => void,
  ): boolean {
    // All moments use the same copy, so facts about it hold for one moment only.
    return lookingAnew(() => this.#walkBack(first, look, leave));
  }

  #walkBack(
    first: number,
    look: (moment: number, earlier: Earlier) => boolean,
    leave?: (moment: number, frame: Element, places: readonly Element[] | undefined) => void,
  ): boolean {
    this.#keep(this.#observer.takeRecords());
    const last = this.#moments.length - 1;
    if (last < first) return false;
    const likeness = new Likeness(this.#body.ownerDocument, this.#moments[last]!.roots);
    likeness.undo(this.#records, this.#moments[last]!.end, this.#records.length);
    let changed: readonly Element[] | undefined;
    for (let moment = last; ; moment--) {
      if (look(moment, { frame: likeness.frame, changed })) return true;
      if (moment === first) return false;
      const { end, roots } = this.#moments[moment - 1]!;
      const hasMoved = roots !== this.#moments[moment]!.roots;
      const places = hasMoved ? undefined : likeness.places(this.#records, end, this.#moments[moment]!.end);
      leave?.(moment, likeness.frame, places);
      likeness.undo(this.#records, end, this.#moments[moment]!.end);
      if (hasMoved) likeness.show(roots);
      changed = places?.filter((place) => likeness.frame.contains(place));
    }
  }

  stop(): void {
    this.#keep(this.#observer.takeRecords());
    this.#observer.disconnect();
  }
}

/** What a message says about some places and what is around them; about the whole page where the places are unknown. */
function perceivedAround(frame: Element, places: readonly Element[] | undefined): Line[] {
  if (!places) return worded(perceivedOf(frame));
  const told: Line[] = [];
  const around = new Set<Element>();
  for (const place of places) {
    if (!frame.contains(place)) continue;
    told.push(...perceivedOf(place));
    for (let at: Element | null = place; at && at !== frame; at = at.parentElement) around.add(at);
  }
  for (const element of around) {
    const line = lineOf(element);
    if (line) told.push(line);
  }
  return worded(told);
}

// The copy moves on to an earlier moment, so the current one is worded first.
function worded(lines: Line[]): Line[] {
  for (const line of lines) {
    line.told();
    line.state();
  }
  return lines;
}
