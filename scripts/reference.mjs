// Writes docs/reference.md, docs/errors.md and the test that runs the examples of the doc comments.
import { mkdir, writeFile } from 'node:fs/promises';
import { writeAria } from './aria.mjs';
import './errors.mjs';
import './recipes.mjs';
import { readDocComments, readExamples } from './doc-comments.mjs';

await writeAria();

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

const words = [
  'cases',
  'channel',
  'css',
  'everyArrival',
  'fail',
  'fromJsonSchema',
  'fromOpenApi',
  'fromSchema',
  'hold',
  'inTurn',
  'label',
  'open',
  'later',
  'part',
  'role',
  'spy',
  'record',
  'standIn',
  'stream',
  'swap',
  'SimulacraError',
  'takeDown',
  'testId',
  'text',
  'verifyStates',
];
const start = (framework, used, lines) => `/* Made by npm run docs from the examples of the doc comments. */
import { testStates } from 'simulacra/jest';
import { ${words.join(', ')} } from 'simulacra';
import type { RoutesOf } from 'simulacra';
import { isolate, isolateWith, states, stub } from 'simulacra/${framework}';
${lines.join('\n')}
import { hives as all, type Hive } from '../../examples/shared/hive';

const hives = all as [Hive, Hive, Hive];
export type { RoutesOf };
void [${[...words, 'isolateWith', 'states', 'stub', 'testStates', ...used].join(', ')}];
`;
const files = {
  'examples.test.tsx': {
    entries: ['simulacra', 'simulacra/react', 'simulacra/jest', 'simulacra/har'],
    head: `${start(
      'react',
      ['forwardRef', 'useRef', 'SessionContext', 'fromHar', 'toHar'],
      [
        "import { forwardRef, useRef } from 'react';",
        "import { fromHar, toHar } from 'simulacra/har';",
        "import { HiveBoard } from '../../examples/react-apiary/src/HiveBoard';",
        "import { HiveCard } from '../../examples/react-apiary/src/HiveCard';",
        "import { SessionContext, type Session } from '../../examples/react-apiary/src/session';",
        "import { YardGate } from '../../examples/react-apiary/src/YardGate';",
      ],
    )}export type { Session };\n`,
  },
  'examples-serve.test.ts': {
    entries: ['simulacra/serve', 'simulacra/vite'],
    head: `/** @jest-environment node */
/* Made by npm run docs from the examples of the doc comments. */
import { serve } from 'simulacra/serve';
import { simulatedBackend } from 'simulacra/vite';
import { hives } from '../../examples/shared/hive';

void simulatedBackend;
`,
  },
  'examples-vue.test.ts': {
    entries: ['simulacra/vue'],
    head: `${start(
      'vue',
      ['defineComponent', 'h', 'ref', 'SessionKey'],
      [
        "import { defineComponent, h, ref } from 'vue';",
        "import HiveBoard from '../../examples/vue-apiary/src/HiveBoard.vue';",
        "import HiveCard from '../../examples/vue-apiary/src/HiveCard.vue';",
        "import { SessionKey, type Session } from '../../examples/vue-apiary/src/session';",
        "import YardGate from '../../examples/vue-apiary/src/YardGate.vue';",
      ],
    )}export type { Session };\n`,
  },
  'examples-angular.test.ts': {
    entries: ['simulacra/angular'],
    head: `${start(
      'angular',
      ['signal', 'provideRouter', 'startAt'],
      [
        "import { Component, signal } from '@angular/core';",
        "import { provideRouter, RouterOutlet } from '@angular/router';",
        "import { startAt } from 'simulacra/angular';",
        "import { HiveBoard } from '../../examples/angular-apiary/src/hive-board';",
        "import { HiveCard } from '../../examples/angular-apiary/src/hive-card';",
        "import { Session } from '../../examples/angular-apiary/src/session';",
        "import { YardGate } from '../../examples/angular-apiary/src/yard-gate';",
      ],
    )}
@Component({ selector: 'outlet-page', imports: [RouterOutlet], template: '<router-outlet />' })
class RouterOutletPage {}
`,
  },
};
// An example names modules as they stand beside a test of the application.
const inPlace = (code, file) => {
  const [, framework = 'react'] = /-(\w+)\./.exec(file) ?? [];
  return code.replace(/import\('\.\//g, `import('../../examples/${framework}-apiary/src/`);
};
await mkdir('test/generated', { recursive: true });
const examples = readExamples();
for (const [file, { entries, head }] of Object.entries(files)) {
  const tests = examples
    .filter(({ entry }) => entries.includes(entry))
    .map(({ name, code }, at) =>
      // What makes tests cannot stand in one.
      name === 'testStates'
        ? `\n${inPlace(code, file)}`
        : `\ntest('${name} ${at + 1}', async () => {\n${inPlace(code, file).replace(/^/gm, '  ')}\n});`,
    );
  await writeFile(`test/generated/${file}`, `${head}${tests.join('\n')}\n`);
}
