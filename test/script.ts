import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';

const { NODE_ENV: _, ...env } = process.env;
const options = { cwd: join(__dirname, '..'), env: env as NodeJS.ProcessEnv, maxBuffer: 1e8 };

/** Runs a script of this folder in a process of its own; what it saw it prints as JSON. */
export async function runScript<T>(script: string, ...args: string[]): Promise<T> {
  const { stdout } = await promisify(execFile)(process.execPath, [join(__dirname, script), ...args], options);
  return JSON.parse(stdout) as T;
}
