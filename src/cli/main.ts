import { Command, CommanderError } from 'commander';
import { SimulacraError } from '../core/errors/error';
import { refuse } from '../stage/errors';
import { listDrift } from './drift';
import { playDemo } from './demo';
import type { Output } from './output';
import { runServe } from './serve';
import { makeSheet } from './sheet';
import { writeTypes } from './types';

function readPort(given: string): number {
  const port = Number(given);
  if (/^\d+$/.test(given) && port <= 65535) return port;
  return refuse('SIM-OPTION-VALUE', { option: '--port', value: given, wanted: 'a number from 0 to 65535' });
}

/**
 * The command line: `simulacra <command>`.
 *
 * @param args what follows the name of the program
 * @param output where to write
 * @param untilStopped tells what runs on when a person stops it
 * @returns the exit code: 0 when all went well, 1 when something failed, 2 for a mistake in the call
 */
export async function main(
  args: readonly string[],
  output: Output,
  untilStopped: () => AbortSignal,
): Promise<number> {
  let code = 0;
  const program = new Command('simulacra')
    .description('Puts one component alone on a stage and verifies how it renders.')
    .exitOverride()
    .showHelpAfterError()
    .configureOutput({ writeOut: output.write, writeErr: output.complain });
  addCommands(program, output, untilStopped, (given) => (code = given));
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

function addCommands(
  program: Command,
  output: Output,
  untilStopped: () => AbortSignal,
  done: (code: number) => void,
): void {
  program
    .command('demo')
    .description('isolate a board of hives in its four states and show what happened in each')
    .option('--state <name>', 'only one state: loading, failed, empty or loaded')
    .action(async ({ state }: { state?: string }) => {
      done(await playDemo(output, state));
    });
  program
    .command('serve')
    .description('answer requests and sockets over HTTP on this machine, from routes or contracts')
    .argument(
      '[files...]',
      'modules with routes, OpenAPI documents, schemas of GraphQL, recorded sessions (.har); simulacra.config.ts unless given',
    )
    .option('--port <number>', 'the port to listen on, 0 for one that is free (default: 4100)')
    .option('--host <address>', 'the address to listen on (default: 127.0.0.1, this machine alone)')
    .option(
      '--state <state...>',
      "the state to begin with, of all routes or of one: held, 'GET /api/hives=failing 404'",
    )
    .option('--quiet', 'do not print each request')
    .action(
      async (files: string[], given: { port?: string; host?: string; state?: string[]; quiet?: true }) => {
        const { port, host, state: states = [], quiet } = given;
        done(
          await runServe(
            output,
            {
              files,
              host,
              states,
              port: port === undefined ? undefined : readPort(port),
              isQuiet: quiet === true,
            },
            untilStopped(),
          ),
        );
      },
    );
  program
    .command('sheet')
    .description('bring declared states about in a browser, and put a picture of each on one page')
    .argument('[files...]', 'files that declare states, and folders; this folder unless given')
    .option('--out <folder>', 'where it is written', 'state-sheet')
    .option('--width <pixels...>', 'how wide the page is', ['600'])
    .option('--scheme <schemes...>', 'light, dark or both', ['light', 'dark'])
    .option('--load <files...>', 'styles and modules that each page loads first', [])
    .option('--pages <number>', 'how many pages are drawn at once')
    .option('--shard <part>', 'draw one part of it: 2/5')
    .option('--no-accessibility', 'look for no problems of accessibility')
    .action(async (files: string[], given) => {
      done(
        await makeSheet(
          output,
          {
            files,
            out: given.out,
            widths: given.width.map(Number),
            schemes: given.scheme,
            load: given.load,
            pages: given.pages && Number(given.pages),
            shard: given.shard,
            isAudited: given.accessibility,
          },
          untilStopped(),
        ),
      );
    });
  program
    .command('drift')
    .description('compare the answers of routes with recorded sessions, and list where they differ')
    .argument('<files...>', 'files with answers, as for serve, and recordings (.har)')
    .action(async (files: string[]) => {
      done(await listDrift(output, files));
    });
  program
    .command('types')
    .description('write the types of what contracts answer, for RoutesOf<Answers>')
    .argument('<files...>', 'OpenAPI documents and schemas of GraphQL')
    .option('--out <file>', 'the file to write; what is printed otherwise')
    .action(async (files: string[], { out }: { out?: string }) => {
      done(await writeTypes(output, files, out));
    });
}
