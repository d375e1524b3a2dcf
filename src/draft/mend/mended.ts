import { isSlip } from '../../core/near';
import type { SurveyNode } from '../../survey/graph';
import type { Given } from '../model';
import type { Known } from '../plan';
import { type Value } from '../value';

/** A draft that was changed because of a failure, and what was done, in words. */
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

/** True for a component that stands around, by its name. */
export const isCalledIn = (wrapper: Value, name: string): boolean =>
  new RegExp(`\\b${name}\\b`).test(writes(wrapper));

/** @param at before which of those around it: the one that asks for it */
export function addWrapper(
  { wrap, ...given }: Given,
  wrapper: Value,
  name: string,
  at = wrap.length,
): Mended | undefined {
  const key = JSON.stringify(wrapper);
  if (wrap.some((one) => JSON.stringify(one) === key)) return undefined;
  return {
    given: { ...given, wrap: [...wrap.slice(0, at), wrapper, ...wrap.slice(at)] },
    done: `put ${name} around it`,
  };
}

export function setMore(given: Given, option: string, value: Value, done: string): Mended | undefined {
  if (given.more.has(option)) return undefined;
  return { given: { ...given, more: new Map([...given.more, [option, value]]) }, done };
}

/** @param word what it is called in the list of what was provided */
export function addProvided(
  given: Given,
  token: Value,
  value: Value,
  word = writes(token),
): Mended | undefined {
  if (isProvided(given, token)) return undefined;
  return { given: { ...given, provide: [...given.provide, [token, value]] }, done: `provided ${word}` };
}

/** A token is the same by its code, whatever it is imported from. */
export const isProvided = ({ provide }: Given, token: Value): boolean =>
  provide.some(([one]) => one.kind === token.kind && writes(one) === writes(token));

export function addStub(given: Given, stub: Value, done: string): Mended | undefined {
  const key = JSON.stringify(stub);
  if (given.stub.some((one) => JSON.stringify(one) === key)) return undefined;
  return { given: { ...given, stub: [...given.stub, stub] }, done };
}
