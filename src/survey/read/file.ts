import { basename } from 'node:path';
import type { ParseResult } from 'oxc-parser';
import { SimulacraError } from '../../core/errors/error';
import { readParser } from '../../syntax/parser';
import type { Node } from '../../syntax/syntax';
import type { FileFacts, Framework, Import } from '../facts';
import { readText } from './addresses';
import { Calls } from './calls';
import { kindOfClass, readClass } from './classes';
import { findMade, kindOfValue } from './kinds';
import { readModule } from './module';
import { Notes } from './notes';
import { Reading } from './script';
import { readBlocks, readVueTemplate, type Block } from './vue';

/** Another way of reading gives other facts: what reads them, as it is written. */
export const readers = (): readonly unknown[] => [
  Reading,
  Calls,
  Notes,
  readClass,
  kindOfClass,
  kindOfValue,
  findMade,
  readText,
  readModule,
  readBlocks,
  readVueTemplate,
];

/** Files that can declare components, and files that components are made of. */
export const isSource = (file: string): boolean => /\.([cm]?[jt]sx?|vue)$/.test(file);

/** A part of a file that is code. */
interface Code {
  readonly code: string;
  readonly lang: 'ts' | 'tsx' | 'jsx' | 'js';
  /** Where it begins in the file. */
  readonly offset: number;
  readonly framework?: Framework;
  /** True where all of it runs for each component: `<script setup>`. */
  readonly isSetup?: boolean;
}

/** A file taken apart: the code in it, and the blocks of a single-file component. */
interface TakenApart {
  readonly codes: readonly Code[];
  readonly blocks: readonly Block[];
}

function takeApart(file: string, text: string): TakenApart {
  if (!file.endsWith('.vue'))
    return { codes: [{ code: text, lang: languageOf(file), offset: 0 }], blocks: [] };
  const blocks = readBlocks(text);
  const codes = blocks
    .filter(({ name, attributes }) => name === 'script' && !('src' in attributes))
    .map(({ attributes, start, end }): Code => ({
      ...{ code: text.slice(start, end), offset: start, framework: 'vue', isSetup: 'setup' in attributes },
      lang: (attributes['lang'] ?? 'js') as Code['lang'],
    }));
  return { codes, blocks };
}

// Where types or decorators say something about what is needed: those of classes, the macros of Vue, and what
// is declared to be there. A word of a comment, `* @param`, is neither.
const saidByTypes = /(?<!\* )@[A-Za-z_$][\w$.]*(?![\w$./-])|\bdeclare\b|\bdefine[A-Z]\w+|\bwithDefaults\b/;

/** What the parser is asked. A tree without types is a good part smaller. */
const askedOf = ({ code, lang }: Code) =>
  [
    `file.${lang}`,
    code,
    { lang, preserveParens: false, ...(!saidByTypes.test(code) && { astType: 'js' as const }) },
  ] as const;

/** A file whose code is parsed, as far as it is in a language that is read. */
export interface Parsed extends TakenApart {
  readonly results: readonly ParseResult[];
}

/** Parses the code of a file on another thread. @throws SIM-PARSER */
export async function parseLater(file: string, text: string): Promise<Parsed> {
  const parts = takeApart(file, text);
  const { parse } = readParser();
  const results = parts.codes.every(isRead)
    ? await Promise.all(parts.codes.map((code) => parse(...askedOf(code))))
    : [];
  return { ...parts, results };
}

const isRead = ({ lang }: Code): boolean => /^[jt]sx?$/.test(lang);

/**
 * Reads what one file says. A file that cannot be read says why.
 *
 * @param parsed what it is made of, where it was parsed before
 * @throws SIM-PARSER
 */
export function readFacts(file: string, text: string, parsed?: Parsed): FileFacts {
  if (text.includes('\0')) return unread('it is no text', 1);
  try {
    const stem = stemOf(file);
    const readings: Reading[] = [];
    const { codes, blocks } = parsed ?? takeApart(file, text);
    for (const [index, code] of codes.entries()) {
      if (!isRead(code)) return unread(`its script is written in ${code.lang}`, 1);
      const read = readCode(code, parsed?.results[index] ?? readParser().parseSync(...askedOf(code)), {
        stem,
        text,
      });
      if ('why' in read) return unread(read.why, read.line);
      readings.push(read);
    }
    return file.endsWith('.vue') ? readComponentFile({ text, blocks }, stem, readings) : factsOf(readings);
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
  const [name = ''] = basename(file).split('.', 1);
  const joined = name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  return joined.charAt(0).toUpperCase() + joined.slice(1);
}

// A file of JavaScript may hold elements.
function languageOf(file: string): Code['lang'] {
  if (/\.[cm]?ts$/.test(file)) return 'ts';
  return file.endsWith('.tsx') ? 'tsx' : 'jsx';
}

type Unreadable = { readonly why: string; readonly line: number };

function readCode(
  { code, offset, framework, isSetup = false }: Code,
  { errors, program, module }: ParseResult,
  { stem, text }: { readonly stem: string; readonly text: string },
): Reading | Unreadable {
  const lineAt = makeLines(text, offset);
  const [error] = errors;
  if (error) return { why: error.message, line: lineAt(error.labels[0]?.start ?? 0) };
  const reading = new Reading({
    ...{ code, module, stem, framework, lineAt, isSetup },
    program: program as unknown as Node,
  });
  // The parser's getter for the tree outlives its result until the next full collection. What hangs on it
  // would survive with it.
  program.body.length = 0;
  return reading;
}

function findStarts(text: string): number[] {
  const starts = [0];
  for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', end + 1)) starts.push(end + 1);
  return starts;
}

/** The line of a place in a part of a file. */
function makeLines(text: string, offset: number): (place: number) => number {
  let starts: number[] | undefined;
  return (place) => {
    starts ??= findStarts(text);
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

/** Reads a single-file component: what its scripts said, and what its template renders. */
function readComponentFile(
  { text, blocks }: { readonly text: string; readonly blocks: readonly Block[] },
  stem: string,
  scripts: readonly Reading[],
): FileFacts {
  const readings = scripts.length > 0 ? scripts : [emptyReading(stem)];
  const setup = readings.find(({ script }) => script.isSetup);
  const main = setup ?? readings[0]!;
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
  return new Reading({
    ...{ code: '', stem, framework: 'vue', lineAt: () => 1, isSetup: true },
    program: { type: 'Program', start: 0, end: 0, body: [] },
    module: { staticImports: [], staticExports: [] },
  });
}
