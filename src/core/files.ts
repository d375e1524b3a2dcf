import { realm } from './host';
import { once } from './shared';

/** Files, as Node reads and writes them. */
export interface Files {
  existsSync(path: string): boolean;
  readFileSync(path: string, encoding: 'utf8'): string;
  writeFileSync(path: string, text: string): void;
}
interface Process {
  readonly env: Readonly<Record<string, string | undefined>>;
  getBuiltinModule?(name: string): unknown;
}

/** What only who drives a browser can make a page look like. */
export interface ScreenWanted {
  readonly width?: number;
  readonly height?: number;
  readonly dark?: boolean;
  readonly reducedMotion?: boolean;
}
interface Lent {
  files?: Files;
  env?: Process['env'];
  screen?(wanted: ScreenWanted): Promise<void>;
}

/** What a page without Node is lent by what runs the tests there. */
export const lent = once<Lent>('lent', () => ({}));

const ownProcess = () => (realm as { readonly process?: Process }).process;

/** A module of Node's own; undefined where there is no Node. */
export const builtin = (name: string): unknown => ownProcess()?.getBuiltinModule?.(name);

/** The files of the project; undefined where none can be read. */
export const files = (): Files | undefined => lent.files ?? (builtin('node:fs') as Files | undefined);

/** True where a variable of the environment asks for something. */
export const isAsked = (variable: string): boolean => Boolean((lent.env ?? ownProcess()?.env)?.[variable]);
