import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Ask, Told } from './protocol';

/* The process that tries drafts: runs the project's own Jest over the files that it is sent. */

interface Jest {
  runCLI(args: object, projects: readonly string[]): Promise<{ results: Results }>;
}
interface Results {
  readonly testResults: readonly {
    readonly testFilePath: string;
    readonly failureMessage?: string | null;
    readonly testExecError?: { readonly message?: string; readonly stack?: string };
    readonly testResults: readonly {
      readonly title: string;
      readonly status: string;
      readonly failureMessages: readonly string[];
    }[];
  }[];
}

process.on('message', (ask: Ask) => {
  void run(ask).then((told) => process.send!(told));
});

async function run({ root, files, config, milliseconds }: Ask): Promise<Told> {
  try {
    const { runCLI } = createRequire(join(root, 'package.json'))('jest') as Jest;
    const { results } = await runCLI(
      {
        ...{ _: files, $0: '', config, runTestsByPath: true, runInBand: true, ci: true, silent: true },
        ...{
          reporters: [],
          watchman: false,
          testTimeout: milliseconds,
          passWithNoTests: true,
          coverage: false,
        },
        ...{ collectCoverage: false, notify: false, cache: true, watch: false, watchAll: false, bail: false },
      },
      [root],
    );
    return {
      files: results.testResults.map(({ testFilePath, testExecError, failureMessage, testResults }) => ({
        file: testFilePath,
        ...(testResults.length === 0 && {
          failed: testExecError?.message ?? failureMessage ?? 'no test was run',
        }),
        tests: testResults.map(({ title, status, failureMessages }) => ({
          title,
          hasPassed: status === 'passed',
          message: failureMessages.join('\n'),
        })),
      })),
    };
  } catch (failure) {
    return {
      files: [],
      broke: failure instanceof Error ? (failure.stack ?? failure.message) : String(failure),
    };
  }
}
