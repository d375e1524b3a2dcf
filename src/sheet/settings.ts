import { nearest } from '../core/near';
import { print } from '../core/print';
import { refuse } from './errors';
import type { Scheme } from './model';

/** How a sheet is drawn: what `simulacra.config.ts` says under `sheet`, and what a call says more. */
export interface SheetSettings {
  /** Files that declare states, and folders; the whole folder unless given. */
  readonly files?: readonly string[];
  /** The folder it is written to: `state-sheet` unless said otherwise. */
  readonly out?: string;
  /** How wide pages are, in CSS pixels: `[600]` unless said otherwise. */
  readonly widths?: readonly number[];
  /** The colour schemes that readers prefer: `['light', 'dark']` by default. */
  readonly schemes?: readonly Scheme[];
  /** Styles and modules that each page loads before its component. */
  readonly load?: readonly string[];
  /** Where accepted pictures are: `accepted-pictures` unless said otherwise. */
  readonly accepted?: string;
  /** How much of a picture may differ from the accepted one, from 0 to 1: 0.001 unless said otherwise. */
  readonly tolerance?: number;
  /** How many pages are drawn at once; as many as the machine has processors, at most 4, unless said otherwise. */
  readonly pages?: number;
  /** How many milliseconds a state may take: 15,000 unless said otherwise. */
  readonly within?: number;
  /** Whether axe-core looks for problems of accessibility, where it is installed: it does unless this is false. */
  readonly accessibility?: boolean;
}

type Test = readonly [is: (value: unknown) => boolean, wanted: string];

const isText = (value: unknown) => typeof value === 'string' && value !== '';
const listOf =
  (is: (value: unknown) => boolean) =>
  (value: unknown): boolean =>
    Array.isArray(value) && value.length > 0 && value.every(is);
const isWithin = (least: number, most: number) => (value: unknown) =>
  typeof value === 'number' && value >= least && value <= most;
const isWhole = (least: number, most: number) => (value: unknown) =>
  Number.isInteger(value) && isWithin(least, most)(value);

const tests: { readonly [K in keyof Required<SheetSettings>]: Test } = {
  files: [listOf(isText), 'a list of files and folders'],
  out: [isText, 'a folder'],
  widths: [listOf(isWhole(100, 4000)), 'widths from 100 to 4000 pixels: 390, 1280'],
  schemes: [listOf((one) => one === 'light' || one === 'dark'), 'light, dark, or both'],
  load: [(value) => Array.isArray(value) && value.every(isText), 'a list of files'],
  accepted: [isText, 'a folder'],
  tolerance: [isWithin(0, 1), 'a part from 0 to 1: 0.001'],
  pages: [isWhole(1, 32), 'a number from 1 to 32'],
  within: [isWhole(100, 3_600_000), 'milliseconds, from 100 on'],
  accessibility: [(value) => typeof value === 'boolean', 'true or false'],
};

const kept = {
  out: 'state-sheet',
  widths: [600],
  schemes: ['light', 'dark'],
  load: [],
  accepted: 'accepted-pictures',
  tolerance: 0.001,
  within: 15_000,
  accessibility: true,
} satisfies SheetSettings;

export type ReadSettings = SheetSettings & Required<Pick<SheetSettings, keyof typeof kept>>;

/**
 * Reads what a configuration says, and what a call says more.
 *
 * @param nameOf how an option is called where it came from
 * @throws SIM-SHEET-OPTION
 */
export function readSettings(configured: SheetSettings | undefined, called: SheetSettings): ReadSettings {
  checkSettings(configured ?? {}, (option) => `sheet.${option} in simulacra.config`);
  checkSettings(called, (option) => optionNames[option] ?? `--${option}`);
  return { ...kept, ...configured, ...called };
}

/** What options are called on the command line, where that is not as in a configuration. */
const optionNames: Partial<Record<string, string>> = {
  widths: '--width',
  schemes: '--scheme',
  files: 'simulacra sheet',
};

function checkSettings(given: SheetSettings, nameOf: (option: string) => string): void {
  const names = Object.keys(tests);
  for (const [option, value] of Object.entries(given)) {
    const test = tests[option as keyof SheetSettings];
    if (!test) {
      const near = nearest(option, names);
      refuse('SIM-SHEET-OPTION', {
        option: 'sheet in simulacra.config',
        value: `"${option}"`,
        wanted: names.join(', '),
        nearest: near,
      });
    }
    const [is, wanted] = test;
    if (!is(value)) refuse('SIM-SHEET-OPTION', { option: nameOf(option), value: print(value, 60), wanted });
  }
}
