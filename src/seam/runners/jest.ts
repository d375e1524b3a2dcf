import { createRequire } from 'node:module';
import { join } from 'node:path';
import { refuse } from '../errors';

/*
 * Jest's configuration with modules rewritten as they are loaded, on top of whatever turns the
 * project's files into JavaScript.
 */

type Transform = Readonly<Record<string, string | readonly [path: string, options: object]>>;
interface Configuration {
  readonly preset?: string | null;
  readonly rootDir?: string;
  readonly transform?: Transform;
  readonly projects?: readonly (string | Configuration)[];
  readonly [option: string]: unknown;
}
type Given = Configuration | (() => Configuration | Promise<Configuration>);

const transformFile = join(__dirname, 'seam-transform.cjs');
const byItself: Transform = { '\\.[jt]sx?$': 'babel-jest' };

/**
 * Wraps a configuration of Jest.
 *
 * @param given the configuration, or a function that returns it
 * @returns the same, with each transformer wrapped
 * @example
 * module.exports = require('simulacra/seam/jest')({ testEnvironment: 'jsdom' });
 */
export function seams(given: Given = {}): Configuration | (() => Promise<Configuration>) {
  return typeof given === 'function' ? async () => wrap(await given()) : wrap(given);
}

function wrap(given: Configuration): Configuration {
  if (given.projects)
    return { ...given, projects: given.projects.map((one) => (typeof one === 'string' ? one : wrap(one))) };
  const isOwn = given.transform !== undefined || given.preset != null;
  const transform = isOwn ? { ...presetOf(given), ...given.transform } : byItself;
  const wrapped = Object.entries(transform).map(([pattern, one]) => [pattern, wrapOne(one)]);
  return { ...given, transform: Object.fromEntries(wrapped) as Transform };
}

function wrapOne(transformer: Transform[string]): [string, object] {
  const [path, options] = typeof transformer === 'string' ? [transformer, {}] : transformer;
  return [transformFile, { transformer: path, options }];
}

// Includes the transformers of presets.
function presetOf({ preset, rootDir = process.cwd() }: Configuration): Transform {
  if (preset == null) return {};
  const from = createRequire(join(rootDir, 'package.json'));
  const places = [`${preset}/jest-preset`, `${preset}/jest-preset.json`, preset];
  let failure: unknown;
  for (const name of places) {
    try {
      return (from(name) as Configuration).transform ?? {};
    } catch (error) {
      // If one candidate exists but fails to load, its error is more useful than that of missing ones.
      if ((error as { code?: string }).code !== 'MODULE_NOT_FOUND') failure ??= error;
    }
  }
  const fields = { preset, from: rootDir, places };
  return refuse('SIM-SEAM-PRESET', fields, failure === undefined ? {} : { cause: failure });
}
