import { directing } from '../core/director';
import type { HappeningKind } from '../core/chronicle';
import { pause } from '../core/host';
import { holdAs, runAs } from '../core/ownership';
import { pageTime } from '../core/page-time';
import { print, printInside } from '../core/print';
import { describe } from '../page/describe';
import { refuseNoField, refuseUnable, type Need } from '../page/gestures/able';
import { personAt, type Acts, type Pasted, type TypeWhere } from '../page/gestures/acts';
import type { Distance } from '../page/gestures/drag';
import { refuseDistance, refuseFiles, refuseHow, refuseWhere } from '../page/gestures/how';
import type { ClickHow } from '../page/gestures/click';
import { hearLater } from '../page/gestures/hearing';
import { isLocator } from '../page/locators';
import { looking } from '../page/looking';
import { locate } from '../page/query';
import { lookForOne, printAsked } from './look';
import type { Stage } from './stage';
import type { Target } from './subject';
import { moveTo } from './time';

/** What a gesture is called in a message and in the chronicle, and what it needs. */
interface Kind extends Need {
  readonly verb: string;
  readonly kind: HappeningKind;
  readonly isTyping?: boolean;
}

const kinds = {
  click: { verb: 'click', kind: 'clicked' },
  hover: { verb: 'hover over', kind: 'hovered', isEnabled: false },
  drag: { verb: 'drag', kind: 'dragged' },
  drop: { verb: 'drop files on', kind: 'dropped' },
  scroll: { verb: 'scroll', kind: 'scrolled', isEnabled: false },
  type: { verb: 'type into', kind: 'typed', isTyping: true },
  compose: { verb: 'type into', kind: 'composed', isTyping: true },
  clear: { verb: 'clear', kind: 'cleared', isTyping: true },
  choose: { verb: 'choose in', kind: 'chose' },
  press: { verb: 'press a key on', kind: 'pressed', isPointed: false },
  mark: { verb: 'select text of', kind: 'marked', isEnabled: false },
  copy: { verb: 'copy', kind: 'copied', isEnabled: false, isPointed: false },
  cut: { verb: 'cut from', kind: 'cut', isPointed: false },
  paste: { verb: 'paste into', kind: 'pasted' },
} as const satisfies Record<string, Kind>;

type Gesture = keyof typeof kinds;

/** What a person does to a subject: find, check, record in the chronicle, do, bring to rest. */
export class Gestures {
  readonly #stage: Stage;
  readonly #person: Acts;

  constructor(stage: Stage) {
    this.#stage = stage;
    this.#person = personAt({
      document,
      send: (work) => {
        stage.onTurn();
        return stage.setting.adapter.settleNow(() => runAs(stage.environment, work));
      },
      wait: (ms) => letPass(stage, ms),
      during: (work) => holdAs(stage.environment, work),
    });
  }

  async #do<T>(
    method: Gesture,
    target: Target,
    calledAt: Error,
    perform: (element: HTMLElement) => Promise<T>,
    detail = '',
  ): Promise<T> {
    const stage = this.#stage;
    const { verb, kind, isTyping, ...need }: Kind = kinds[method];
    const asked = () => printAsked(stage, method, target);
    stage.refuseGone(asked, calledAt);
    await stage.restBefore();
    // Where orders of arrival are tried, what is not there yet has to come first.
    const isThere = () => !isLocator(target) || locate(target, stage.view()).length > 0;
    await directing.current?.until(stage.environment, isThere);
    const { element, name } = looking(document, () => {
      const found = lookForOne(stage, target, asked, calledAt);
      const around = stage.background(calledAt);
      refuseUnable(found, verb, around, need);
      if (isTyping) refuseNoField(found, verb, around);
      return { element: found, name: describe(found) };
    });
    stage.chronicle.add(kind, name, { detail, trigger: true });
    return stage.act(`${kind} ${name}`, async () => {
      const toldLater = hearLater(document);
      try {
        return await perform(element);
      } finally {
        await toldLater();
      }
    });
  }

  /** The element that something is dragged to. */
  #goal(to: Target | Distance, calledAt: Error): Element | Distance {
    if (!isTarget(to)) return to;
    const element = lookForOne(this.#stage, to, () => printAsked(this.#stage, 'drag', to), calledAt);
    refuseUnable(element, 'drop on', this.#stage.background(calledAt), { isEnabled: false });
    return element;
  }

  async click(target: Target, how: ClickHow, at: Error): Promise<void> {
    const read = refuseHow(how, this.#stage.background(at));
    await this.#do('click', target, at, (element) => this.#person.click(element, read), printOptions(how));
  }
  hover(target: Target, at: Error): Promise<void> {
    return this.#do('hover', target, at, this.#person.hover);
  }
  async leave(at: Error): Promise<void> {
    this.#stage.refuseGone('leave()', at);
    this.#stage.chronicle.add('left', 'the page', { trigger: true });
    await this.#stage.act('left the page', this.#person.leave);
  }
  async drag(from: Target, to: Target | Distance, at: Error): Promise<void> {
    if (!isTarget(to)) refuseDistance('drag', to, this.#stage.background(at));
    const detail = isTarget(to) ? printAsked(this.#stage, '', to).slice(1, -1) : printOptions(to);
    const perform = (element: Element) => this.#person.drag(element, this.#goal(to, at));
    await this.#do('drag', from, at, perform, `to ${detail}`);
  }
  async drop(target: Target, files: readonly File[], at: Error): Promise<void> {
    refuseFiles('drop', files, this.#stage.background(at));
    const perform = (element: Element) => this.#person.drop(element, ...files);
    await this.#do('drop', target, at, perform, printWanted(files));
  }
  async scroll(target: Target, by: Distance, at: Error): Promise<void> {
    refuseDistance('scroll', by, this.#stage.background(at));
    await this.#do('scroll', target, at, (element) => this.#person.scroll(element, by), printOptions(by));
  }
  async type(target: Target, text: string, where: TypeWhere, at: Error): Promise<void> {
    refuseWhere(where, this.#stage.background(at));
    await this.#do('type', target, at, (one) => this.#person.type(one, text, where), print(text));
  }
  compose(target: Target, steps: readonly string[], at: Error): Promise<void> {
    const perform = (element: Element) => this.#person.compose(element, ...steps);
    return this.#do('compose', target, at, perform, steps.join(' → '));
  }
  clear(target: Target, at: Error): Promise<void> {
    return this.#do('clear', target, at, this.#person.clear);
  }
  choose(target: Target, wanted: readonly (string | File)[], at: Error): Promise<void> {
    const perform = (element: Element) => this.#person.choose(element, ...wanted);
    return this.#do('choose', target, at, perform, printWanted(wanted));
  }
  press(keys: string, target: Target | undefined, at: Error): Promise<void> {
    const place = target ?? document.activeElement ?? document.body;
    const perform = (element: Element) => this.#person.press(keys, target && element);
    return this.#do('press', place, at, perform, keys);
  }
  mark(target: Target, text: string | undefined, at: Error): Promise<void> {
    return this.#do('mark', target, at, (one) => this.#person.mark(one, text), text && print(text));
  }
  copy(target: Target, at: Error): Promise<string> {
    return this.#do('copy', target, at, this.#person.copy);
  }
  cut(target: Target, at: Error): Promise<string> {
    return this.#do('cut', target, at, this.#person.cut);
  }
  paste(target: Target, what: Pasted | undefined, at: Error): Promise<void> {
    const detail = typeof what === 'string' ? print(what) : '';
    return this.#do('paste', target, at, (element) => this.#person.paste(element, what), detail);
  }
}

const isTarget = (to: Target | Distance): to is Target =>
  (to as Partial<Element>)?.nodeType === 1 || typeof to !== 'object' || to === null || 'sought' in to;

/** Lets time pass while something is held: on the virtual clock, or for real. */
async function letPass(stage: Stage, ms: number): Promise<void> {
  const { clock } = pageTime;
  if (clock) return moveTo(stage, clock, clock.now() + ms);
  await pause(ms);
  await stage.atRest();
}

const printOptions = (options: object): string =>
  Object.keys(options).length === 0 ? '' : printInside(options);

const printWanted = (wanted: readonly (string | File)[]): string =>
  wanted.map((one) => (typeof one === 'string' ? print(one) : one.name)).join(', ');
