import { readFileSync } from 'node:fs';
import { escaped } from '../../core/print';
import type { Unit } from '../../survey/facts';
import { extendersOf } from '../bare';
import type { Draft } from '../model';
import type { Known } from '../plan';
import type { FailureSeen } from '../run/observed';
import type { Needed } from '../value';
import { findComponents } from './find';
import { lentBy } from './lent';
import { type Mended, addWrapper, isCalledIn } from './mended';
import { askerAround, withRequired } from './provide';

/* The components that a part of something bigger has to stand in. */

/** Puts a component around it that gives what was read in vain, though what threw does not speak of it. */
export function addParent(known: Known, draft: Draft, failure: FailureSeen): readonly Mended[] {
  const keys = new Set([...readInVain(failure), ...injectedBy(known, failure)]);
  return [...keys].flatMap((key) =>
    givers(known, key)
      .slice(0, mostParents)
      .flatMap((parent) => putAround(known, draft, failure, parent) ?? []),
  );
}

const mostParents = 3;

/** `HiveItem must be used within HiveList`, `wrap YardTab in a yard tabs component` */
export function addParentNamed(known: Known, draft: Draft, failure: FailureSeen): Mended | undefined {
  for (const name of namesAsked(failure)) {
    const [own] = findComponents(known, (unit) => isCalled(unit, name));
    const parent = own ?? (/^[A-Z]/.test(name) ? providing(known, name) : undefined);
    const lent = parent ? undefined : lentBy(known, name);
    const mended = parent
      ? putAround(known, draft, failure, parent)
      : lent && putAround(known, draft, failure, lent.needed, lent.file);
    if (mended) return mended;
  }
  return undefined;
}

/** A component that calls what provides something of that name: `provideYardContext(…)`. */
function providing(known: Known, name: string): Needed | undefined {
  const call = new RegExp(`\\bprovide\\w*${name}\\w*\\(`);
  return findComponents(known, (_, file) => call.test(readFileSync(file, 'utf8')))[0];
}

/** @param file where its types are, unless it is what the test imports */
function putAround(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  parent: Needed,
  file = parent.from,
): Mended | undefined {
  const called = parent.local ?? parent.name;
  if (draft.given.wrap.some((one) => isCalledIn(one, called))) return undefined;
  return addWrapper(draft.given, withRequired(known, parent, file), called, askerAround(draft, failure));
}

/** The keys and contexts that were read where nobody provides them: `"YardKey", read by YardTab`. */
function readInVain({ fields }: FailureSeen): readonly string[] {
  const lacks = fields['lacks'];
  if (!Array.isArray(lacks)) return [];
  return lacks.flatMap((one) => /^"([^"]+)", read by/.exec(String(one))?.[1] ?? []);
}

/** The keys that what threw injects, whatever it does where nobody provides them. */
function injectedBy({ survey: { graph, subject } }: Known, { fields }: FailureSeen): readonly string[] {
  const isThrower = fields['thrower'] === fields['subject'];
  if (!isThrower || subject.unit.framework === 'angular') return [];
  return graph.root.edges
    .filter(
      ({ how, to }) =>
        (how === 'injected' && /^(token|context|value)$/.test(to.kind)) ||
        // <YardContext.Consumer>
        (how === 'rendered' && to.kind === 'context'),
    )
    .map(({ to }) => to.name.replace(/^'|'$/g, ''));
}

/** The components that provide a value under a key. */
function givers(known: Known, key: string): readonly Needed[] {
  const { project, subject } = known.survey;
  const names = [key, ...variablesOf(known, key)].map(escaped);
  const one = `(?:${names.join('|')})`;
  const gives =
    subject.unit.framework === 'react'
      ? new RegExp(`<${one}(?:\\.Provider\\b|\\s+value=)|createElement\\(${one}\\b`)
      : new RegExp(
          `\\bprovide\\(\\s*['"]?${one}['"]?\\s*,|\\bprovide\\b[^]*?(?:['"\\s,{[.])${one}['"\\]]*\\s*:`,
        );
  const files = project.list().filter((file) => gives.test(readFileSync(file, 'utf8')));
  const heirs = new Set(files.flatMap((file) => (file.endsWith('.vue') ? extendersOf(project, file) : [])));
  return findComponents(known, (unit, file) => files.includes(file) || heirs.has(unit.name));
}

/** What a symbol is called in the code: `const YardKey = Symbol('yard')`. */
function variablesOf({ survey: { project } }: Known, description: string): readonly string[] {
  const made = new RegExp(
    `([A-Za-z_$][\\w$]*)\\s*(?::[^=\\n]+)?=\\s*Symbol\\(\\s*['"]${escaped(description)}['"]`,
  );
  return project.list().flatMap((file) => made.exec(readFileSync(file, 'utf8'))?.[1] ?? []);
}

function namesAsked(failure: FailureSeen): readonly string[] {
  const message = failure.thrown?.message ?? String(failure.fields['threw'] ?? '');
  const after =
    /\b(?:within|inside|below|under|wrapped (?:in|with)|wrap \w+ (?:on|with)|child of|missing|in an?)\b(.*)/is.exec(
      message,
    )?.[1] ?? '';
  const capital = `${after} ${/\b[A-Z]\w*Provider\b/.exec(message)?.[0] ?? ''}`.matchAll(/\b[A-Z]\w+/g);
  const plain = /^\s*(?:an?\s+|the\s+)?([a-z][\w -]{1,30}?)(?:\s+component\b|[.!]?$)/.exec(after)?.[1];
  return [...new Set([...[...capital].map(([name]) => name), ...(plain ? [plain] : [])])];
}

const plain = (name: string) => name.replace(/[^\p{L}\d]/gu, '').toLowerCase();

/** By its name, or by what a library writes before all of its names: `yard tabs` is `BfYardTabs`, `bfTabs` is `Tabs`. */
function isCalled(unit: Unit, name: string): boolean {
  if (/^[A-Z]/.test(name)) return unit.name === name;
  const [shorter, longer] = [plain(unit.name), plain(name)].sort((a, b) => a.length - b.length);
  return longer!.endsWith(shorter!) && longer!.length - shorter!.length <= 3 && shorter!.length > 3;
}
