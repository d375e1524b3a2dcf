// Writes docs/reference.md, docs/errors.md and the test that runs the examples of the doc comments.
import { mkdir, writeFile } from 'node:fs/promises';
import './errors.mjs';
import { readDocComments, readExamples } from './doc-comments.mjs';

const order = ['param', 'returns', 'throws', 'see'];
const title = { param: 'Takes', returns: 'Gives', throws: 'Fails with', see: 'Standard' };

function section({ name, declaration, summary, tags, members }) {
  const facts = order.flatMap((kind) =>
    tags
      .filter((tag) => tag.name === kind)
      .map(({ text }) => `- **${title[kind]}** ${text.replace(/\s+/g, ' ')}`),
  );
  const examples = tags
    .filter((tag) => tag.name === 'example')
    .map(({ text }) => `\`\`\`tsx\n${text}\n\`\`\``);
  const rows = members.map(
    ({ signature, summary: said }) =>
      `- \`${signature}\`${said ? `: ${said.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase())}` : ''}`,
  );
  return [
    `### ${name}`,
    `\`\`\`ts\n${declaration}\n\`\`\``,
    summary,
    facts.join('\n'),
    rows.join('\n'),
    ...examples,
  ]
    .filter(Boolean)
    .join('\n\n');
}

const parts = readDocComments().map(({ entry, exported }) => {
  const values = exported.filter(({ isType }) => !isType);
  const types = exported.filter(({ isType, summary }) => isType && summary);
  return [`## ${entry}`, ...values.map(section), ...types.map(section)].join('\n\n');
});
await writeFile(
  'docs/reference.md',
  `# Reference\n\nMade from the doc comments by \`npm run docs\`. Every example here is run by the tests.\n\n${parts.join('\n\n')}\n`,
);

const head = `/* Made by npm run docs from the examples of the doc comments. */
import 'simulacra/jest';
import { css, fail, hold, inTurn, label, later, part, role, spy, standIn, takeDown, testId, text } from 'simulacra';
import { isolate, isolateWith, stub } from 'simulacra/react';
import { forwardRef, useRef } from 'react';
import { HiveBoard } from '../../examples/react-apiary/src/HiveBoard';
import { HiveCard } from '../../examples/react-apiary/src/HiveCard';
import { SessionContext, type Session } from '../../examples/react-apiary/src/session';
import { YardGate } from '../../examples/react-apiary/src/YardGate';
import { hives as all, type Hive } from '../../examples/shared/hive';

const hives = all as [Hive, Hive, Hive];
void [css, fail, hold, inTurn, label, later, part, role, spy, standIn, takeDown, testId, text, isolateWith, stub, forwardRef, useRef, SessionContext];
export type { Session };
`;
const tests = readExamples().map(
  ({ name, code }, at) => `\ntest('${name} ${at + 1}', async () => {\n${code.replace(/^/gm, '  ')}\n});`,
);
await mkdir('test/generated', { recursive: true });
await writeFile('test/generated/examples.test.tsx', `${head}${tests.join('\n')}\n`);
