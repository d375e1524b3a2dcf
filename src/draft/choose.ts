import { quoteCode } from '../page/locators';
import type { Candidate } from './explore';
import type { Check, Draft, Follow } from './model';
import type { Observation, Sign } from './run/observed';
import { toldIn, vary, type Needed, type Told, type Value } from './value';

/** A state that was tried, with what was seen: as it is, and with all values changed. */
export interface Seen {
  readonly candidate: Candidate;
  readonly observed: Observation;
  readonly varied: Observation | undefined;
}

/** A sign that the component itself brings: its own, or one that follows what it was given. */
interface Proven {
  readonly sign: Sign;
  readonly kind: 'own' | 'follows';
  /** What it follows: `props.name`. */
  readonly told?: Told;
}

const mostOfProps = 6;

/** What all states are told apart by. @returns the states with something true to say of each */
export function chooseCases(draft: Draft, all: readonly Seen[]): readonly Candidate[] {
  const looked = distinct(all).map((one) => ({ ...one, proven: provenIn(draft, one) }));
  const isOfProp = ({ candidate }: Looked) => candidate.kind === 'prop';
  let kept = looked.filter((one) => !isOfProp(one));
  // A state that looks like those before it, or hides what distinguished one of them, is no state of its own.
  for (const one of looked.filter(isOfProp)) {
    if (kept.filter(isOfProp).length === mostOfProps) break;
    const told = tellApart(draft, [...kept, one]);
    if (told.length > tellApart(draft, kept).length) kept = [...kept, one];
  }
  return tellApart(draft, kept);
}

function tellApart(draft: Draft, looked: readonly Looked[]): readonly Candidate[] {
  return looked.flatMap((one): Candidate[] => {
    const checks = checksOf(
      draft,
      one,
      looked.filter((other) => other !== one),
    );
    if (checks.length === 0) return [];
    const isLoaded =
      one.candidate.key !== 'loaded' ||
      looked.some(({ candidate }) => candidate.kind === 'empty') ||
      checks.some(({ told = '' }) => /^(network|swap)/.test(told));
    const follow = one.candidate.kind === 'base' ? followOf(draft, one) : undefined;
    return [
      { ...one.candidate, ...(!isLoaded && { title: 'comes to rest' }), checks, ...(follow && { follow }) },
    ];
  });
}

/** What finds it, and what a field holds. */
const idOf = ({ code, property, words }: Sign): string =>
  property === undefined ? code : `${code} ${property}=${words}`;
const keyOf = (sign: Sign): string => `${idOf(sign)} ${JSON.stringify(sign.state)}`;
const pageOf = ({ signs, stubs }: Observation): string =>
  JSON.stringify([signs.map((sign) => [keyOf(sign), sign.count]), stubs]);

/** States that look like one before them are left out; the one with everything given stays. */
function distinct(all: readonly Seen[]): readonly Seen[] {
  const loading = all.find(({ candidate }) => candidate.kind === 'loading');
  const given = all.find(({ candidate }) => candidate.kind === 'base');
  // What looks as if nothing had come yet shows nothing of what came.
  const isStill = loading && given && pageOf(loading.observed) === pageOf(given.observed);
  if (isStill) return distinct(all.filter((one) => one !== given));
  const base = given;
  const pages = new Set(base ? [pageOf(base.observed)] : []);
  return all.filter((one) => {
    if (one === base) return true;
    const page = pageOf(one.observed);
    if (pages.has(page)) return false;
    pages.add(page);
    return true;
  });
}

/** All texts and numbers that the draft has made up. */
function toldTo(draft: Draft, { given }: Candidate): readonly Told[] {
  const of = (map: ReadonlyMap<string, Value>, where: string) =>
    [...map].flatMap(([key, value]) => toldIn(value, `${where}.${key}`));
  return [
    ...of(new Map([...draft.given.props, ...given.props]), 'props'),
    ...of(new Map([...draft.given.network, ...given.network]), 'network'),
    ...of(draft.given.slots, 'slots'),
    ...draft.given.provide.flatMap(([, value], index) => toldIn(value, `provide.${index}`)),
    ...draft.given.swap.flatMap((value, index) => toldIn(value, `swap.${index}`)),
  ].filter(({ words, varied }) => words !== varied);
}

function provenIn(draft: Draft, { candidate, observed, varied }: Seen): readonly Proven[] {
  const told = toldTo(draft, candidate);
  const after = new Set((varied?.signs ?? []).map(idOf));
  const before = new Set(observed.signs.map(idOf));
  const isSure = varied !== undefined && varied.threw === undefined;
  return observed.signs.flatMap((sign): Proven[] => {
    if (sign.isStub || !/\p{L}|\d/u.test(sign.words)) return [];
    const source = told.find(({ words }) => holds(sign.words, words));
    if (source && isSure) {
      const wanted = replaceAll(sign, told);
      if (after.has(wanted) && wanted !== idOf(sign)) return [{ sign, kind: 'follows', told: source }];
      return [];
    }
    if (source) return [];
    // A prop that nobody gave a child may be its own, and what only its elements show says nothing to a person.
    if (sign.part || sign.isMarkup) return [];
    if (isSure && !after.has(idOf(sign))) {
      // It follows something in a form of its own: a date, a weight in other units.
      const isOther = varied.signs.some((one) => one.role === sign.role && !before.has(idOf(one)));
      return isOther && told.length > 0 ? [{ sign, kind: 'follows' }] : [];
    }
    return /\p{L}{2}/u.test(sign.words) ? [{ sign, kind: 'own' }] : [];
  });
}

/** Whole words: 4 is not within 40. */
const holds = (text: string, words: string): boolean => {
  const at = text.indexOf(words);
  if (at < 0 || words === '') return false;
  const edge = (letter: string | undefined) => letter === undefined || !/[\p{L}\d]/u.test(letter);
  return edge(text[at - 1]) && edge(text[at + words.length]);
};

/** The code of a sign once all that was given to the component is changed. */
function replaceAll({ code, words, property }: Sign, told: readonly Told[]): string {
  let changed = words;
  for (const { words: from, varied } of [...told].sort((a, b) => b.words.length - a.words.length))
    if (holds(changed, from)) changed = changed.replace(from, varied);
  if (property !== undefined) return `${code} ${property}=${changed}`;
  return code.replace(quoteCode(words), () => quoteCode(changed));
}

type Looked = Seen & { readonly proven: readonly Proven[] };

const mostChecks = 3;

function checksOf(draft: Draft, one: Looked, others: readonly Looked[]): readonly Check[] {
  const isElsewhere = (wanted: Sign) =>
    others.some(({ observed }) => observed.signs.some((sign) => idOf(sign) === idOf(wanted)));
  const own = one.proven.filter(({ sign }) => !isElsewhere(sign));
  const plain = rank(own, one.candidate)
    .slice(0, mostChecks)
    .map((proven) => checkOf(draft, proven));
  if (plain.length > 0) return plain;
  const stated = one.proven.flatMap(({ sign }) => statedApart(sign, others));
  if (stated.length > 0) return stated.slice(0, 2);
  const counted = countedApart(draft, one, others);
  if (counted.length > 0) return counted;
  // What it shows is shown in others as well: then what they show beside that has to be missing.
  const lacking = lackingIn(one, others);
  if (one.candidate.kind !== 'base' || lacking === undefined) return [];
  const shown = rank(one.proven, one.candidate)
    .slice(0, 2)
    .map((proven) => checkOf(draft, proven));
  return shown.length > 0 ? [...shown, ...lacking] : [];
}

const checkOf = (draft: Draft, { sign, told }: Proven): Check => ({
  code: sign.code,
  ...(sign.property !== undefined && {
    holds: [sign.property, sign.part?.isNumber ? Number(sign.words) : sign.words] as const,
  }),
  ...(sign.isMarkup && { isMarkup: true }),
  ...(sign.part && { part: draft.watched?.find(({ name, local }) => (local ?? name) === sign.part!.name) }),
  ...(told && { told: told.path, isPutIn: /^(slots\.|props\.children)/.test(told.path) }),
});

const value =
  /^(heading|alert|status|button|link|cell|textbox|checkbox|option|img|progressbar|tab|switch|spinbutton)$/;

/** The clearest first. */
function rank(all: readonly Proven[], { kind }: Candidate): readonly Proven[] {
  const score = ({ sign, told, kind: proof }: Proven): number => {
    const wanted = kind === 'loading' ? 'status' : kind === 'failed' ? 'alert' : 'heading';
    return (
      (sign.role === wanted ? 8 : 0) +
      (sign.role !== undefined && value.test(sign.role) ? 4 : 0) +
      (proof === 'follows' && (kind === 'base' || kind === 'prop') ? 6 : 0) +
      (sign.code.startsWith('css(') ? -20 : 0) +
      (sign.part || sign.isMarkup ? -30 : 0) +
      (told !== undefined && /^(slots\.|props\.children)/.test(told.path) ? -7 : 0) +
      (sign.words.length > 45 ? -3 : 0) +
      (sign.count > 1 ? -2 : 0)
    );
  };
  const sorted = [...all].sort((a, b) => score(b) - score(a));
  // One text is not checked twice: by a paragraph, and by the region that holds it.
  const seen = new Set<string>();
  const telling = (sign: Sign) => `${sign.property ?? ''} ${sign.words}`;
  const once = sorted.filter(({ sign }) => !seen.has(telling(sign)) && seen.add(telling(sign)));
  return once.filter((one, at) => !once.slice(0, at).some((before) => isPartOf(one, before)));
}

/** True for words that stand out in a text which is checked already: `Anemone` in "Signed by Anemone". */
const isPartOf = ({ sign, told }: Proven, { sign: whole, told: ofWhole }: Proven): boolean =>
  [sign, whole].every(({ code }) => code.startsWith('text(')) &&
  told?.path === ofWhole?.path &&
  holds(whole.words, sign.words);

/** A state of an element that it has in this case only. */
function statedApart(sign: Sign, others: readonly Looked[]): readonly Check[] {
  const twins = others.flatMap(({ observed }) => observed.signs.filter(({ code }) => code === sign.code));
  if (twins.length === 0 || !sign.code.startsWith('role(')) return [];
  for (const [name, own] of Object.entries(sign.state))
    if (twins.every(({ state }) => state[name] !== own) && typeof own !== 'object')
      return [
        {
          code: `${sign.code.slice(0, -1)}, { ${name}: ${typeof own === 'string' ? quoteCode(own) : String(own)} })`,
        },
      ];
  return [];
}

function countedApart(
  draft: Draft,
  { observed, proven }: Looked,
  others: readonly Looked[],
): readonly Check[] {
  for (const [name, count] of Object.entries(observed.stubs)) {
    if (count === 0 || others.some((other) => other.observed.stubs[name] === count)) continue;
    const stub = draft.given.stub.find((one) => one.kind === 'code' && one.code === name);
    const part = stub?.kind === 'code' ? (stub.needs?.[0] as Needed) : undefined;
    if (part) return [{ code: `part(${name})`, times: count, part }];
  }
  for (const { sign } of proven.filter((one) => one.sign.property === undefined)) {
    const elsewhere = others.map(
      ({ observed: other }) => other.signs.find(({ code }) => code === sign.code)?.count ?? 0,
    );
    if (elsewhere.every((count) => count !== sign.count)) return [{ code: sign.code, times: sign.count }];
  }
  return [];
}

/** What has to be missing so that a state is none of the others; nothing where that cannot be said. */
function lackingIn(one: Looked, others: readonly Looked[]): readonly Check[] | undefined {
  const shown = new Set(one.observed.signs.map(({ code }) => code));
  const lacking: string[] = [];
  for (const other of others) {
    const found = other.proven.find(({ sign }) => sign.property === undefined && !shown.has(sign.code));
    if (!found) {
      const shows =
        other.proven.length > 0 &&
        one.proven.some(({ sign }) => !other.observed.signs.some(({ code }) => code === sign.code));
      if (shows) continue;
      return undefined;
    }
    lacking.push(found.sign.code);
  }
  return [...new Set(lacking)].slice(0, 3).map((code) => ({ code, times: 0 }));
}

/** A prop that is shown, changed once. */
function followOf(draft: Draft, { proven, candidate }: Looked): Follow | undefined {
  for (const { sign, told } of rank(
    proven.filter((one) => one.told?.path.startsWith('props.')),
    candidate,
  )) {
    const [, prop = '', ...steps] = told!.path.split('.');
    const given = candidate.given.props.get(prop) ?? draft.given.props.get(prop);
    if (!given || given.kind === 'code') continue;
    const value = vary(given, prop);
    const field =
      steps.length === 1 && value.kind === 'object'
        ? value.fields.find(([name]) => name === steps[0])
        : undefined;
    const changed = toldIn(given, `props.${prop}`).filter(
      (one) => one.words !== one.varied && (!field || one.path === told!.path),
    );
    const code = replaceAll(sign, changed);
    if (sign.property === undefined && code !== sign.code)
      return { prop, value, ...(field && { field }), checks: [{ code }] };
  }
  return undefined;
}
