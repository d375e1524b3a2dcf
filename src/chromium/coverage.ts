import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join, relative } from 'node:path';
import type { TestResult } from '@jest/test-result';
import type { Config } from '@jest/types';
import picomatch from 'picomatch';
import type { CDPSession, Protocol } from 'puppeteer-core';
import convert from 'v8-to-istanbul';
import type { ServedProject } from '../browser/project';
import type { Configs } from './result';

/* What the browser counts of the code that ran, as Jest reports it. */

/** Begins to count, from the next document on. */
export async function beginCoverage(session: CDPSession): Promise<void> {
  await session.send('Profiler.enable');
  await session.send('Profiler.startPreciseCoverage', { callCount: true, detailed: true });
}

/** One file that ran. */
interface Covered {
  readonly file: string;
  readonly functions: Protocol.Profiler.FunctionCoverage[];
  /** As it was served. */
  readonly code: string;
  readonly map: object;
}

/** Puts what was counted into the result of a test file. */
export async function addCoverage(
  result: TestResult,
  session: CDPSession,
  project: ServedProject,
  { config, globalConfig }: Configs,
): Promise<void> {
  const { result: counted } = await session.send('Profiler.takePreciseCoverage');
  const covered = await readCovered(counted, project, makeFilter(config, globalConfig, result.testFilePath));
  if (globalConfig.coverageProvider === 'v8') {
    result.v8Coverage = await Promise.all(covered.map((one) => asV8(one, config.cacheDirectory)));
    return;
  }
  const all = await Promise.all(covered.map(asIstanbul));
  result.coverage = Object.assign({}, ...all) as NonNullable<TestResult['coverage']>;
}

async function readCovered(
  counted: readonly Protocol.Profiler.ScriptCoverage[],
  { url: home, loaded }: ServedProject,
  isWanted: (file: string) => boolean,
): Promise<Covered[]> {
  const found = await Promise.all(
    counted
      .filter(({ url }) => url.startsWith(home))
      .map(async ({ url, functions }) => {
        const { file, code, map } = await loaded(url.slice(home.length - 1));
        if (!isWanted(file) || code === undefined || !map) return [];
        return [{ file, functions, code, map: { ...map, sources: [file], sourceRoot: '' } }];
      }),
  );
  return found.flat();
}

function makeFilter(config: Config.ProjectConfig, globalConfig: Config.GlobalConfig, testFile: string) {
  const ignored = config.coveragePathIgnorePatterns.map((pattern) => new RegExp(pattern));
  const { collectCoverageFrom } = globalConfig;
  const [wanted, unwanted] = [false, true].map((isNot) =>
    collectCoverageFrom
      .filter((glob) => glob.startsWith('!') === isNot)
      .map((glob) => picomatch(glob.replace(/^!/, ''), { dot: true })),
  ) as [picomatch.Matcher[], picomatch.Matcher[]];
  const ofTests = [...config.setupFiles, ...config.setupFilesAfterEnv, testFile];
  return (file: string): boolean => {
    const name = relative(config.rootDir, file);
    if (name.startsWith('..') || /(^|[\\/])node_modules[\\/]/.test(name) || ofTests.includes(file))
      return false;
    if (ignored.some((pattern) => pattern.test(file))) return false;
    return (wanted.length === 0 || wanted.some((is) => is(name))) && !unwanted.some((is) => is(name));
  };
}

// The map is read from a file.
async function asV8({ file, functions, code, map }: Covered, folder: string) {
  const text = JSON.stringify(map);
  const sourceMapPath = join(folder, `chromium-${createHash('sha1').update(text).digest('hex')}.map`);
  await mkdir(folder, { recursive: true });
  await writeFile(sourceMapPath, text);
  const originalCode = await readFile(file, 'utf8');
  return {
    codeTransformResult: { code, originalCode, sourceMapPath },
    result: { url: file, functions, scriptId: '0' },
  };
}

async function asIstanbul({ file, functions, code, map }: Covered): Promise<object> {
  const originalSource = await readFile(file, 'utf8');
  const converter = convert(file, 0, {
    source: code,
    originalSource,
    sourceMap: { sourcemap: map as never },
  });
  await converter.load();
  converter.applyCoverage(functions);
  return converter.toIstanbul();
}
