import { refuseUnused } from '../network/asked';
import { calledFrom } from '../core/errors/called-from';
import { directing } from '../core/director';
import { refuseProps } from './declared';
import { refuse } from './errors';
import { isProbed } from '../core/probed';
import { nearest } from '../core/near';
import type { AnyFunction } from '../core/spy';
import { makeStep, type Step } from '../core/step';
import { explained } from './explained';
import { Gestures } from './gestures';
import { lookFor, lookForOne, printAsked, readTexts } from './look';
import { looking } from '../page/looking';
import { printOutline } from './outline';
import { makeSubjectPage, type SubjectPage } from './page';
import { makePart } from './parts';
import type { Stage } from './stage';
import { readDoubles } from '../seam/place';
import { isSwap } from '../seam/swap';
import type { ReadOptions } from './plan';
import type { Pasted, TypeWhere } from '../page/gestures/acts';
import type { Distance } from '../page/gestures/drag';
import type { ClickHow } from '../page/gestures/click';
import type { Locator } from '../page/locators';
import { verdicts, type Patience, type Subject, type Target } from './subject';
import { makeTime, type Time } from './time';
import { waitFor, waitForCheck, type Wait } from './waiting';
import { makeVerdicts, type Verdicts } from './verdicts';

/** The subject as the test sees it. */
export const makeSubject = (stage: Stage, component: unknown, options: ReadOptions): Subject =>
  new View(stage, component, options) as unknown as Subject;

/** The steps that wait for what is under way. */
const waits = new Set<keyof Subject>(['appears', 'vanishes', 'eventually', 'atRest']);

// Methods are fields, so that a test may destructure them: `const { find } = board`.
class View implements Omit<Subject, 'part' | 'given'> {
  readonly #stage: Stage;
  readonly #component: unknown;
  readonly #options: ReadOptions;
  #acts: Gestures | undefined;
  #verdicts: Verdicts | undefined;
  #time: Time | undefined;
  #page: SubjectPage | undefined;
  readonly name: string;

  constructor(stage: Stage, component: unknown, options: ReadOptions) {
    this.#stage = stage;
    this.#component = component;
    this.#options = options;
    this.name = stage.setting.name;
  }

  get chronicle(): Subject['chronicle'] {
    directing.current?.look();
    return this.#stage.chronicle;
  }

  get requests(): Subject['requests'] {
    directing.current?.look();
    return this.#stage.network.requests;
  }

  get container(): HTMLElement {
    directing.current?.look();
    this.#stage.environment.hasShownContainer = true;
    return this.#stage.container;
  }

  get [verdicts](): Verdicts {
    return (this.#verdicts ??= makeVerdicts(this.#stage));
  }

  get #act(): Gestures {
    return (this.#acts ??= new Gestures(this.#stage));
  }

  // Capture the stack of the user's call now: it is lost after the first await.
  #here(method: keyof Subject): Error {
    return calledFrom(method, (this as unknown as Subject)[method] as AnyFunction);
  }

  // Wraps a gesture as a step that must be awaited, and adds the likely causes to its failure.
  #step<T>(method: keyof Subject, work: (calledAt: Error) => Promise<T>, target?: Target): Step<T> {
    const calledAt = this.#here(method);
    return makeStep(
      method,
      calledAt,
      explained(this.#stage, calledAt, () => {
        const { current } = directing;
        if (!current) return work(calledAt);
        const words = target ? printAsked(this.#stage, method, target) : method;
        return current.step(words, () => work(calledAt), waits.has(method));
      }),
    );
  }

  // A wait knows whether the test stands still for it.
  #wait<T>(method: keyof Subject, patience: Patience, work: (wait: Wait<Stage>) => Promise<T>): Promise<T> {
    const made: { step?: Step<T> } = {};
    const isAwaited = () => made.step?.isAwaited === true;
    return (made.step = this.#step(method, (calledAt) =>
      work({ stage: this.#stage, patience, calledAt, isAwaited }),
    ));
  }

  #asked(method: keyof Subject, target: Target): () => string {
    return () => printAsked(this.#stage, method, target);
  }

  readonly find = (locator: Locator) =>
    lookForOne(this.#stage, locator, this.#asked('find', locator), this.#here('find'));
  readonly findAll = (locator: Locator) =>
    lookFor(this.#stage, locator, this.#asked('findAll', locator), this.#here('findAll'));
  readonly texts = (locator: Locator) =>
    readTexts(this.#stage, locator, this.#asked('texts', locator), this.#here('texts'));
  readonly has = (locator: Locator) =>
    lookFor(this.#stage, locator, this.#asked('has', locator), this.#here('has')).length > 0;
  readonly appears = (locator: Locator, patience: Patience = {}) =>
    this.#wait('appears', patience, (wait) => waitFor(wait, locator, true).then(([first]) => first!));
  readonly vanishes = (locator: Locator, patience: Patience = {}) =>
    this.#wait('vanishes', patience, (wait) => waitFor(wait, locator, false).then(() => undefined));
  readonly eventually = <T>(check: () => T | Promise<T>, patience: Patience = {}) =>
    this.#wait('eventually', patience, (wait) => waitForCheck(wait, check));
  readonly click = (target: Target, how: ClickHow = {}) =>
    this.#step('click', (at) => this.#act.click(target, how, at), target);
  readonly hover = (target: Target) => this.#step('hover', (at) => this.#act.hover(target, at), target);
  readonly leave = () => this.#step('leave', (at) => this.#act.leave(at));
  readonly type = (target: Target, text: string, where: TypeWhere = {}) =>
    this.#step('type', (at) => this.#act.type(target, text, where, at), target);
  readonly compose = (target: Target, ...steps: string[]) =>
    this.#step('compose', (at) => this.#act.compose(target, steps, at), target);
  readonly clear = (target: Target) => this.#step('clear', (at) => this.#act.clear(target, at), target);
  readonly choose = (target: Target, ...wanted: (string | File)[]) =>
    this.#step('choose', (at) => this.#act.choose(target, wanted, at), target);
  readonly drop = (target: Target, ...files: File[]) =>
    this.#step('drop', (at) => this.#act.drop(target, files, at), target);
  readonly drag = (from: Target, to: Target | Distance) =>
    this.#step('drag', (at) => this.#act.drag(from, to, at), from);
  readonly scroll = (target: Target, by: Distance) =>
    this.#step('scroll', (at) => this.#act.scroll(target, by, at), target);
  readonly mark = (target: Target, text?: string) =>
    this.#step('mark', (at) => this.#act.mark(target, text, at), target);
  readonly copy = (target: Target) => this.#step('copy', (at) => this.#act.copy(target, at), target);
  readonly cut = (target: Target) => this.#step('cut', (at) => this.#act.cut(target, at), target);
  readonly paste = (target: Target, what?: Pasted) =>
    this.#step('paste', (at) => this.#act.paste(target, what, at), target);
  readonly press = (keys: string, target?: Target) =>
    this.#step('press', (at) => this.#act.press(keys, target, at), target);
  readonly update = (props: object) =>
    this.#step('update', async (calledAt) => {
      const stage = this.#stage;
      const { adapter, name } = stage.setting;
      stage.refuseGone('update()', calledAt);
      refuseProps({ adapter, component: this.#component, name, calledAt }, props, true);
      stage.chronicle.add('updated', name, { detail: Object.keys(props).join(', '), trigger: true });
      await stage.act('updated the props', () => adapter.settle(() => stage.mounted?.update(props)));
    });
  readonly part = (component: unknown) => {
    directing.current?.look();
    return makePart(this.#stage, component, this.#here('part'));
  };
  readonly given = (token: unknown) => {
    directing.current?.look();
    return readGiven(this.#stage, this.#options, token, () => this.#here('given'));
  };

  get time(): Time {
    return (this.#time ??= makeTime(this.#stage));
  }

  get page(): SubjectPage {
    return (this.#page ??= makeSubjectPage(this.#stage));
  }

  get outputs(): Subject['outputs'] {
    directing.current?.look();
    const { get } = Object.getOwnPropertyDescriptor(View.prototype, 'outputs')!;
    return readOutputs(this.#stage, calledFrom('outputs', get!));
  }

  readonly atRest = () => this.#step('atRest', () => this.#stage.atRest());
  readonly everyRouteAsked = (counts?: Readonly<Record<string, number>>) =>
    refuseUnused(this.#stage.network, this.#here('everyRouteAsked'), counts);
  readonly outline = ({ depth = Infinity }: { readonly depth?: number } = {}) => {
    this.#stage.refuseGone('outline()', this.#here('outline'));
    directing.current?.look();
    const { mounted, container } = this.#stage;
    return mounted ? looking(container.ownerDocument, () => printOutline(mounted.tree(), depth)) : '';
  };
  readonly takeDown = () => makeStep('takeDown', this.#here('takeDown'), this.#stage.environment.takeDown());
}

/** What a test provided for a token, or gave in place of a module's exports. @throws SIM-GIVEN-NONE */
function readGiven(
  stage: Stage,
  { provide, given }: ReadOptions,
  token: unknown,
  calledAt: () => Error,
): unknown {
  const { name, adapter } = stage.setting;
  if (isSwap(token) && given.swap?.includes(token)) return readDoubles(token);
  const found = provide.findLast((one) => one.token === token);
  if (found) return found.value;
  const nameToken = (key: unknown) => (isSwap(key) ? 'this swap' : adapter.nameOfToken(key));
  const provided = provide.map((one) => nameToken(one.token));
  const meant = typeof token === 'string' && provided.includes(token) ? token : undefined;
  return refuse(
    'SIM-GIVEN-NONE',
    { subject: name, asked: nameToken(token), provided, nearest: meant && `given(${meant})` },
    { calledAt: calledAt() },
  );
}

// An unknown output would look as if it never emitted, so it is refused.
function readOutputs(stage: Stage, calledAt: Error): Subject['outputs'] {
  const told = stage.mounted?.outputs() ?? {};
  return new Proxy(told, {
    get: (_, name) => {
      if (name in told || isProbed(name)) return told[name as string];
      const asked = String(name);
      const known = Object.keys(told);
      const fields = {
        subject: stage.setting.name,
        asked,
        known,
        nearest: nearest(asked, known),
        hint: stage.setting.adapter.outputHint,
      };
      return refuse('SIM-OUTPUT-NONE', fields, { calledAt, chronicle: stage.chronicle });
    },
  }) as Subject['outputs'];
}
