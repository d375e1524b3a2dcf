import { basename } from 'node:path';
import { SimulacraError } from '../../core/errors/error';
import { readParser } from '../../syntax/parser';
import type { Node } from '../../syntax/syntax';
import type { FileFacts, Framework, Import } from '../facts';
import { readText } from './addresses';
import { Calls } from './calls';
import { readClass } from './classes';
import { kindOfValue } from './kinds';
import { readModule } from './module';
import { Notes } from './notes';
import { Reading } from './script';
import { readBlocks, readVueTemplate } from './vue';

/** Another way of reading gives other facts: what reads them, as it is written. */
export const readers = (): readonly unknown[] => [
  Reading,
  Calls,
  Notes,
  readClass,
  kindOfValue,
  readText,
  readModule,
  readBlocks,
  readVueTemplate,
];

/** Files that can declare components, and files that components are made of. */
export const isSource = (file: string): boolean => /\.([cm]?[jt]sx?|vue)$/.test(file);

/** Reads what one file says. A file that cannot be read says why. @throws SIM-PARSER */
export function readFacts(file: string, text: string): FileFacts {
  if (text.includes('\0')) return unread('it is no text', 1);
  try {
    const stem = stemOf(file);
    if (file.endsWith('.vue')) return readComponentFile(text, stem);
    const read = readScript(text, languageOf(file), { stem, offset: 0, text });
    return 'why' in read ? unread(read.why, read.line) : factsOf([read]);
  } catch (failure) {
    if (failure instanceof SimulacraError) throw failure;
    // One odd file does not end the survey of all others, and is not taken for one that says nothing.
    return unread(`the survey itself failed on it (${(failure as Error).message})`, 1);
  }
}

const unread = (why: string, line: number): FileFacts => ({
  ...{ imports: [], exports: [], units: [] },
  unread: { why, line },
});

/** `HiveBoard` of `src/HiveBoard.vue`, `HiveBoard` of `hive-board.ts`. */
function stemOf(file: string): string {
  const [name] = basename(file).split('.');
  return (name ?? '')
    .replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase())
    .replace(/^./, (one) => one.toUpperCase());
}

// A file of JavaScript may hold elements.
function languageOf(file: string): 'ts' | 'tsx' | 'jsx' {
  if (/\.[cm]?ts$/.test(file)) return 'ts';
  return file.endsWith('.tsx') ? 'tsx' : 'jsx';
}

interface Whole {
  readonly stem: string;
  /** Where the script begins in the file. */
  readonly offset: number;
  readonly text: string;
  readonly framework?: Framework;
  /** True where all of it runs for each component: `<script setup>`. */
  readonly isSetup?: boolean;
}

type Unreadable = { readonly why: string; readonly line: number };

function readScript(code: string, lang: 'ts' | 'tsx' | 'jsx' | 'js', whole: Whole): Reading | Unreadable {
  const { stem, offset, text, framework, isSetup = false } = whole;
  const lineAt = makeLines(text, offset);
  const parsed = readParser().parseSync(`file.${lang}`, code, { lang, preserveParens: false });
  const [error] = parsed.errors;
  if (error) {
    const [label] = error.labels;
    return { why: error.message, line: lineAt(label?.start ?? 0) };
  }
  const program = parsed.program as unknown as Node;
  return new Reading(program, { code, stem, framework, lineAt, isSetup });
}

/** The line of a place in a part of a file. */
function makeLines(text: string, offset: number): (place: number) => number {
  let starts: number[] | undefined;
  return (place) => {
    starts ??= [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (starts[middle]! <= place + offset) low = middle;
      else high = middle - 1;
    }
    return low + 1;
  };
}

function factsOf(readings: readonly Reading[]): FileFacts {
  return {
    imports: readings.flatMap(({ imports }): Import[] => imports),
    exports: readings.flatMap(({ exports }) => exports),
    units: readings.flatMap(({ units }) => units.map((unit) => unit.done())),
  };
}

/** Reads a single-file component: its scripts, and what its template renders. */
function readComponentFile(text: string, stem: string): FileFacts {
  const blocks = readBlocks(text);
  const readings: Reading[] = [];
  for (const { name, attributes, start, end } of blocks) {
    if (name !== 'script' || 'src' in attributes) continue;
    const lang = (attributes['lang'] ?? 'js') as 'ts' | 'tsx' | 'jsx' | 'js';
    const isSetup = 'setup' in attributes;
    const whole: Whole = { stem, offset: start, text, framework: 'vue', isSetup };
    const read = readScript(text.slice(start, end), lang, whole);
    if ('why' in read) return unread(read.why, read.line);
    readings.push(read);
  }
  const setup = readings.find(({ script }) => script.isSetup);
  const main = setup ?? readings[0] ?? emptyReading(stem);
  if (readings.length === 0) readings.push(main);
  const unit = main.component(stem);
  const known = new Set(
    readings.flatMap(({ imports }) => imports.flatMap(({ names }) => names.map(({ local }) => local))),
  );
  const lineAt = makeLines(text, 0);
  for (const { name, start, end, attributes } of blocks)
    if (name === 'template' && (attributes['lang'] ?? 'html') === 'html')
      readVueTemplate(unit, text.slice(start, end), known, (place) => lineAt(place + start));
  const facts = factsOf(readings);
  const exportsDefault = facts.exports.some(({ name }) => name === 'default');
  return exportsDefault
    ? facts
    : { ...facts, exports: [...facts.exports, { name: 'default', local: unit.name }] };
}

function emptyReading(stem: string): Reading {
  const program = { type: 'Program', start: 0, end: 0, body: [] };
  return new Reading(program, { code: '', stem, framework: 'vue', lineAt: () => 1, isSetup: true });
}
