import type { SurveyNode } from '../../survey/graph';
import { packageOf } from '../../survey/project';
import type { Draft } from '../model';
import { wrapperNamed, wrapperOfPackage } from '../packages';
import { type Known, filesOf, neededFor, textsOf } from '../plan';
import type { FailureSeen } from '../run/observed';
import { readProps } from '../types/props';
import { sampleInjected, sampleProvided, sampleStandIn } from '../types/returned';
import { type Needed, type Value, code, object, text } from '../value';
import { addForm } from './forms';
import { providerFor, providerOf } from './find';
import { lentBy } from './lent';
import { type Mended, addProvided, addWrapper, isCalledIn, nodeNamed } from './mended';

/** Names of a failure as a file that exports it. */
interface Home {
  readonly file?: string;
  readonly name?: string;
}

export function addProvider(known: Known, draft: Draft, failure: FailureSeen): Mended | undefined {
  const { fields, code: failed } = failure;
  const { given, framework } = draft;
  const token = typeof fields['token'] === 'string' ? fields['token'] : undefined;
  const named = token === undefined ? undefined : wrapperNamed(token, framework);
  if (named) return addWrapper(given, named, token!);
  const form = addForm(known, draft, failure);
  if (form) return form;
  const found =
    token === undefined ? undefined : nodeNamed(known, token, /^(context|token|service|class|value)$/);
  const home = fields['home'] as Home | undefined;
  const own = found && neededFor(known, found);
  const isLent = !own && token !== undefined && framework === 'angular';
  const lent = isLent ? lentBy(known, writtenAs(known, token)) : undefined;
  const needed = own ?? lent?.needed ?? homeOf(home, token);
  if (needed && failed === 'SIM-PROVIDE-MISSING') {
    const value =
      lent && fields['isToken'] === true
        ? injectedValue(known, lent.needed.name)
        : providedValue(known, needed, found, framework, lent?.file);
    const provided = value && addProvided(given, code(needed.local ?? needed.name, needed), value);
    if (provided) return provided;
  }
  if (!needed && token !== undefined && failed === 'SIM-PROVIDE-MISSING' && framework === 'vue') {
    const provided = addProvided(given, text(token, true), valueByName(token), `"${token}"`);
    if (provided) return provided;
  }
  const context = contextAsked(known, draft, fields['around']);
  if (context) return context;
  for (const key of ['wrapper', 'around', 'provider'] as const) {
    const wrapper = fields[key];
    if (typeof wrapper !== 'string' || wrapper === '' || wrapper.includes('…')) continue;
    const made = wrapperOf(known, wrapper, fields['imports']);
    if (made) return addWrapper(given, made, wrapper, askerAround(draft, failure));
  }
  return addPackage(known, draft, failure);
}

/** What a package that threw needs around it: a provider of the project's own first. */
export function addPackage(
  known: Known,
  { given, framework }: Draft,
  failure: FailureSeen,
): Mended | undefined {
  const packages = [...packagesIn(failure), ...packagesAsked(known, failure)];
  const own = packages.map((name) => providerFor(known, name)).find(Boolean);
  if (own) {
    const called = own.local ?? own.name;
    if (!given.wrap.some((one) => one.kind === 'code' && one.code === called))
      return addWrapper(given, code(called, own), called);
  }
  const recipe = packages.map((name) => wrapperOfPackage(name, framework)).find(Boolean);
  return recipe && addWrapper(given, recipe, 'what its package needs');
}

/** A context that what threw speaks of: it is given a value, and is no component. */
function contextAsked(known: Known, { given, framework }: Draft, asked: unknown): Mended | undefined {
  if (framework !== 'react' || typeof asked !== 'string' || !/Context$/.test(asked)) return undefined;
  const lent = lentBy(known, asked);
  const node = nodeNamed(known, asked, /^context$/);
  const needed = (node && neededFor(known, node)) ?? lent?.needed;
  if (!needed) return undefined;
  const sampled = known.types && sampleProvided(known.types, lent?.file ?? needed.from, asked, framework);
  return addProvided(given, code(asked, needed), sampled ?? valueByName(asked.replace(/Context$/, '')));
}

const valueByName = (name: string): Value =>
  /^(is|has)[A-Z]/.test(name) ? code('false') : text(name.replace(/^./, (letter) => letter.toUpperCase()));

function homeOf(home: Home | undefined, token: string | undefined): Needed | undefined {
  if (!home?.file) return undefined;
  const name = home.name ?? token;
  return name === undefined ? undefined : { name, from: home.file };
}

function providedValue(
  known: Known,
  needed: Needed,
  node: SurveyNode | undefined,
  framework: Draft['framework'],
  file = needed.from,
): Value | undefined {
  const { types } = known;
  if (framework === 'angular' && (!node || node.kind === 'service' || node.kind === 'class'))
    return (
      (types && sampleStandIn(types, needed, file, file === needed.from ? undefined : calledIn(known))) ??
      code(`standIn(${needed.local ?? needed.name})`, { name: 'standIn', from: 'simulacra' }, needed)
    );
  return types && sampleProvided(types, needed.from, needed.name, framework);
}

/** Tells the members that the project's own files name: all that a stand-in for something of a package has to have. */
function calledIn(known: Known): (member: string) => boolean {
  const whole = textsOf(known).join('\n');
  return (member) => new RegExp(`\\.${member}\\b`).test(whole);
}

/** `MAT_DIALOG_DATA` of a token that calls itself MatMdcDialogData: as the code that asks for it has it. */
function writtenAs(known: Known, token: string): string {
  const asked = textsOf(known).flatMap((source) =>
    [...source.matchAll(/\b[iI]nject(?:<[^>]*>)?\(\s*([A-Z][A-Z\d_]+)\b/g)].map(([, name]) => name!),
  );
  const own = token.toLowerCase();
  const isIt = (name: string) =>
    name
      .toLowerCase()
      .split('_')
      .every((word) => own.includes(word));
  return asked.includes(token) ? token : (asked.find(isIt) ?? token);
}

/** A token of a package, by what the project's own files take it for. */
function injectedValue(known: Known, token: string): Value | undefined {
  const { types } = known;
  for (const file of types ? filesOf(known) : []) {
    const value = sampleInjected(types!, file, token);
    if (value) return value;
  }
  return valueByName(token.toLowerCase().replaceAll('_', ' '));
}

function wrapperOf(known: Known, written: string, imports: unknown): Value | undefined {
  const needs: Needed[] = [];
  for (const [, names = '', from = ''] of String(imports ?? '').matchAll(
    /import \{ ([^}]+) \} from '([^']+)'/g,
  ))
    needs.push(...names.split(', ').map((name) => ({ name, from })));
  const name = /<?(\w+)/.exec(written)?.[1];
  if (needs.length === 0 && name !== undefined) return wrapperCalled(known, name);
  const framework = known.survey.subject.unit.framework ?? 'react';
  // `client={client}` is for the reader to fill in.
  if (/=\{[a-z]\w*\}/i.test(written))
    return needs.map(({ from }) => wrapperOfPackage(packageOf(from), framework)).find(Boolean);
  return needs.length > 0 ? code(written.replace(/^\[|\]$/g, ''), ...needs) : undefined;
}

/** A component by its name: the project's own, or one that a package lends. */
export function wrapperCalled(known: Known, name: string): Value | undefined {
  const own = providerOf(known, name);
  if (own) return withRequired(known, own);
  const lent = lentBy(known, name);
  return lent && withRequired(known, lent.needed, lent.file);
}

/** Which of those that stand around the component asks for more; nothing where it is the component itself. */
export function askerAround({ component, given }: Draft, { fields }: FailureSeen): number | undefined {
  const asker = fields['thrower'] ?? fields['reader'] ?? fields['asker'];
  if (typeof asker !== 'string' || asker === (component.local ?? component.name)) return undefined;
  const at = given.wrap.findIndex((one) => isCalledIn(one, asker));
  return at < 0 ? undefined : at;
}

/** A component to be put around, with the props that it has to be given. */
export function withRequired({ types, survey }: Known, needed: Needed, file = needed.from): Value {
  const called = needed.local ?? needed.name;
  const reference = code(called, needed);
  const props = types && readProps(types, file, needed.name, survey.subject.unit.framework ?? 'react');
  const required = props?.filter(({ isRequired, name }) => isRequired && name !== 'children') ?? [];
  if (required.length === 0) return reference;
  return { kind: 'list', items: [reference, object(required.map(({ name, value }) => [name, value]))] };
}

/** The packages whose hooks the component calls, where something lacks a provider. */
const packagesAsked = ({ survey }: Known, { fields }: FailureSeen): readonly string[] => {
  const lacks = fields['lacks'];
  if (!Array.isArray(lacks) || lacks.length === 0) return [];
  const hooks = survey.graph.nodes.filter(
    (node) => node.package !== undefined && /^use[A-Z]/.test(node.name),
  );
  return [...new Set(hooks.map((node) => packageOf(node.package!)))];
};

/** The packages whose code threw, the innermost first. */
const packagesIn = ({ stack = '', fields }: FailureSeen): readonly string[] => {
  const frames = `${stack}\n${String(fields['stack'] ?? '')}`;
  const names = [...frames.matchAll(/node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+)/g)].map(([, name]) =>
    name!.replace('\\', '/'),
  );
  return [...new Set(names)].filter(
    (name) => !/^(react|react-dom|vue|@vue\/.*|@angular\/core|jest.*|@jest\/.*|scheduler)$/.test(name),
  );
};
