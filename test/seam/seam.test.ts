/** @jest-environment node */
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

/*
 * The cases of fixture/behaviour.tsx, run wherever components are run, and what a person sees there
 * of files that were rewritten: frames, coverage, breakpoints. Each in a process of its own.
 */

const root = join(__dirname, '../..');
const runJest = ['node_modules/jest/bin/jest.js', '-c', 'test/seam/fixture/jest.config.cjs'];
const node = [
  '--import',
  './test/seam/fixture/node-typescript.mjs',
  '--test-force-exit',
  '--test-reporter=tap',
];

interface Outcome {
  readonly out: string;
  readonly err: string;
}
async function run(args: readonly string[], more: Record<string, string> = {}): Promise<Outcome> {
  const { NODE_ENV: _, JEST_WORKER_ID: __, ...outer } = process.env;
  const env = { ...outer, NODE_NO_WARNINGS: '1', ...more } as unknown as NodeJS.ProcessEnv;
  const work = promisify(execFile)(process.execPath, [...args], { cwd: root, env, maxBuffer: 1e8 });
  const { stdout, stderr } = await work.catch(
    (failed: unknown) => failed as { stdout: string; stderr: string },
  );
  return { out: stdout, err: stderr };
}
const bare: Record<string, string> = { IS_BARE: '1' };
const modules = { NODE_OPTIONS: '--experimental-vm-modules' };

const source = readFileSync(join(__dirname, 'fixture/behaviour.tsx'), 'utf8');
const behaviours = [...source.matchAll(/^ {4}(['"])(.*)\1,$/gm)].map(([, , behaviour]) => behaviour!);

interface Report {
  readonly testResults: {
    readonly message: string;
    readonly assertionResults: {
      readonly title: string;
      readonly status: string;
    }[];
  }[];
}

describe('swapping is the same', () => {
  it('has cases to run', () => expect(behaviours.length).toBe(21));

  it('in Jest, by each of seven ways to transform files', async () => {
    const { out, err } = await run([...runJest, 'behaviour', '--json'], modules);
    const { testResults } = JSON.parse(
      out || `{ "testResults": [{ "message": ${JSON.stringify(err)} }] }`,
    ) as Report;
    const ran = testResults.map(({ message, assertionResults = [] }) => ({
      message,
      titles: assertionResults.filter(({ status }) => status === 'passed').map(({ title }) => title),
    }));
    expect(ran).toEqual(Array(7).fill({ message: '', titles: behaviours }));
  });

  it("in Node's own runner", async () => {
    const test = ['--test', 'test/seam/fixture/behaviour.node.mjs'];
    const { out } = await run([
      ...node.slice(0, 2),
      '--import',
      './dist/seam-node.js',
      ...node.slice(2),
      ...test,
    ]);
    expect(out.match(/^not ok.*/gm) ?? []).toEqual([]);
    expect([...out.matchAll(/^ok \d+ - (.*)/gm)].map(([, title]) => title).slice(0, -1)).toEqual(behaviours);
  });

  it('in a page that Vite serves, where breakpoints stop at the lines they were set at', async () => {
    const { out, err } = await run(['test/seam/vite.mjs']);
    interface Page {
      results: { behaviour: string; failure?: string }[];
      stopped: object;
    }
    const { results, stopped } = JSON.parse(
      out || `{ "results": [{ "failure": ${JSON.stringify(err)} }] }`,
    ) as Page;
    expect(results.filter(({ failure }) => failure !== undefined)).toEqual([]);
    // A page has no `require`.
    expect(results.map(({ behaviour }) => behaviour)).toEqual(behaviours.slice(0, -1));
    expect(stopped).toEqual({ functionName: 'ScaleFeed', line: 6 });
  }, 90_000);
});

describe('a rewritten file is seen as it was written', () => {
  const projects = ['babel', 'swc', 'esbuild', 'typescript', 'babel modules', 'swc modules'];

  it.each(projects)('in stack traces and code frames: %s', async (project) => {
    const [rewritten, plain] = await Promise.all(
      [{}, bare].map(async (more) => {
        const { err } = await run([...runJest, 'failing', '--selectProjects', project], {
          ...modules,
          ...more,
        });
        // What is the runner's own, and how long it took, differs from run to run.
        return err
          .split('\n')
          .filter((line) => /^ +(>? *\d+ \||\|)|at .*\((src|failing)|^ +\w*Error: [^S]/.test(line));
      }),
    );
    expect(rewritten).toEqual(plain);
    expect(rewritten!.join('\n')).toMatch(/Throwing\.tsx:7:\d+/);
  });

  it.each(['babel', 'typescript', 'swc'])('by what measures coverage: %s', async (project) => {
    const lines = await Promise.all(
      [{}, bare].map(async (more) => {
        const folder = mkdtempSync(join(tmpdir(), 'simulacra-'));
        const coverage = [
          '--coverage',
          '--coverageDirectory',
          folder,
          '--collectCoverageFrom',
          'src/Throwing.tsx',
        ];
        await run([...runJest, 'failing', ...coverage, '--selectProjects', project], more);
        const found = JSON.parse(readFileSync(join(folder, 'coverage-final.json'), 'utf8')) as Record<
          string,
          Covered
        >;
        rmSync(folder, { recursive: true });
        const [{ statementMap, s, f }] = Object.values(found) as [Covered];
        const statements = Object.keys(s).map((key) => [statementMap[key]!.start.line, s[key]]);
        // An import is a statement only where it was turned into one.
        return { statements: statements.filter(([line]) => line! > 4), functions: f };
      }),
    );
    expect(lines[0]).toEqual(lines[1]);
    expect(lines[0]!.statements).toContainEqual([5, 2]);
  });
});

interface Covered {
  readonly statementMap: Record<string, { start: { line: number } }>;
  readonly s: Record<string, number>;
  readonly f: Record<string, number>;
}

describe('where nothing rewrites modules, the line that is missing is named', () => {
  it('in Jest', async () => {
    const { err } = await run([...runJest, 'behaviour', '--selectProjects', 'babel'], bare);
    expect(err).toMatch(/SIM-SEAM-MISSING[^]*jest\.config\.cjs[^]*require\('simulacra\/seam\/jest'\)/);
  });

  it('in Node', async () => {
    const { out } = await run([...node, '--test', 'test/seam/fixture/behaviour.node.mjs']);
    expect(out).toMatch(/SIM-SEAM-MISSING[^]*node --import simulacra\/seam\/node --test/);
  });

  it('in a page', async () => {
    const { out } = await run(['test/seam/vite.mjs'], bare);
    expect(out).toMatch(/SIM-SEAM-MISSING.*vite\.config\.ts.*seams\(\)/);
  }, 90_000);
});
