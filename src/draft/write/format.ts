import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Survey } from '../../survey/index';
import type { Writing } from './print';
import type { Style } from './layout';

interface Prettier {
  resolveConfig(file: string, options: { editorconfig: true }): Promise<Record<string, unknown> | null>;
  format(text: string, options: Record<string, unknown>): Promise<string>;
}

/** The project's own formatter; undefined where it has none. */
function formatterOf(root: string): Prettier | undefined {
  try {
    return createRequire(join(root, 'package.json'))('prettier') as Prettier;
  } catch {
    return undefined;
  }
}

/** How wide lines are, and how far they are indented. */
export async function styleOf(root: string, target: string): Promise<Style & { readonly root: string }> {
  const settings =
    (await formatterOf(root)
      ?.resolveConfig(target, { editorconfig: true })
      .catch(() => null)) ?? {};
  const { printWidth, tabWidth, useTabs } = settings;
  return {
    root,
    width: typeof printWidth === 'number' ? printWidth : 100,
    indent: useTabs === true ? '\t' : ' '.repeat(typeof tabWidth === 'number' ? tabWidth : 2),
  };
}

/** A text as the project formats its files; as it is where nothing does that. */
export async function formatWith({ target, ...style }: Writing, text: string): Promise<string> {
  const formatter = formatterOf((style as { root?: string }).root ?? process.cwd());
  if (!formatter) return text;
  try {
    const settings = (await formatter.resolveConfig(target, { editorconfig: true })) ?? {};
    return await formatter.format(text, {
      singleQuote: true,
      printWidth: style.width,
      ...settings,
      filepath: target,
    });
  } catch {
    return text;
  }
}

/** `.js` where a file of the project names others with an ending. */
export function endingOf({ project }: Survey, file: string): string {
  const own = project
    .facts(file)
    .imports.map(({ specifier }) => specifier)
    .filter((one) => one.startsWith('.'));
  return own.some((one) => /\.js$/.test(one)) ? '.js' : own.some((one) => /\.ts$/.test(one)) ? '.ts' : '';
}
