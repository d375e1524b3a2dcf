import { isSlip } from '../../core/near';
import type { SurveyNode } from '../../survey/graph';
import type { Given } from '../model';
import type { Known } from '../plan';
import { type Value } from '../value';

/** A draft that was changed for what a failure told, and what was done, in words. */
export interface Mended {
  readonly given: Given;
  readonly done: string;
  /** True for what may help: it is taken back where the same fails again. */
  readonly isGuess?: true;
}

export const nodeNamed = ({ survey }: Known, name: string, kind: RegExp): SurveyNode | undefined =>
  survey.graph.nodes.find((one) => one.name === name && kind.test(one.kind)) ??
  survey.graph.nodes.find((one) => kind.test(one.kind) && isSlip(one.name, name));

export const writes = (value: Value): string => (value.kind === 'code' ? value.code : JSON.stringify(value));

/** @param isOuter true where what stands around it already asks for it */
export function addWrapper(given: Given, wrapper: Value, name: string, isOuter = false): Mended | undefined {
  const key = JSON.stringify(wrapper);
  if (given.wrap.some((one) => JSON.stringify(one) === key)) return undefined;
  return {
    given: { ...given, wrap: isOuter ? [wrapper, ...given.wrap] : [...given.wrap, wrapper] },
    done: `put ${name} around it`,
  };
}

export function setMore(given: Given, option: string, value: Value, done: string): Mended | undefined {
  if (given.more.has(option)) return undefined;
  return { given: { ...given, more: new Map([...given.more, [option, value]]) }, done };
}
