/** @jest-environment node */
import { runScript } from '../script';

interface Compared {
  readonly files: number;
  readonly references: number;
  readonly differences: object[];
  readonly broken: object[];
  readonly unread: string[];
}

interface Loaded {
  readonly files: number;
  readonly differing: readonly string[];
}

it('finds in real files what another scope analysis finds, and moves no line', async () => {
  const { files, references, ...wrong } = await runScript<Compared>('seam/scale.mjs');
  expect(wrong).toEqual({ differences: [], broken: [], unread: [] });
  expect(files).toBeGreaterThan(450);
  expect(references).toBeGreaterThan(4000);
}, 120_000);

it('leaves packages that are rewritten as a whole as they were', async () => {
  const queries = { told: 'success', south: ['Anemone of south'], doubled: 8, key: '[{"a":2,"b":1}]' };
  const streams = { weights: [10, 11, 20, 21, 30, 31], settled: 'settled' };
  const { sources, ...seen } = await runScript<{ looked: number; sources: Loaded[] }>('seam/whole.mjs');
  expect(sources.map(({ differing }) => differing)).toEqual([[], [], []]);
  expect(sources.reduce((sum, { files }) => sum + files, 0)).toBeGreaterThan(600);
  expect(seen).toEqual({ queries, queriesCommon: queries, streams, looked: expect.any(Number) as number });
  expect(seen.looked).toBeGreaterThan(500);
}, 60_000);

/** One line before, what it is in a CommonJS module (or a standard one, where it says so), without the way there. */
const lines: [what: string, before: string, after: string][] = [
  ['a call', `a(1)`, `a$()(1)`],
  ['an argument', `f(a)`, `f(a$())`],
  ['a shorthand', `() => ({ a })`, `() => ({ a: a$() })`],
  ['what is made', `() => new a.B()`, `() => new (a$()).B()`],
  ['an element', `() => <a.B><C /></a.B>`, `() => <$xa.a.B><$xC.C /></$xa.a.B>`],
  ['an element of the page', `() => <a />`, `() => <a />`],
  ['a template', '() => a`text`', '() => a$()`text`'],
  ['a parameter of the same name', `(a) => a()`, `(a) => a()`],
  ['a default of a parameter', `(b = a) => b`, `(b = a$()) => b`],
  ['a variable of a block', `() => { { let a = 1; a; } a; }`, `() => { { let a = 1; a; } a$(); }`],
  ['a variable that is hoisted', `() => { a; if (a) { var a = 1; } }`, `() => { a; if (a) { var a = 1; } }`],
  ['a function that names itself', `(function a() { a(); })`, `(function a() { a(); })`],
  ['a catch clause', `() => { try {} catch (a) { a; } }`, `() => { try {} catch (a) { a; } }`],
  ['a property of the same name', `() => b.a + { a: 1 }.a`, `() => b.a + { a: 1 }.a`],
  ['a computed key', `() => ({ [a]: 1 })`, `() => ({ [a$()]: 1 })`],
  ['a type', `() => { const b: typeof a = 1 as a; }`, `() => { const b: typeof a = 1 as a; }`],
  ['a label', `() => { a: for (;;) break a; }`, `() => { a: for (;;) break a; }`],
  ['what is not null', `() => a!.b`, `() => a$()!.b`],
  [
    'a way to a module',
    `() => { return import('m'); }`,
    `$seam.thunk(["m"], () => { return $seam.load(["m"], () => import('m')); })`,
  ],
  [
    'a way to a module of a type of its own',
    `() => import('m') as any`,
    `$seam.thunk(["m"], () => $seam.load(["m"], () => import('m')) as any)`,
  ],
  ['the line after one without a semicolon', `() => { f\na() }`, `() => { f\na$()() }`],
];

it('leaves a type that is handed on to whoever takes types away', async () => {
  const code = `import { FieldProps } from './types';\nexport * from './TextField';\nexport type { FieldProps };`;
  const { out } = await runScript<{ out: string[] }>('seam/lines.mjs', code);
  expect(out[0]).toContain('export type { FieldProps };');
  expect(out[0]).toContain("import { FieldProps } from './types';");
  expect(out[0]).not.toContain('FieldProps$');
});

it('rewrites what is looked up, and nothing else', async () => {
  const codes = lines.map(([, before]) => `import a, { C } from 'm'; a; x = ${before}`);
  const { out } = await runScript<{ out: string[] }>('seam/lines.mjs', ...codes);
  const taken = (text: string) =>
    text.slice(text.indexOf('x = ') + 4).replace(/\$s\d\.taken\("default", a\$, 1\)/g, 'a$()');
  expect(lines.map(([what], at) => [what, taken(out[at]!)])).toEqual(
    lines.map(([what, , after]) => [what, after]),
  );
});
