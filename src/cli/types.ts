import { writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { isDocumentContract } from '../network/from-open-api';
import { isContract } from '../network/from-schema';
import { loadDocument } from '../network/contract/documents';
import { loadSchema } from '../network/contract/schema';
import { printDocumentTypes, printSchemaTypes } from '../network/contract/types';
import { refuse } from '../serve/errors';
import { loadAnswers } from '../serve/load';
import type { Output } from './output';

/** Writes the types of what contracts answer. @returns the exit code */
export async function writeTypes(output: Output, files: readonly string[], out?: string): Promise<number> {
  const parts: { types: string; answers: string }[] = [];
  for (const file of files) {
    const { routes } = await loadAnswers([file], process.cwd());
    const contracts = Object.values(routes).filter(
      (answer) => isDocumentContract(answer) || isContract(answer),
    );
    if (contracts.length === 0)
      refuse('SIM-SERVE-FILE', { file, why: 'it is no contract, so that it has no types to write' });
    for (const contract of contracts) {
      if (isDocumentContract(contract)) parts.push(printDocumentTypes(await loadDocument(contract.document)));
      else if (isContract(contract)) {
        const { graphql, schema } = await loadSchema(contract);
        parts.push(printSchemaTypes(graphql, schema));
      }
    }
  }
  const text = layOut(files, parts);
  if (out === undefined) output.write(text);
  else {
    await writeFile(out, text);
    output.write(`${out} has the types of ${files.join(', ')}\n`);
  }
  return 0;
}

function layOut(files: readonly string[], parts: readonly { types: string; answers: string }[]): string {
  const hasOperations = parts.some(({ answers }) => answers.includes('Partly<'));
  return `/* Made by simulacra types of ${files.map((file) => basename(file)).join(', ')}. */

${parts.map(({ types }) => types).join('\n')}${
    hasOperations
      ? `
/** What an operation selects of a type. */
export type Partly<T> = T extends readonly (infer I)[]
  ? readonly Partly<I>[]
  : T extends object
    ? { readonly [K in keyof T]?: Partly<T[K]> }
    : T;
`
      : ''
  }
/** What each route answers when all goes well. */
export interface Answers {
${parts.map(({ answers }) => answers).join('')}}
`;
}
