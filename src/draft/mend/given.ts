import { escaped } from '../../core/print';
import type { Draft, Given } from '../model';
import type { Known } from '../plan';
import type { FailureSeen } from '../run/observed';
import { ofKind } from '../types/leaf';
import { text, type Value } from '../value';
import { type Mended, setMore } from './mended';

export function addProps({ props }: Known, given: Given, names: readonly string[]): Mended | undefined {
  const added = new Map(given.props);
  for (const name of names) {
    const fact = props.find((one) => one.name === name || one.alias === name);
    const given = fact?.name ?? name;
    if (!added.has(given)) added.set(given, fact?.value ?? text(name));
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
  if (stub.length < given.stub.length) return { given: { ...given, stub }, done: `left ${name} real` };
  // A component that has no name of its own.
  return given.stub.length > 0
    ? { given: { ...given, stub: [] }, done: 'left its children real' }
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
  if (missing.length === 0 || missing.length > 60) return undefined;
  const added = new Map([...given.props, ...missing.map(({ name, value }) => [name, value] as const)]);
  return { given: { ...given, props: added }, done: `gave it ${missing.map(({ name }) => name).join(', ')}` };
}

/** Gives the props that a failure names: `aria-label should be specified`. */
export function addNamed(known: Known, { given }: Draft, failure: FailureSeen): Mended | undefined {
  const said = failure.thrown?.message ?? String(failure.fields['threw'] ?? failure.message);
  return addNamedIn(known, given, said);
}

export function addNamedIn(known: Known, given: Given, said: string): Mended | undefined {
  const named = known.props.filter(
    ({ name, isCallback }) =>
      !given.props.has(name) &&
      (!isCallback || said.includes(`${name} is not a function`)) &&
      name.length > 2 &&
      new RegExp(`(?<![\\w-])${escaped(name)}(?![\\w-])`).test(said),
  );
  return named.length > 0
    ? addProps(
        known,
        given,
        named.map(({ name }) => name),
      )
    : undefined;
}

/** With an element inside of it that can have the focus, where a text is not enough. */
export function elementInside(_: Known, { given, framework }: Draft): Mended | undefined {
  if (framework !== 'react' || given.props.get('children')?.kind !== 'text') return undefined;
  const written = (words: string) => `<button type="button">${words}</button>`;
  const value: Value = { kind: 'code', code: written('Content'), varied: written('Other content') };
  return {
    given: { ...given, props: new Map([...given.props, ['children', value]]) },
    done: 'put an element inside of it',
  };
}

/** Without a text inside of it, where it takes elements only. */
export function dropText({ props }: Known, { given }: Draft): Mended | undefined {
  const inside = given.props.get('children');
  const isOptional = props.some(({ name, isRequired }) => name === 'children' && !isRequired);
  return inside?.kind === 'text' && isOptional ? dropProp(given, 'children') : undefined;
}

/** A value of the kind that Vue asks for: `Expected Array, got String`. */
export function correctProp(
  given: Given,
  name: string | undefined,
  found: string | undefined,
): Mended | undefined {
  if (name === undefined || !given.props.has(name)) return undefined;
  const [, kind] = /Expected (\w+)/.exec(found ?? '') ?? [];
  if (kind === undefined) return dropProp(given, name);
  const value = ofKind(kind, { owner: name, field: name, path: [name] });
  return { given: { ...given, props: new Map([...given.props, [name, value]]) }, done: `corrected ${name}` };
}
