import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, relative, resolve } from 'node:path';
import picomatch from 'picomatch';
import type { Framework } from '../../survey/facts';
import { refuse } from '../errors';
import { findTypescript } from '../../transform/typescript';

interface JestOptions {
  readonly rootDir?: string;
  readonly projects?: readonly (string | JestOptions)[];
  readonly testMatch?: string | readonly string[];
  readonly runner?: string;
  readonly [name: string]: unknown;
}

interface JestConfig {
  readInitialOptions(
    config: string | undefined,
    options: { packageRootOrConfig: string; skipMultipleConfigError: true },
  ): Promise<{ config: JestOptions; configPath: string | null }>;
}

/** How the project's own Jest is run. */
export interface RunConfig {
  /** A file, or JSON. */
  readonly config: string;
  /** True where the project has none, and ours is used. */
  readonly isOurs: boolean;
  /** False where tests have to import `expect` and the like. */
  readonly hasGlobals: boolean;
}

/** Finds the configuration that tests of a file run with. @throws SIM-DRAFT-RUNNER */
export async function readRunConfig(root: string, file: string, framework: Framework): Promise<RunConfig> {
  const fromProject = createRequire(join(root, 'package.json'));
  const read = await readOptions(root, fromProject);
  if (!read)
    return {
      config: JSON.stringify(ownConfig(root, framework, fromProject)),
      isOurs: true,
      hasGlobals: true,
    };
  const { config, configPath } = read;
  const project = await projectFor(config, root, file);
  if (project)
    return { config: project.config, isOurs: false, hasGlobals: project.options['injectGlobals'] !== false };
  const isFile = configPath !== null && !/package\.json$/.test(configPath);
  const written = isFile
    ? configPath
    : JSON.stringify({ ...config, rootDir: resolve(root, config.rootDir ?? '.') });
  return { config: written, isOurs: false, hasGlobals: config['injectGlobals'] !== false };
}

async function readOptions(root: string, fromProject: NodeJS.Require) {
  let jest: JestConfig;
  try {
    const runner = createRequire(fromProject.resolve('jest/package.json'));
    const core = createRequire(runner.resolve('@jest/core'));
    jest = core('jest-config') as JestConfig;
  } catch {
    return refuse('SIM-DRAFT-RUNNER', { why: 'it has no Jest', install: 'jest jest-environment-jsdom' });
  }
  try {
    const options = { packageRootOrConfig: root, skipMultipleConfigError: true } as const;
    const read = await jest.readInitialOptions(undefined, options);
    return Object.keys(read.config).some((name) => name !== 'rootDir') ? read : undefined;
  } catch (cause) {
    // eslint-disable-next-line no-control-regex -- a runner's colours
    const message = (cause as Error).message.replace(/\u001b\[\d+m/g, '');
    if (/Could not find a config file|no config/i.test(message)) return undefined;
    return refuse(
      'SIM-DRAFT-RUNNER',
      { why: `the configuration of its Jest cannot be read: ${message.split('\n')[0]}` },
      { cause },
    );
  }
}

/** What `docs/start-*.md` says to write. */
function ownConfig(root: string, framework: Framework, fromProject: NodeJS.Require): object {
  const preset = fromProject(`simulacra/${framework}/jest`) as object;
  const seams = fromProject('simulacra/seam/jest') as (config: object) => object;
  const mapped = aliasesOf(root);
  const aliases =
    Object.keys(mapped).length > 0
      ? { moduleNameMapper: { ...((preset as JestOptions)['moduleNameMapper'] as object), ...mapped } }
      : {};
  const zone = hasZone(root, framework) ? { setupFiles: ['zone.js'] } : {};
  return seams({ rootDir: root, ...preset, ...aliases, ...zone, setupFilesAfterEnv: setupOf(framework) });
}

/** The same as a file, for a project that has none. */
export function printOwnConfig(root: string, framework: Framework): string {
  const mapped = Object.entries(aliasesOf(root));
  const aliases =
    mapped.length === 0
      ? ''
      : `  moduleNameMapper: {\n${mapped.map(([from, to]) => `    '${from.replaceAll('\\', '\\\\')}': '${to}',\n`).join('')}  },\n`;
  const zone = hasZone(root, framework) ? "  setupFiles: ['zone.js'],\n" : '';
  const setup = setupOf(framework).map((one) => `'${one}'`);
  return `const seams = require('simulacra/seam/jest');

module.exports = seams({
  ...require('simulacra/${framework}/jest'),
${aliases}${zone}  setupFilesAfterEnv: [${setup.join(', ')}],
});
`;
}

/** True where the application runs with zone.js. */
function hasZone(root: string, framework: Framework): boolean {
  if (framework !== 'angular') return false;
  const textOf = (name: string) => {
    const file = join(root, name);
    return existsSync(file) ? readFileSync(file, 'utf8') : '';
  };
  const workspace = textOf('angular.json');
  return /"zone\.js"\s*:/.test(textOf('package.json')) && (workspace === '' || workspace.includes('zone.js'));
}

/** The aliases of `tsconfig.json`, as Jest takes them: `{ '^@/(.*)$': '<rootDir>/src/$1' }`. */
function aliasesOf(root: string): Readonly<Record<string, string>> {
  const mapped: Record<string, string> = {};
  for (const name of ['tsconfig.json', 'tsconfig.app.json']) {
    const file = join(root, name);
    if (!existsSync(file)) continue;
    try {
      const ts = findTypescript(join(root, 'package.json'));
      const read = ts?.readConfigFile(file, (place) => ts.sys.readFile(place)).config as Config | undefined;
      const { paths = {}, baseUrl = '.' } = read?.compilerOptions ?? {};
      for (const [alias, [target]] of Object.entries(paths))
        if (target !== undefined)
          mapped[`^${alias.replace(/[.+?^${}()|[\]\\]/g, '\\$&').replace('*', '(.*)')}$`] =
            `<rootDir>/${join(baseUrl, target).replaceAll('\\', '/').replace('*', '$1')}`;
    } catch {
      // Without a compiler nothing can be said.
    }
  }
  return mapped;
}

interface Config {
  readonly compilerOptions?: {
    readonly paths?: Readonly<Record<string, readonly string[]>>;
    readonly baseUrl?: string;
  };
}

const setupOf = (framework: Framework): readonly string[] =>
  framework === 'react' ? ['simulacra/jest', 'simulacra/react'] : ['simulacra/jest'];

/** The one of several projects whose tests a file is among. */
async function projectFor(
  { projects = [] }: JestOptions,
  root: string,
  file: string,
): Promise<{ config: string; options: JestOptions } | undefined> {
  const own = projects.filter(
    (one): one is JestOptions => typeof one === 'object' && one.runner === undefined,
  );
  const chosen =
    own.find((one) => matches(one, root, file)) ??
    own.find(({ testMatch }) => testMatch === undefined) ??
    own[0];
  if (chosen) {
    const options = { ...chosen, rootDir: resolve(root, chosen.rootDir ?? '.') };
    return { config: JSON.stringify(options), options };
  }
  const folders = projects.filter((one): one is string => typeof one === 'string');
  const folder = folders
    .map((one) => resolve(root, one.replace('<rootDir>', root)))
    .find((one) => !relative(one.replace(/[\\/][^\\/]*\.[cm]?[jt]s$/, ''), file).startsWith('..'));
  return folder === undefined ? undefined : { config: folder, options: {} };
}

function matches({ testMatch = [], rootDir = '.' }: JestOptions, root: string, file: string): boolean {
  const place = resolve(root, rootDir);
  const patterns = [testMatch].flat().map((pattern) => pattern.replaceAll('<rootDir>', place));
  return patterns.length > 0 && picomatch(patterns)(file);
}
