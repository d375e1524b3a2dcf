import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { Command } from 'commander';
import { count } from '../core/print';
import { refuse } from '../survey/errors';
import { survey, type FolderSurvey, type Survey } from '../survey/index';
import { printChanges } from '../survey/print/changes';
import { surveyData } from '../survey/print/data';
import { printPage } from '../survey/print/page';
import { drawSurvey } from '../survey/print/picture';
import { printFolder } from '../survey/print/table';
import { printSurvey } from '../survey/print/tree';
import { surveySince } from '../survey/since';
import { codeOf, coloursOf, type Output } from './output';

interface Given {
  readonly json?: true;
  readonly svg?: string;
  readonly html?: string;
  readonly since?: string;
}

const examples = `
Examples:
  simulacra survey src/HiveBoard.tsx             what one component leans on, and where to cut
  simulacra survey HiveBoard                     the same, by name
  simulacra survey src/cards.tsx#HiveCard        one of several components of a file
  simulacra survey src                           a table of all components of a folder
  simulacra survey src --since main              what was added since the branch main
  simulacra survey HiveBoard --html board.html   a page with a picture, to search and follow
`;

export function addSurvey(
  program: Command,
  output: Output,
  from: string,
  done: (code: number) => void,
): void {
  program
    .command('survey')
    .description('read what components lean on, what of it is hard to have in a test, and where to cut')
    .argument(
      '[what]',
      'a file, file#Component, a folder, or the name of a component; this folder unless given',
    )
    .option('--json', 'print it as data, as docs/survey.schema.json describes it')
    .option('--svg <file>', 'write a picture of it')
    .option('--html <file>', 'write a page with the picture, to search and follow')
    .option('--since <ref>', 'only what was added or removed since a commit, a tag or a branch')
    .addHelpText('after', examples)
    .action(async (what: string | undefined, given: Given) => {
      done(await codeOf(output, () => listSurvey(output, what ?? '.', from, given)));
    });
}

async function listSurvey(output: Output, what: string, from: string, given: Given): Promise<number> {
  const { json, svg, html, since } = given;
  const colours = coloursOf(output);
  if (since !== undefined) {
    output.write(printChanges(await surveySince(what, from, since), since, json === true, colours));
    return 0;
  }
  const found = await survey(what, from, (done, of) => {
    output.progress?.(`reading ${done} of ${of} files`);
  });
  for (const [file, draw] of [
    [svg, drawSurvey],
    [html, printPage],
  ] as const)
    if (file !== undefined) write(output, resolve(from, file), draw(onlyOne(found, what)));
  if (json) output.write(`${JSON.stringify(surveyData(found), undefined, 2)}\n`);
  else if (svg === undefined && html === undefined)
    output.write('components' in found ? printFolder(found, colours) : printSurvey(found, colours));
  return 0;
}

/** A picture is of one component. */
function onlyOne(found: Survey | FolderSurvey, asked: string): Survey {
  if (!('components' in found)) return found;
  const [only] = found.heaviest;
  if (only && found.components.length === 1) return only;
  const choices = found.components.map(({ file, subject }) => `${file}#${subject.unit.name}`);
  return refuse('SIM-SURVEY-WHICH', { asked, choices });
}

function write(output: Output, file: string, text: string): void {
  try {
    writeFileSync(file, text);
  } catch (failure) {
    refuse('SIM-SURVEY-WRITE', { file, why: (failure as Error).message });
  }
  output.complain(`wrote ${file} (${count(Math.ceil(text.length / 1000), 'kB', 'kB')})\n`);
}
