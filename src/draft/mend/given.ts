import type { Draft, Given } from '../model';
import type { Known } from '../plan';
import { text } from '../value';
import { type Mended, setMore } from './mended';

export function addProps({ props }: Known, given: Given, names: readonly string[]): Mended | undefined {
  const added = new Map(given.props);
  for (const name of names) {
    const fact = props.find((one) => one.name === name);
    if (!added.has(name)) added.set(name, fact?.value ?? text(name));
  }
  return { given: { ...given, props: added }, done: `gave it ${names.join(', ')}` };
}

export function dropProp(given: Given, name: string | undefined): Mended | undefined {
  const props = new Map(given.props);
  return name !== undefined && props.delete(name)
    ? { given: { ...given, props }, done: `left out ${name}` }
    : undefined;
}

export function dropStub(given: Given, name: string | undefined): Mended | undefined {
  const stub = given.stub.filter(
    (one) => !(one.kind === 'code' && one.code === name) && !(one.kind === 'text' && one.text === name),
  );
  return stub.length < given.stub.length
    ? { given: { ...given, stub }, done: `left ${name} real` }
    : undefined;
}

export function dropProvided(given: Given, names: readonly string[]): Mended | undefined {
  const provide = given.provide.filter(
    ([one]) =>
      !(one.kind === 'code' && names.includes(one.code)) &&
      !(one.kind === 'text' && names.includes(one.text)),
  );
  return provide.length < given.provide.length
    ? { given: { ...given, provide }, done: `provided ${names.join(', ')} no longer` }
    : undefined;
}

interface Left {
  readonly what: string;
}

export function allowLeft(given: Given, left: unknown): Mended | undefined {
  const items = ((left as readonly Left[] | undefined) ?? []).map(({ what }) => text(what, true));
  return items.length > 0
    ? setMore(given, 'leaks', { kind: 'list', items }, 'allowed what it leaves behind')
    : undefined;
}

/** Gives all props that may be missing: the code takes one of them to be there. */
export function addOptional({ props }: Known, { given }: Pick<Draft, 'given'>): Mended | undefined {
  const missing = props.filter(({ name, isCallback }) => !given.props.has(name) && !isCallback);
  if (missing.length === 0 || missing.length > 25) return undefined;
  const added = new Map([...given.props, ...missing.map(({ name, value }) => [name, value] as const)]);
  return { given: { ...given, props: added }, done: `gave it ${missing.map(({ name }) => name).join(', ')}` };
}
