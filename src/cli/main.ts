import { Command, CommanderError } from 'commander';
import { SimulacraError } from '../core/errors/error';
import { refuse } from '../stage/errors';
import { listDrift } from './drift';
import { playDemo } from './demo';
import { codeOf, type Output } from './output';
import { runServe } from './serve';
import { makeSheet, type SheetCall } from './sheet';
import { addDraft } from './draft';
import { addSurvey } from './survey';
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
 * @param untilStopped resolves when a person stops what runs on
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
  addSurvey(program, output, process.cwd(), (given) => (code = given));
  addDraft(program, output, process.cwd(), untilStopped, (given) => (code = given));
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
  addSheet(program, output, untilStopped, done);
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

interface GivenSheet {
  readonly out?: string;
  readonly width?: string[];
  readonly scheme?: string[];
  readonly load?: string[];
  readonly pages?: string;
  readonly within?: string;
  readonly tolerance?: string;
  readonly accepted?: string;
  readonly shard?: string;
  readonly compare?: true;
  readonly accept?: true;
  readonly merge?: true;
  readonly watch?: true;
  readonly port?: string;
  readonly shown?: true;
  readonly accessibility: boolean;
}

function addSheet(
  program: Command,
  output: Output,
  untilStopped: () => AbortSignal,
  done: (code: number) => void,
): void {
  program
    .command('sheet')
    .description('bring declared states about in a browser, and show all of them on one page')
    .argument('[files...]', 'files that declare states (*.states.*), and folders; this folder unless given')
    .option('--out <folder>', 'the folder it is written to (default: state-sheet)')
    .option('--width <pixels...>', 'how wide pages are (default: 600)')
    .option('--scheme <schemes...>', 'light, dark, or both (default: both)')
    .option('--load <files...>', 'styles and modules that each page loads first')
    .option('--compare', 'compare the pictures with those that were accepted')
    .option('--accept', 'take the pictures of the states that verify as accepted')
    .option('--accepted <folder>', 'where the accepted pictures are (default: accepted-pictures)')
    .option('--tolerance <part>', 'how much of a picture may differ, from 0 to 1 (default: 0.001)')
    .option('--watch', 'serve the sheet, and draw anew what a saved file is part of')
    .option('--port <number>', 'the port that --watch listens on, 0 for one that is free (default: 4200)')
    .option('--shard <part>', 'draw one part of the files: 2/5')
    .option('--merge', 'make one sheet of the folders that are named, which hold its parts')
    .option('--pages <number>', 'how many pages are drawn at once')
    .option('--within <milliseconds>', 'how long a state may take (default: 15000)')
    .option('--no-accessibility', 'do not look for problems of accessibility')
    .option('--shown', 'show the browser while it works')
    .action(async (files: string[], given: GivenSheet) => {
      done(await codeOf(output, () => makeSheet(output, readSheetCall(files, given), untilStopped())));
    });
}

function readSheetCall(files: readonly string[], given: GivenSheet): SheetCall {
  const { out, width, scheme, load, pages, within, tolerance, accepted, accessibility } = given;
  const { shard, compare, accept, merge, shown, watch, port } = given;
  const words = (list: readonly string[] | undefined) =>
    list?.flatMap((one) => one.split(',')).filter(Boolean);
  const number = (text: string | undefined) => (text === undefined ? undefined : Number(text));
  const settings = {
    ...{ files: files.length > 0 && !merge ? files : undefined, out, load, accepted },
    ...{ widths: words(width)?.map(Number), schemes: words(scheme) as ('light' | 'dark')[] | undefined },
    ...{ pages: number(pages), within: number(within), tolerance: number(tolerance) },
    accessibility: accessibility ? undefined : false,
  };
  const said = Object.entries(settings).filter(([, value]) => value !== undefined);
  return {
    ...{ settings: Object.fromEntries(said), shard, merge: merge && files, isShown: shown === true },
    ...{ isComparing: compare === true, isAccepting: accept === true },
    watch: watch && (port === undefined ? 4200 : readPort(port)),
  };
}
