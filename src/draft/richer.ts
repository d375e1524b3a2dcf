import { addOptional } from './mend/given';
import type { Draft, Given } from './model';
import type { Known } from './plan';
import { code, text, type Value } from './value';

/* Drafts that give more than has to be given, for a component that shows nothing of its own without it. */

const opens =
  /^(is)?(visible|open|opened|show|shown|active|expanded|modelValue|defaultOpen|defaultValue|present|forceMount|mounted|in)$/i;

/** From what is likely to be enough to all that can be given. */
export function* richerDrafts(known: Known, draft: Draft): Generator<Draft> {
  const { given } = draft;
  const filled = addOptional(known, draft)?.given ?? given;
  const texts = withoutSwitches(filled, given);
  if (texts.props.size > given.props.size) yield { ...draft, cases: [], given: texts };
  const opened = withOpened(known, texts);
  if (opened) yield { ...draft, cases: [], given: opened };
  const slotted = withSlots(known, opened ?? texts);
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

/** The same without what no check tells of; nothing where that is all of it. */
export function leaned(first: Draft, { draft }: { readonly draft: Draft }): Draft | undefined {
  const told = new Set(draft.cases.flatMap(({ checks }) => checks.map((check) => check.told ?? '')));
  const isTold = (path: string) => [...told].some((one) => one === path || one.startsWith(`${path}.`));
  const props = [...draft.given.props].filter(
    ([name, value]) =>
      first.given.props.has(name) || isTold(`props.${name}`) || (opens.test(name) && isSwitch(value)),
  );
  const slots = [...draft.given.slots].filter(([name]) => isTold(`slots.${name}`));
  if (props.length === draft.given.props.size && slots.length === draft.given.slots.size) return undefined;
  return { ...draft, cases: [], given: { ...draft.given, props: new Map(props), slots: new Map(slots) } };
}
