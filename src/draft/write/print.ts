import { nameField, quote } from './words';
import type { Case, Check, Draft, Follow } from '../model';
import {
  around,
  code,
  fillPlaceholders,
  neededIn,
  object,
  type Field,
  type Needed,
  type Value,
} from '../value';
import { Imports } from './imports';
import { Constants } from './constants';
import { isPlain, nameOfRoute, withoutTypes } from './names';
import { headOf, listField, mapField, quoteTitle } from './fields';
import { layOut, writeLine, type Style } from './layout';

/** How a file is written. */
export interface Writing extends Style {
  /** Where it is to be. */
  readonly target: string;
  readonly ending: string;
  /** True for tests that may use `describe`, `it` and `expect` as they are. */
  readonly hasGlobals: boolean;
  /** Where those come from while a draft is tried. */
  readonly probe?: string;
}

/** A draft as a file of tests. */
export function printTests(draft: Draft, writing: Writing): string {
  const page = new Page(draft, writing);
  const tests = draft.cases.map((one) => page.printTest(one));
  const { name, local } = draft.component;
  const called = local ?? name;
  const body =
    tests.length === 1
      ? tests
      : [`describe('${called}', () => {\n${indentAll(tests.join('\n\n'), writing.indent)}\n});`];
  return page.printFile(body);
}

/** A draft as a file of declared states. */
export function printStates(draft: Draft, writing: Writing): string {
  const page = new Page(draft, writing);
  return page.printFile([page.printStates()]);
}

const indentAll = (lines: string, indent: string) => lines.replace(/^(?=.)/gm, indent);

class Page {
  readonly #imports: Imports;
  readonly #constants: Constants;
  readonly #isShared: boolean;

  constructor(
    readonly draft: Draft,
    readonly writing: Writing,
  ) {
    this.#imports = new Imports(writing.target, writing.ending, isPlain(writing));
    this.#constants = new Constants(() => [draft.variable, ...this.#imports.taken]);
    const { cases, component, isLoadedLate } = draft;
    if (!isLoadedLate) this.#imports.add(component);
    const shared = this.#surroundings();
    this.#isShared = cases.length > 1 && writeLine(object(shared)).length > 40;
  }

  get #from(): string {
    return `simulacra/${this.draft.framework}`;
  }

  /** What goes around the component in all of its states. */
  #surroundings(): readonly Field[] {
    const { stub, provide, wrap, swap, more } = this.draft.given;
    return [
      ...listField(
        'wrap',
        wrap.map((one) =>
          one.kind === 'code' && one.constant !== undefined ? this.#constants.keep(one.constant, one) : one,
        ),
      ),
      ...listField(
        'provide',
        provide.map(([token, value]): Value => ({ kind: 'list', items: [token, value] })),
      ),
      ...listField('stub', stub),
      ...listField('swap', swap),
      ...more,
    ];
  }

  #options({ given }: Pick<Case, 'given'>): Value {
    const common = this.draft.given;
    const props = new Map([...common.props, ...given.props]);
    const network = new Map([...common.network, ...given.network]);
    return object([
      ...mapField('props', props, (key, value) => this.#constants.named(key, value)),
      ...mapField('slots', common.slots, (_, value) => value),
      ...(this.#isShared ? [] : this.#surroundings()),
      ...mapField('network', network, (key, value) => this.#constants.named(nameOfRoute(key), value)),
      ...given.more,
    ]);
  }

  printTest(one: Case): string {
    const { variable } = this.draft;
    const { indent, probe } = this.writing;
    const options = this.#options(one);
    this.#need(neededIn(options));
    const call = this.#call(options, indent.length + `const ${variable} = await `.length);
    const isSeen = one.checks.length > 0 || one.follow || probe === undefined;
    const lines = [
      isSeen && (one.checks.length > 0 || one.follow)
        ? `const ${variable} = await ${call};`
        : `await ${call};`,
      ...one.checks.map((check) => this.#expect(check)),
      ...(one.follow ? this.#printFollow(one, one.follow) : []),
    ];
    return `it(${quoteTitle(one.title)}, async () => {\n${lines.map((line) => indent + line).join('\n')}\n});`;
  }

  #printFollow({ given }: Case, { prop, value, field, checks }: Follow): readonly string[] {
    const { variable } = this.draft;
    const named = this.#constants.named(prop, given.props.get(prop) ?? this.draft.given.props.get(prop)!);
    const isNamed = field !== undefined && named.kind === 'code';
    const changed = isNamed ? around(`{ ...${named.code}, ${nameField(field[0])}: `, field[1], ' }') : value;
    this.#need(neededIn(changed));
    return [
      `await ${variable}.update(${layOut(object([[prop, changed]]), this.writing, 1, variable.length + 20)});`,
      ...checks.map((check) => this.#expect(check)),
    ];
  }

  #call(options: Value, before: number): string {
    const { component, isLoadedLate } = this.draft;
    const given = options.kind === 'object' && options.fields.length === 0 ? undefined : options;
    this.#imports.add(
      this.#isShared ? { name: 'isolateWith', from: this.#from } : { name: 'isolate', from: this.#from },
    );
    const subject = isLoadedLate ? this.#thunk() : (component.local ?? component.name);
    if (!given) return `isolate(${subject})`;
    const start = `isolate(${subject}, `;
    return `${start}${layOut(given, this.writing, 1, before + start.length, 2)})`;
  }

  #thunk(): string {
    const { component } = this.draft;
    const load = `() => import('${this.#imports.specifier(component.from)}')`;
    return component.name === 'default' || this.draft.isOnlyOne
      ? load
      : `${load}.then(({ ${component.name} }) => ${component.name})`;
  }

  #expect(check: Check): string {
    const { variable } = this.draft;
    if (check.part && check.holds) {
      const [property, held] = check.holds;
      const written = typeof held === 'number' ? String(held) : quote(held);
      this.#imports.add(check.part);
      return `expect(${variable}.${check.code}.props).toMatchObject([{ ${nameField(property)}: ${written} }]);`;
    }
    const locator = this.#locator(check);
    if (check.holds) {
      const [property, held] = check.holds;
      if (check.isMarkup)
        return `expect(${variable}.find(${locator}).getAttribute('${property}')).toBe(${quote(String(held))});`;
      return `expect(${variable}.find(${locator})).toHaveProperty('${property}', ${quote(String(held))});`;
    }
    if (check.times === 0) return `expect(${variable}).not.toShow(${locator});`;
    const times = check.times === undefined ? '' : `, { times: ${check.times} }`;
    return `expect(${variable}).toShow(${locator}${times});`;
  }

  #locator({ code: written, part }: Check): string {
    for (const [, name] of written.matchAll(/\b(role|text|label|testId|css|part)\(/g))
      this.#imports.add({ name: name!, from: 'simulacra' });
    if (part) this.#imports.add(part);
    return written;
  }

  #need(needed: readonly Needed[]): void {
    this.#imports.add(...needed);
  }

  printStates(): string {
    const { component, cases, given, isLoadedLate } = this.draft;
    const { indent } = this.writing;
    this.#imports.add({ name: 'states', from: this.#from });
    const common = object([
      ...mapField('props', given.props, (key, value) => this.#constants.named(key, value)),
      ...mapField('slots', given.slots, (_, value) => value),
      ...this.#surroundings(),
      ...mapField('network', given.network, (key, value) => this.#constants.named(nameOfRoute(key), value)),
    ]);
    this.#need(neededIn(common));
    const declared = cases.map(({ key, given: own, checks }): Field => {
      const shows = checks.filter(({ times, holds }) => times === undefined && !holds);
      const lacks = checks.filter(({ times }) => times === 0);
      const counts = checks.filter(({ times }) => times);
      const options = object([
        ...mapField('props', own.props, (name, value) => this.#constants.named(name, value)),
        ...mapField('network', own.network, (name, value) => this.#constants.named(nameOfRoute(name), value)),
        ...own.more,
        ...listField(
          'shows',
          shows.map((one) => code(this.#locator(one))),
        ),
        ...listField(
          'counts',
          counts.map((one) => code(`[${this.#locator(one)}, ${one.times}]`)),
        ),
        ...listField(
          'lacks',
          lacks.map((one) => code(this.#locator(one))),
        ),
      ]);
      this.#need(neededIn(options));
      return [key, options];
    });
    const subject = isLoadedLate ? this.#thunk() : (component.local ?? component.name);
    const parts = [
      subject,
      layOut(common, this.writing, 1, indent.length),
      layOut(object(declared), this.writing, 1, 999),
    ];
    return `export default states(\n${parts.map((part) => `${indent}${part},`).join('\n')}\n);`;
  }

  printFile(body: readonly string[]): string {
    const { probe, hasGlobals } = this.writing;
    const shared =
      this.#isShared && body[0]?.startsWith('export default') !== true ? [this.#printShared()] : [];
    const constants = this.#constants.all.map(({ name, value }) => {
      const type = 'type' in value && value.type && !isPlain(this.writing) ? value.type : undefined;
      const written = type ? `: ${type.local ?? type.name}${value.kind === 'list' ? '[]' : ''}` : '';
      this.#need([...(type ? [type] : []), ...neededIn(value)]);
      const start = `const ${name}${written} = `;
      return `${start}${layOut(value, this.writing, 0, start.length)};`;
    });
    if (!hasGlobals && probe === undefined && body[0]?.startsWith('export default') !== true)
      this.#imports.add(
        ...['describe', 'expect', 'it']
          .filter((name) => body.some((one) => new RegExp(`\\b${name}\\(`).test(one)))
          .map((name) => ({ name, from: '@jest/globals' })),
      );
    const first = probe === undefined ? [] : headOf(probe);
    const watching = probe === undefined ? [] : this.#watch();
    const { loadedFirst } = this.draft;
    if (loadedFirst !== undefined)
      first.push(
        '// First, as the two files import each other.',
        `import '${this.#imports.specifier(loadedFirst)}';`,
      );
    const page = this.#printPage();
    const parts = [
      [...first, ...this.#imports.print(), ...watching].join('\n'),
      ...constants,
      ...page,
      ...shared,
      ...body,
    ];
    const whole = `${parts.join('\n\n')}\n`;
    return fillPlaceholders(isPlain(this.writing) ? withoutTypes(whole) : whole, (file) =>
      this.#imports.specifier(file),
    );
  }

  #printPage(): readonly string[] {
    const { page } = this.draft.given;
    this.#need(page.flatMap(neededIn));
    return page.map(writeLine);
  }

  /** Children whose props are reported while the draft is tried. */
  #watch(): readonly string[] {
    const { watched = [] } = this.draft;
    this.#imports.add(...watched);
    const { component, framework, isLoadedLate } = this.draft;
    const names = watched.map(({ name, local }) => local ?? name);
    const isAsked = framework === 'vue' && !isLoadedLate;
    const markup = this.draft.seesMarkup ? ['watchMarkup();'] : [];
    if (names.length === 0 && !isAsked) return markup;
    return [
      ...markup,
      `watch({ ${names.join(', ')} }${isAsked ? `, ${component.local ?? component.name}` : ''});`,
    ];
  }

  #printShared(): string {
    const shared = object(this.#surroundings());
    this.#need(neededIn(shared));
    const start = 'const isolate = isolateWith(';
    return `${start}${layOut(shared, this.writing, 0, start.length, 2)});`;
  }
}
