import { appendFileSync } from 'node:fs';
import { SimulacraError } from '../../core/errors/error';
import { shared } from '../../core/shared';
import { takeDown } from '../../core/take-down';
import { readRunner } from '../../jest/runner';
import { isField, locatorFor } from '../../page/describe';
import { whyHidden } from '../../page/hidden';
import { css, foldSpace, quoteCode } from '../../page/locators';
import { looking } from '../../page/looking';
import { nameOf, nameOrTextOf, textOf } from '../../page/names';
import { locate } from '../../page/query';
import { roleOf } from '../../page/roles';
import { stateOf } from '../../page/states';
import { fitting } from '../../stage/declared';
import type { Stage } from '../../stage/stage';
import { printPage } from '../../states/see';
import { declaredBy } from './declared';
import { readMarkup } from './markup';
import { reportTo, type DeclaredSeen, type FailureSeen, type Observation, type Sign } from './observed';

/* Loaded by a draft while it is tried: reports what each test of it has seen. */

let stages: Stage[] = [];
let worded: FailureSeen[] = [];

shared.singletons['onStage'] = (stage: Stage) => stages.push(stage);
shared.singletons['onWorded'] = (failure: Error) => worded.push(readFailure(failure));

const runner = readRunner();
export const { describe, expect } = runner;

/** A test of the runner's, which is looked at before it is taken down. */
export const it = (title: string, work: () => unknown): void =>
  runner.it!(title, async () => {
    stages = [];
    worded = [];
    report({ ...nothing, test: title });
    let seen: Observation = { ...nothing, test: title };
    try {
      await work();
      seen = look(title);
      // What a test leaves behind is found at its end.
      await takeDown();
      report({ ...seen, failures: worded, isOver: true });
    } catch (failure) {
      const threw = readFailure(failure);
      report({ ...seen, logs: logsSeen(), failures: worded, threw, isOver: true });
      await takeDown().catch(() => undefined);
      throw failure;
    }
  });

const nothing = {
  ...{ signs: [], outline: '', stubs: {}, routes: [], requests: [], logs: [], isEmpty: true },
  ...{ failures: [], isOver: false },
};

const report = (seen: Observation): void => {
  const file = process.env[reportTo];
  const all = declared.length > 0 ? { ...seen, declared } : seen;
  if (file) appendFileSync(file, `${JSON.stringify(all)}\n`);
};

function readFailure(failure: unknown): FailureSeen {
  if (failure instanceof SimulacraError) {
    const { code, fields, thrown, message } = failure.toJSON() as FailureSeen;
    const { stack } = failure.cause instanceof Error ? failure.cause : failure;
    return { code, fields, message, ...(thrown && { thrown }), ...(stack !== undefined && { stack }) };
  }
  const { message, stack } = failure instanceof Error ? failure : new Error(String(failure));
  return { code: '', fields: {}, message, ...(stack !== undefined && { stack }) };
}

const logsSeen = () =>
  stages
    .flatMap((stage) => stage.environment.logs?.heard ?? [])
    .map(({ level, text, from }) => ({ level, text, ...(from !== undefined && { from }) }));

function look(test: string): Observation {
  const up = stages.filter(({ mounted, environment }) => mounted && environment.state === 'up');
  const stage = up.at(-1);
  if (!stage) return { ...nothing, test, logs: logsSeen() };
  const shown = looking(stage.container.ownerDocument, () => readSigns(stage));
  const signs = [...shown, ...readParts(stage), ...(seesMarkup ? readMarkup(stage, isStubOf(stage)) : [])];
  const outline = printPage(stage).trim();
  const stubs = stage.setting.stubs.records.map(({ name, instances }) => [name, instances.length] as const);
  const { network } = stage;
  return {
    ...{ test, signs, outline, stubs: Object.fromEntries(stubs), logs: logsSeen() },
    routes: network.keys.filter((key) => network.requests.of(key).length > 0),
    requests: network.requests.map(({ method, url }) => `${method} ${url}`),
    // There is only its own name.
    isEmpty: !outline.includes('\n'),
    hasZone: 'Zone' in globalThis,
    ...{ failures: worded, isOver: false },
  };
}

let seesMarkup = false;
/** Tells of what only the elements of it show as well. */
export const watchMarkup = (): void => void (seesMarkup = true);

let watched: Readonly<Record<string, unknown>> = {};
let declared: readonly DeclaredSeen[] = [];

/** Children whose props are reported, by their names; and the component itself, where it declares more than its source. */
export const watch = (components: Readonly<Record<string, unknown>>, subject?: unknown): void => {
  watched = components;
  declared = declaredBy(subject);
};

/** What a child was given, where there is one of it. */
const readParts = ({ mounted, adapter }: Stage): readonly Sign[] =>
  Object.entries(watched).flatMap(([name, component]) => {
    const [one, ...others] = mounted?.instancesOf(fitting(adapter, component)) ?? [];
    if (!one || others.length > 0) return [];
    return Object.entries(one.props).flatMap(([property, value]): Sign[] => {
      const words = String(value);
      if (!/^(string|number)$/.test(typeof value) || words === '' || words.length > mostWords) return [];
      const part = { name, isNumber: typeof value === 'number' };
      return [{ code: `part(${name})`, role: undefined, words, count: 1, state: {}, property, part }];
    });
  });

const mostLooked = 300;
const mostWords = 70;

/** Tells what stands for a child, or stands inside of that. */
function isStubOf(stage: Stage): (element: Element) => boolean {
  const stubs = stage.setting.stubs.records
    .flatMap((record) => record.inPageOrder().map((instance) => instance.element()))
    .filter((element) => element !== undefined);
  return (element) => stubs.some((stub) => stub.contains(element));
}

function readSigns(stage: Stage): readonly Sign[] {
  const isStub = isStubOf(stage);
  const found = new Map<string, Sign>();
  for (const element of locate(css('*'), stage.view()).slice(0, mostLooked)) {
    const isHeard = !whyHidden(element, true);
    // What only the eye perceives is found by its text.
    const role = isHeard ? roleOf(element) : undefined;
    const words = foldSpace((role && nameOrTextOf(element)) || textOf(element));
    const field = isHeard && isField(element) ? locatorFor(element) : '';
    const held = field && (element as HTMLInputElement).value;
    if (held && held.length <= mostWords)
      found.set(`${field} value`, { code: field, role, words: held, count: 1, state: {}, property: 'value' });
    if (!isTelling(element, role, words)) continue;
    const isPlain = role === undefined || (container.test(role) && !isNamed(element));
    const code = isPlain && words !== '' ? `text(${quoteCode(words)})` : locatorFor(element);
    // What has a name of its own may say something beside it.
    const said = element.childElementCount === 0 ? foldSpace(textOf(element)) : '';
    if (role && !isPlain && said !== '' && said !== words && said.length <= mostWords)
      found.set(`text ${said}`, {
        code: `text(${quoteCode(said)})`,
        role: undefined,
        words: said,
        count: 1,
        state: {},
      });
    const state = statesOf(element, role);
    const key = `${code} ${JSON.stringify(state)}`;
    const count = (found.get(key)?.count ?? 0) + 1;
    found.set(key, { code, role, words, count, state, ...(isStub(element) && { isStub: true }) });
  }
  // A text that stands alone, in no element of its own.
  const words = foldSpace(textOf(stage.container));
  if (stage.container.childElementCount === 0 && words !== '' && words.length <= mostWords)
    found.set('', { code: `text(${quoteCode(words)})`, role: undefined, words, count: 1, state: {} });
  return [...found.values()];
}

const container =
  /^(list|table|rowgroup|row|listbox|grid|main|region|group|form|article|document|generic|menu|tablist|tabpanel|tree|complementary|contentinfo|banner|navigation|toolbar|radiogroup|figure|section)$/;

/** True for what says something by itself, not only by all that is inside of it. */
function isTelling(element: Element, role: string | undefined, words: string): boolean {
  if (words.length > mostWords) return false;
  if (role === undefined || role === 'paragraph' || role === 'listitem' || role === 'generic')
    return words !== '' && holdsOnlyText(element);
  if (words === '') return !container.test(role) || role === 'list' || role === 'table';
  if (isNamed(element)) return true;
  // What all of its children show is better checked on each of them.
  return container.test(role) ? holdsOnlyText(element) : !holdsOthers(element, role);
}

/** True where all that is inside is one text: nothing else, or words that stand out in it and what has no words. */
function holdsOnlyText(element: Element): boolean {
  if (element.childElementCount === 0) return true;
  const isDirect = [...element.childNodes].some(
    (node) => node.nodeType === node.TEXT_NODE && (node.textContent ?? '').trim() !== '',
  );
  return isDirect && [...element.querySelectorAll('*')].every((one) => standsInText(one));
}

const standsInText = (element: Element): boolean =>
  /^(b|i|em|strong|small|mark|span|code|abbr|time|sub|sup|u|s|q|cite|kbd|var)$/.test(element.localName)
    ? element.getAttribute('role') === null
    : textOf(element) === '' && !isField(element) && !speaks.test(roleOf(element) ?? '');

const speaks =
  /^(button|link|heading|cell|option|tab|menuitem|checkbox|radio|switch|treeitem|rowheader|columnheader)$/;

const holdsOthers = (element: Element, role: string): boolean =>
  !speaks.test(role) && element.childElementCount > 0;

const isNamed = (element: Element) =>
  element.hasAttribute('aria-label') ||
  element.hasAttribute('aria-labelledby') ||
  element.localName === 'fieldset' ||
  (/^(optgroup|table|figure)$/.test(element.localName) && nameOf(element) !== '');

const states = [
  'checked',
  'pressed',
  'selected',
  'expanded',
  'disabled',
  'invalid',
  'current',
  'busy',
  'required',
  'readonly',
] as const;
const without: Readonly<Record<string, unknown>> = {
  current: false,
  disabled: false,
  invalid: false,
  busy: false,
  required: false,
  readonly: false,
};

/** The states of an element that a locator can ask for, as far as it has any. */
function statesOf(element: Element, role: string | undefined): Readonly<Record<string, unknown>> {
  if (role === undefined) return {};
  const found: Record<string, unknown> = {};
  for (const name of states) {
    const value = stateOf(element, name);
    if (value === undefined || value === null || value === '' || without[name] === value) continue;
    found[name] = value;
  }
  return found;
}
