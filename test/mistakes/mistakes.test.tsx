import 'simulacra/jest';
import { readFileSync, writeFileSync } from 'node:fs';
import { version } from 'react';
import { SimulacraError, takeDown } from 'simulacra';
import { mistakes } from './mistakes';

const file = `${__dirname}/../../docs/mistakes.md`;
const pinned = readFileSync(file, 'utf8');
const sections = new Map(pinned.split(/^(?=## )/m).map((part) => [/^## (.*)/.exec(part)?.[1], part]));
const told: string[] = [];
const update = process.env['UPDATE'] !== undefined && !version.startsWith('18');

/** The message without what differs from run to run. */
const settled = (message: string) =>
  message.replace(/^( *)\d+( ms {2})/gm, (_, space: string, unit: string) =>
    `${space.slice(0, 6)}0${unit}`.replace(/^ +0/, '      0'),
  );

const section = (title: string, code: string, message: string) =>
  `## ${title}\n\n\`\`\`tsx\n${code}\n\`\`\`\n\n\`\`\`text\n${message}\n\`\`\`\n`;

describe(`each mistake is explained (React ${version})`, () => {
  const { error } = console;
  // The frameworks' own reports of what these components do are no news here.
  beforeAll(() => void (console.error = () => undefined));
  afterAll(() => void (console.error = error));
  afterEach(() => takeDown().catch(() => undefined));

  it.each(mistakes.map((mistake) => [mistake.title, mistake] as const))(
    '%s',
    async (title, { code, make }) => {
      const failure: unknown = await make().then(
        () => undefined,
        (thrown: unknown) => thrown,
      );
      expect(failure).toBeInstanceOf(SimulacraError);
      const { message } = failure as SimulacraError;
      const text = section(title, code, settled(message));
      told.push(text);
      const words = (whole = '') => whole.split('What happened before')[0]!.trimEnd();
      // React 18 renders once more here and there, which a chronicle tells; the words are the same.
      if (version.startsWith('18')) expect(words(text)).toBe(words(sections.get(title)));
      else if (!update) expect(text.trimEnd()).toBe(sections.get(title)?.trimEnd());
      expect(Math.max(...message.split('\n').map((line) => line.length))).toBeLessThanOrEqual(120);
    },
  );

  if (update)
    afterAll(() => writeFileSync(file, `${pinned.slice(0, pinned.indexOf('## '))}${told.join('\n')}`));
});
