import { calledFrom } from '../core/errors/called-from';
import { fitting } from './declared';
import { refuse } from './errors';
import { nearest } from '../core/near';
import { makeStep } from '../core/step';
import { explained } from './explained';
import { printCall, type AnyFunction, type Spy } from '../core/spy';
import { wordNoPart } from './look';
import type { Stage } from './stage';
import type { StubInstance } from './stubs';

/** The functions among the props. */
type FunctionsOf<P> = {
  [K in keyof P as NonNullable<P[K]> extends AnyFunction ? K : never]-?: NonNullable<P[K]>;
};
type ArgsOf<F> = NonNullable<F> extends (...args: infer A) => unknown ? A : never;

/** One child on the page: its props, and a way to call its callbacks. */
export interface PartInstance<P, Heard = FunctionsOf<P>> {
  readonly props: P;
  /** Its outermost element; undefined if it renders none. */
  readonly element: Element | undefined;
  /** Calls a callback that the parent passed, as the real child would. Resolves at rest. */
  tell<K extends keyof Heard & string>(name: K, ...args: ArgsOf<Heard[K]>): Promise<void>;
}

/** All children of one component. */
export interface Part<P, Heard = FunctionsOf<P>> {
  /** The current props of each instance, in page order. */
  readonly props: P[];
  /** The props of every render of the stub, oldest first. */
  readonly given: P[];
  /** The methods of the stub's handle, which the parent reaches through a ref. */
  readonly handle: Readonly<Record<string, Spy>>;
  /** One instance, in page order from 0. @throws SIM-PART-NONE */
  at(index: number): PartInstance<P, Heard>;
  /** Calls a callback of the only instance. @throws SIM-PART-MANY, SIM-PART-NONE, SIM-PART-TELL */
  tell<K extends keyof Heard & string>(name: K, ...args: ArgsOf<Heard[K]>): Promise<void>;
}

/** The part of a subject that a component or its stub makes up. */
export function makePart(stage: Stage, component: unknown, calledAt: Error): Part<Record<string, unknown>> {
  const name = stage.view().nameOf(component);
  const record = stage.setting.stubs.find(component);
  const instances = () => (record ? record.inPageOrder() : realInstances(stage, component));
  const at = (index: number, asked = `part(${name}).at(${index})`) => {
    const found = instances();
    const instance = found.at(index);
    if (!instance && found.length > 0)
      refuse('SIM-PART-INDEX', { part: name, index, times: found.length }, stageNote(stage, calledAt));
    if (!instance) throw wordNoPart(stage, name, calledAt);
    return makeInstance(stage, name, instance, asked);
  };
  return {
    get props() {
      return instances().map(({ props }) => props);
    },
    get given() {
      return record ? record.given : instances().map(({ props }) => props);
    },
    handle: record?.handle ?? {},
    at,
    tell: (key, ...args) => {
      const times = instances().length;
      const asked = `part(${name}).tell('${key}')`;
      try {
        if (times > 1) refuse('SIM-PART-MANY', { part: name, times, asked }, { calledAt });
        return at(0, asked).tell(key, ...(args as never));
      } catch (failure) {
        return Promise.reject(failure as Error);
      }
    },
  };
}

const realInstances = (stage: Stage, component: unknown): StubInstance[] =>
  (stage.mounted?.instancesOf(fitting(stage.adapter, component)) ?? []).map(({ props, element, heard }) => ({
    props,
    element: () => element,
    ...(heard && { heard: () => heard }),
  }));

const stageNote = (stage: Stage, calledAt: Error) => ({ calledAt, chronicle: stage.chronicle });

function makeInstance(
  stage: Stage,
  part: string,
  instance: StubInstance,
  asked: string,
): PartInstance<Record<string, unknown>> {
  const tell = (key: string, ...args: unknown[]): Promise<void> => {
    const calledAt = calledFrom(asked, tell);
    const work = explained(stage, calledAt, () => telling(calledAt, key, args));
    return makeStep(`part(${part}).tell`, calledAt, work);
  };
  async function telling(calledAt: Error, key: string, args: unknown[]): Promise<void> {
    stage.refuseGone(asked, calledAt);
    const heard = { ...instance.props, ...instance.heard?.() };
    const call = heard[key];
    if (typeof call !== 'function') {
      const known = Object.keys(heard).filter((name) => typeof heard[name] === 'function');
      refuse(
        'SIM-PART-TELL',
        { part, name: key, known, nearest: nearest(key, known) },
        stageNote(stage, calledAt),
      );
    }
    stage.chronicle.add('told', part, { detail: printCall(key, args), trigger: true });
    await stage.act(`had ${part} tell ${key}`, () =>
      stage.setting.adapter.settle(() => (call as AnyFunction)(...args)),
    );
  }
  return {
    get props() {
      return instance.props;
    },
    get element() {
      return instance.element();
    },
    tell,
  };
}
