import { readFileSync, writeFileSync } from 'node:fs';
import { SimulacraError, takeDown } from 'simulacra';
import type { Mistake } from './table';

const place = (name: string) => `${__dirname}/../../docs/${name}.md`;
const sectionsOf = (text: string) =>
  new Map(text.split(/^(?=## )/m).map((part) => [/^## (.*)/.exec(part)?.[1], part]));

/** The message without what differs from run to run. */
const settled = (message: string) =>
  message.replace(/^( *)\d+( ms {2})/gm, (_, space: string, unit: string) =>
    `${space.slice(0, 6)}0${unit}`.replace(/^ +0/, '      0'),
  );

const section = (title: string, code: string, message: string) =>
  `## ${title}\n\n\`\`\`tsx\n${code}\n\`\`\`\n\n\`\`\`text\n${message}\n\`\`\`\n`;

const words = (whole = '') => whole.split('What happened before')[0]!.trimEnd();

/** True in the run whose modules are not rewritten. */
const isPlain = (globalThis as { PLAIN?: true }).PLAIN === true;

interface Pinned {
  /** The file the messages are pinned in, `UPDATE=1` writes it. */
  readonly file: string;
  /** Where the others are, which must be the same but for the name of the framework. */
  readonly others?: string;
  /** True where only the words have to be the same, not what happened before. */
  readonly wordsOnly?: boolean;
}

/** Makes each mistake, and compares what is said of it with what is pinned. */
export function explainsEach(framework: string, all: readonly Mistake[], pinned: Pinned): void {
  const text = readFileSync(place(pinned.file), 'utf8');
  const own = sectionsOf(text);
  const others = sectionsOf(pinned.others ? readFileSync(place(pinned.others), 'utf8') : '');
  const told: string[] = [];
  const update = process.env['UPDATE'] !== undefined && !pinned.wordsOnly && !isPlain;
  // Where modules are not rewritten nothing can be swapped, and everything else is told in the same words.
  const made = isPlain ? all.filter(({ code }) => !/swap\(/.test(code)) : all;
  const like = (section: string | undefined) =>
    section?.replaceAll(
      'a React component',
      `${/^A/.test(framework) ? 'an' : 'a'} ${framework.split(' ')[0]} component`,
    );

  describe(`each mistake is explained (${framework}${isPlain ? ', not rewritten' : ''})`, () => {
    const { error, warn } = console;
    // The frameworks' own reports of what these components do are no news here.
    beforeAll(() => void (console.error = console.warn = () => undefined));
    afterAll(() => void Object.assign(console, { error, warn }));

    it.each(made.map((mistake) => [mistake.title, mistake] as const))(
      '%s',
      async (title, { code, make, rewritten, leaves = [], facts }) => {
        const failure: unknown = await make().then(
          () => undefined,
          (thrown: unknown) => thrown,
        );
        expect(failure).toBeInstanceOf(SimulacraError);
        const { message } = failure as SimulacraError;
        // Which file exports a value is known of files that are rewritten.
        if (facts && !isPlain) expect(JSON.parse(JSON.stringify(failure))).toMatchObject(facts);
        const now = section(title, code, settled(message));
        const same = words(now) === words(like(others.get(title)));
        if (isPlain && rewritten) {
          expect(message.split('  ')[0]).toBe(/SIM-[A-Z-]+/.exec(own.get(title) ?? '')?.[0]);
          return void (await takeDown());
        }
        if (!same) told.push(now);
        if (!update && !same) {
          if (pinned.wordsOnly || isPlain)
            expect(words(now)).toBe(words(own.get(title) ?? like(others.get(title))));
          else expect(now.trimEnd()).toBe(own.get(title)?.trimEnd());
        }
        // What the mistake leaves for the end of the test, and nothing else.
        const left = await takeDown().then(
          () => '',
          (complaint: Error) => complaint.message,
        );
        expect([...new Set(left.match(/SIM-[A-Z-]+/g))]).toEqual(leaves);
        expect(Math.max(...message.split('\n').map((line) => line.length))).toBeLessThanOrEqual(120);
      },
    );

    if (update)
      afterAll(() =>
        writeFileSync(place(pinned.file), `${text.slice(0, text.indexOf('## '))}${told.join('\n')}`),
      );
  });
}
