import { Command, CommanderError } from 'commander';
import { SimulacraError } from '../core/errors/error';
import { playDemo } from './demo';
import type { Output } from './output';

/**
 * The command line: `simulacra <command>`.
 *
 * @param args what follows the name of the program
 * @param output where to write
 * @returns the exit code: 0 when all went well, 1 when something failed, 2 for a mistake in the call
 */
export async function main(args: readonly string[], output: Output): Promise<number> {
  let code = 0;
  const program = new Command('simulacra')
    .description('Puts one component alone on a stage and verifies how it renders.')
    .exitOverride()
    .showHelpAfterError()
    .configureOutput({ writeOut: output.write, writeErr: output.complain });
  program
    .command('demo')
    .description('isolate a board of hives in its four states and show what happened in each')
    .option('--state <name>', 'only one state: loading, failed, empty or loaded')
    .action(async ({ state }: { state?: string }) => {
      code = await playDemo(output, state);
    });
  try {
    await program.parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof SimulacraError)) throw error;
    output.complain(`${error.message}\n`);
    return 1;
  }
}
