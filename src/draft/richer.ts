import { isAbsolute } from 'node:path';
import { addOptional } from './mend/given';
import { isProvided } from './mend/mended';
import type { Draft, Given } from './model';
import { type Known, neededFor } from './plan';
import { readProps } from './types/props';
import { sampleStandIn } from './types/returned';
import { code, object, text, type Field, type Value } from './value';

/* Drafts that give more than has to be given, for a component that shows nothing of its own without it. */

const opens =
  /^(is)?(visible|open|opened|show|shown|active|expanded|modelValue|defaultOpen|defaultValue|present|forceMount|mounted|in)$/i;

/** The same, with a look at what its children are given. */
export function watching(known: Known, draft: Draft): Draft | undefined {
  const { root } = known.survey.graph;
  const children = new Set(
    root.edges.flatMap(({ to, how }) =>
      how === 'rendered' && /^(component|package)$/.test(to.kind) ? [to] : [],
    ),
  );
  const watched = [...children].flatMap((child) => {
    if (child.package !== undefined) return [{ name: child.name, from: child.package }];
    return neededFor(known, child) ?? [];
  });
  return watched.length > 0 ? { ...draft, cases: [], watched } : undefined;
}

/** The same, with a look at what only its elements show: for what nobody can read or hear, as an icon. */
export const seeingMarkup = (draft: Draft): Draft => ({ ...draft, cases: [], seesMarkup: true });

/** From what is likely to be enough to all that can be given. */
export function* richerDrafts(known: Known, draft: Draft): Generator<Draft> {
  const { given } = draft;
  if (given.stub.length > 0) yield { ...draft, cases: [], given: { ...given, stub: [] } };
  const open = withOpened(known, given);
  if (open) yield { ...draft, cases: [], given: open };
  const filled = addOptional(known, draft)?.given ?? given;
  const texts = withoutSwitches(filled, given);
  if (texts.props.size > given.props.size) yield { ...draft, cases: [], given: texts };
  const inside = withOpenedAround(known, texts);
  if (inside) yield { ...draft, cases: [], given: inside };
  const opened = withOpened(known, inside ?? texts);
  if (opened) yield { ...draft, cases: [], given: opened };
  const served = withServices(known, given);
  if (served) yield { ...draft, cases: [], given: served };
  const slotted = withSlots(known, opened ?? inside ?? texts);
  if (slotted) yield { ...draft, cases: [], given: slotted };
}

/** Without what only switches something, which may as well hide all of it. */
function withoutSwitches(filled: Given, before: Given): Given {
  const kept = [...filled.props].filter(([name, value]) => before.props.has(name) || !isSwitch(value));
  return { ...filled, props: new Map(kept) };
}

const isSwitch = (value: Value): boolean =>
  value.kind === 'code' && /^(true|false|undefined|null)$/.test(value.code);

function withOpened({ props }: Known, given: Given): Given | undefined {
  const found = props.filter(
    ({ name, value, others }) => opens.test(name) && (isSwitch(value) || others.some(isSwitch)),
  );
  if (found.length === 0) return undefined;
  return {
    ...given,
    props: new Map([...given.props, ...found.map(({ name }) => [name, code('true')] as const)]),
  };
}

/** Opens the components that stand around it, at the part that it is. */
function withOpenedAround({ types, survey }: Known, given: Given): Given | undefined {
  const { framework = 'react' } = survey.subject.unit;
  if (!types || framework === 'angular') return undefined;
  const value = given.props.get('value');
  // The same word for both of them, which is not varied.
  const part = value?.kind === 'text' ? text(value.text, true) : undefined;
  const opened = (wrapper: Value): Value => {
    const [component, options] = wrapper.kind === 'list' ? wrapper.items : [wrapper];
    const needed = component?.kind === 'code' && !component.constant ? component.needs?.[0] : undefined;
    if (!component || !needed || !isAbsolute(needed.from)) return wrapper;
    const fields: Field[] = options?.kind === 'object' ? [...options.fields] : [];
    const facts = (readProps(types, needed.from, needed.name, framework) ?? []).filter(
      ({ name }) => !fields.some(([known]) => known === name),
    );
    const chosen = ['modelValue', 'value', 'defaultValue'].find((name) =>
      facts.some((one) => one.name === name),
    );
    if (part && chosen) fields.push([chosen, part]);
    for (const { name, value: own, others } of facts)
      if (opens.test(name) && name !== chosen && (isSwitch(own) || others.some(isSwitch)))
        fields.push([name, code('true')]);
    return fields.length > 0 ? { kind: 'list', items: [component, object(fields)] } : wrapper;
  };
  const wrap = given.wrap.map(opened);
  if (JSON.stringify(wrap) === JSON.stringify(given.wrap)) return undefined;
  return { ...given, wrap, props: part ? new Map([...given.props, ['value', part]]) : given.props };
}

/** With values for what its services hold, which begin with nothing. */
function withServices(known: Known, given: Given): Given | undefined {
  const { types, survey } = known;
  if (!types || survey.subject.unit.framework !== 'angular') return undefined;
  const stands = survey.graph.root.edges.flatMap(({ to, how }): readonly (readonly [Value, Value])[] => {
    const needed = how === 'injected' && to.kind === 'service' ? neededFor(known, to) : undefined;
    const value = needed && sampleStandIn(types, needed);
    if (value?.kind !== 'around') return [];
    const token = code(needed!.local ?? needed!.name, needed!);
    return isProvided(given, token) ? [] : [[token, value]];
  });
  return stands.length > 0 ? { ...given, provide: [...given.provide, ...stands] } : undefined;
}

function withSlots({ survey }: Known, given: Given): Given | undefined {
  const { framework, slots = [] } = survey.subject.unit;
  const missing = slots.filter(
    (name) => framework !== 'react' && !given.slots.has(name) && /^[\w-]+$/.test(name),
  );
  if (missing.length === 0) return undefined;
  const words = (name: string) => name.replace(/[-_]/g, ' ').replace(/^./, (letter) => letter.toUpperCase());
  return {
    ...given,
    slots: new Map([...given.slots, ...missing.map((name) => [name, text(words(name))] as const)]),
  };
}

/** The same without what no check shows; nothing where that is all of it. */
export function leaned(first: Draft, { draft }: { readonly draft: Draft }): Draft | undefined {
  const isTold = tellingOf(draft);
  const props = [...draft.given.props].filter(
    ([name, value]) =>
      first.given.props.has(name) || isTold(`props.${name}`) || (opens.test(name) && isSwitch(value)),
  );
  const slots = [...draft.given.slots].filter(([name]) => isTold(`slots.${name}`));
  if (props.length === draft.given.props.size && slots.length === draft.given.slots.size) return undefined;
  return { ...draft, cases: [], given: { ...draft.given, props: new Map(props), slots: new Map(slots) } };
}

/** The same states without what may be left out and no check shows. */
export function withoutUntold({ props }: Known, draft: Draft): Draft | undefined {
  const isTold = tellingOf(draft);
  const isNeeded = (name: string) =>
    isTold(`props.${name}`) || props.some((one) => one.name === name && one.isRequired);
  const kept = [...draft.given.props].filter(([name]) => isNeeded(name));
  if (kept.length === draft.given.props.size) return undefined;
  return { ...draft, given: { ...draft.given, props: new Map(kept) } };
}

function tellingOf({ cases }: Draft): (path: string) => boolean {
  const told = new Set(
    cases.flatMap(({ checks, follow }) => [
      ...checks.map((check) => check.told ?? ''),
      ...(follow ? [`props.${follow.prop}`] : []),
    ]),
  );
  return (path) => [...told].some((one) => one === path || one.startsWith(`${path}.`));
}
