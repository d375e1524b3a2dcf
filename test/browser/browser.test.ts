/** @jest-environment node */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runScript } from '../script';
import { differing } from './conformance/differing';

interface Sequence {
  readonly name: string;
  /** Why it differs, by where it does. */
  readonly differs: { readonly ours?: string; readonly simulated?: string };
  readonly real: readonly string[];
  readonly ours: readonly string[];
  readonly simulated: readonly string[];
}
const places = ['ours', 'simulated'] as const;

describe('what a person does', () => {
  let sequences: readonly Sequence[];
  beforeAll(async () => {
    sequences = await runScript<Sequence[]>('browser/gestures.mjs');
  }, 180_000);
  const unlike = (place: 'ours' | 'simulated', isTold: boolean) =>
    sequences
      .filter(({ differs }) => (differs[place] !== undefined) === isTold)
      .filter((one) => (JSON.stringify(one.real) !== JSON.stringify(one[place])) !== isTold)
      .map((one) => ({ name: one.name, real: one.real, [place]: one[place] }));

  it('is heard by the page at all', () => {
    expect(sequences.length).toBeGreaterThan(120);
    const find = (name: string) => sequences.find((one) => one.name === name)!.real;
    expect(find('type into a field')).toContain('beforeinput note insertText A');
    expect(find('drag and drop')).toContain('drop zone 0 1 0 prevented');
    expect(Math.min(...sequences.map(({ real }) => real.length))).toBeGreaterThan(1);
  });

  it.each(places)('is heard of our gestures alike: %s', (place) => {
    expect(unlike(place, false)).toEqual([]);
  });

  it.each(places)('differs where it says that it does: %s', (place) => {
    expect(unlike(place, true)).toEqual([]);
  });

  it('is told of in the docs as it is', () => {
    const file = join(__dirname, '../../docs/gestures.md');
    const made = printSequences(sequences);
    if (process.env['UPDATE']) writeFileSync(file, made);
    expect(readFileSync(file, 'utf8')).toBe(made);
  });
});

function printSequences(sequences: readonly Sequence[]): string {
  const rows = sequences.flatMap(({ name, differs }) =>
    places.flatMap((place) => {
      const where = place === 'ours' ? 'Chromium' : 'a simulated page';
      return differs[place] === undefined ? [] : [`| ${name} | ${where} | ${differs[place]} |`];
    }),
  );
  const alike = sequences.filter(({ differs }) => Object.keys(differs).length === 0).map(({ name }) => name);
  return `# What a page hears of a person

${sequences.length} sequences are done three times: in Chromium with a real mouse, keyboard and finger; in Chromium with the
gestures of a subject; and in a simulated page (jsdom) with the same gestures. A test compares what the page hears, event by
event: type, target and related target, key, code and modifiers, button, buttons and count of clicks, kind of pointer, input
type and data, the value of the field, what was prevented, and in the end the values and the focus. ${alike.length} are alike in
all three.

The events \`select\` and \`selectionchange\` are not compared, nor are coordinates and times. \`toggle\` and \`close\` are compared
apart from their place, since they come in tasks of their own.

## Where they differ

| Sequence | In | Why |
| --- | --- | --- |
${rows.join('\n')}

A date, a time, a month, a week and a colour are set at once, by one \`input\` and one \`change\`; a browser has a picker or parts
to type in. A list of a \`select\` opens outside of the page, so only its outcome is told.

## Where they are alike

${alike.map((name) => `- ${name}`).join('\n')}
`;
}

it('is told in the docs what a browser does otherwise', () => {
  const file = join(__dirname, '../../docs/browser.md');
  const rows = Object.entries(differing).map(([name, why]) => `| ${name.replace(' › ', ': ')} | ${why} |`);
  const made = `# In a real browser

A test runs the specification (docs/conformance.md) of React, Vue and Angular in Chromium as well, from files as Vite
serves them. These behaviours are other than in a simulated page, in all three alike. All others agree.

| Behaviour | Why |
| --- | --- |
${rows.join('\n')}
`;
  if (process.env['UPDATE']) writeFileSync(file, made);
  expect(readFileSync(file, 'utf8')).toBe(made);
});

// What works rewritten is the same application, with more between its files.
it.each([
  ['react', 'rewritten'],
  ['vue', 'rewritten'],
  ['angular', 'as it is'],
])(
  'the %s example is usable in a browser, %s',
  async (framework, how) => {
    const { seen, problems } = await runScript<{ seen: object; problems: string[] }>(
      'browser/example.mjs',
      `examples/${framework}-apiary/vite.config.ts`,
      how,
    );
    expect(seen).toEqual({
      gate: 'Who is in the yard?',
      hives: ['Anemone', 'Borage', 'Clover'],
      found: 'Borage',
      hive: 'Borage',
      scale: 'On the scale … kg and counting',
      logged: 'The inspection is logged',
      empty: 'No hives in this yard yet',
      failing: 'Nobody knows what is in flower',
    });
    expect(problems).toEqual([]);
  },
  90_000,
);
