import { same } from './mend/index';
import type { Case, Draft } from './model';
import type { Known } from './plan';
import type { PropFact } from './types/props';
import { failValue, holdValue, vary, type Value } from './value';

/* The states that a component may be brought into, before it is known which of them differ. */

/** A state to try. */
export interface Candidate extends Case {
  /** What kind of state it is, which decides its name. */
  readonly kind: 'base' | 'loading' | 'failed' | 'empty' | 'prop';
}

const most = 14;

/** The states that may differ, the one with everything given among them. */
export function candidatesFor(
  { props }: Known,
  draft: Draft,
  asked: readonly string[],
): readonly Candidate[] {
  const reads = [...draft.given.network].filter(
    ([route, value]) => isRead(route, value) && asked.includes(route),
  );
  const base: Candidate = {
    ...(reads.length > 0
      ? { key: 'loaded', title: 'shows what it has loaded' }
      : { key: 'given', title: draft.given.props.size > 0 ? 'shows what it is given' : 'is rendered' }),
    ...{ kind: 'base', given: nothing, checks: [] },
  };
  const ofProps = props.flatMap((prop) => casesOf(prop, draft)).slice(0, most);
  return [...requestCases(reads), base, ...ofProps];
}

const nothing: Case['given'] = { props: new Map(), network: new Map(), more: new Map() };

const isRead = (route: string, value: Value): boolean =>
  /^(GET|QUERY) /.test(route) && !(value.kind === 'code' && /^channel\(/.test(value.code));

function requestCases(reads: readonly (readonly [string, Value])[]): readonly Candidate[] {
  if (reads.length === 0) return [];
  const all = (answer: (value: Value) => Value) =>
    new Map(reads.map(([route, value]) => [route, answer(value)]));
  const lists = reads.filter(([, value]) => holdsList(value));
  const one = (
    key: Candidate['key'],
    kind: Candidate['kind'],
    title: string,
    network: Candidate['given']['network'],
  ): Candidate => ({
    ...{ key, kind, title, checks: [], given: { ...nothing, network } },
  });
  return [
    one(
      'loading',
      'loading',
      'is loading',
      all(() => holdValue),
    ),
    one(
      'failed',
      'failed',
      'shows that it could not load',
      all(() => failValue(503)),
    ),
    ...(lists.length > 0
      ? [
          one(
            'empty',
            'empty',
            'has nothing to show',
            new Map(lists.map(([route, value]) => [route, emptied(value)])),
          ),
        ]
      : []),
  ];
}

const holdsList = (value: Value): boolean =>
  (value.kind === 'list' && value.items.length > 0) ||
  (value.kind === 'object' && value.fields.some(([, one]) => one.kind === 'list' && one.items.length > 0));

/** The same without any items. */
function emptied(value: Value): Value {
  if (value.kind === 'list') return { kind: 'list', items: [] };
  if (value.kind !== 'object') return value;
  return {
    ...value,
    fields: value.fields.map(([key, one]) => {
      if (one.kind === 'list') return [key, { kind: 'list', items: [] }] as const;
      return [
        key,
        one.kind === 'number' && /^(total|count|length)/i.test(key) ? { kind: 'number', number: 0 } : one,
      ] as const;
    }),
  };
}

function casesOf(
  { name, isRequired, value, others, isCallback }: PropFact,
  { given }: Draft,
): readonly Candidate[] {
  if (isCallback || name === 'children') return [];
  const made = (other: Value, key: string, title: string): Candidate => ({
    ...{ key, title, kind: 'prop', checks: [], given: { ...nothing, props: new Map([[name, other]]) } },
  });
  const cases = others.slice(0, 5).map((other) => {
    if (other.kind === 'text') return made(other, other.text, `takes the ${spaced(name)} "${other.text}"`);
    const word = other.kind === 'code' ? other.code : '';
    if (word === 'true') return made(other, name, `is shown with ${spaced(name)}`);
    if (word === 'false') return made(other, `not ${name}`, `is shown without ${spaced(name)}`);
    return made(other, `${name} ${word}`, `takes the ${spaced(name)} ${word}`);
  });
  if (cases.length > 0 || isRequired || given.props.has(name)) return cases;
  if (value.kind === 'code' && (value.varied === undefined || value.code === 'undefined')) return [];
  return [made(value, name, `shows its ${spaced(name)}`)];
}

const spaced = (name: string): string =>
  name
    .replace(/^(is|has)(?=[A-Z])/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();

const varyAll = (map: ReadonlyMap<string, Value>): ReadonlyMap<string, Value> =>
  new Map([...map].map(([key, value]) => [key, vary(value, key)]));

export const titleVaried = (title: string): string => `varied: ${title}`;

/** A case with all its values changed, to see what follows. */
export function varied(one: Candidate): Candidate {
  return {
    ...one,
    title: titleVaried(one.title),
    given: { ...one.given, props: varyAll(one.given.props), network: varyAll(one.given.network) },
  };
}

/** True where the states themselves hold all that may be changed: then both are tried in one run. */
export function isToldByStates(draft: Draft): boolean {
  const { props, network } = draft.given;
  return same({ ...variedDraft(draft).given, props, network }, draft.given);
}

/** A case with all values of its own and of all states changed. */
export const variedWhole = ({ given }: Draft, one: Candidate): Candidate =>
  varied({
    ...one,
    given: {
      ...one.given,
      props: new Map([...given.props, ...one.given.props]),
      network: new Map([...given.network, ...one.given.network]),
    },
  });

/** What all states are given, changed. */
export function variedDraft(draft: Draft): Draft {
  const { given } = draft;
  return {
    ...draft,
    given: {
      ...given,
      props: varyAll(given.props),
      network: varyAll(given.network),
      slots: varyAll(given.slots),
      provide: given.provide.map(([token, value]) => [token, vary(value)] as const),
      swap: given.swap.map((value) => vary(value)),
    },
  };
}
