import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { ChromiumRunner as Runner } from './runner';

// Jest may transform the file of a runner as it does a project's own, and make a require() of an import().

const load = new Function('file', 'return import(file)') as (
  file: string,
) => Promise<{ readonly ChromiumRunner: typeof Runner }>;

type Given = ConstructorParameters<typeof Runner>;

/** What Jest loads: the runner itself is a standard module. */
export class ChromiumRunner {
  readonly isSerial = false;
  readonly supportsEventEmitters = false;
  readonly #given: Given;

  constructor(...given: Given) {
    this.#given = given;
  }

  async runTests(...tests: Parameters<Runner['runTests']>): Promise<void> {
    const module = await load(pathToFileURL(join(__dirname, 'chromium-runner.js')).href);
    return new module.ChromiumRunner(...this.#given).runTests(...tests);
  }
}
