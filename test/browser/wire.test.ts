/** @jest-environment node */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runScript } from '../script';

interface Behaviour {
  readonly name: string;
  /** Seen in Chromium, with its own classes and a server on this machine. */
  readonly real: unknown;
  /** Seen in Chromium with our network. */
  readonly ours: unknown;
  /** Seen in a simulated page with our network. */
  readonly simulated: unknown;
}

/** What differs from Chromium and its network, and why. */
const reasons: readonly [pattern: RegExp, why: string][] = [
  [
    /^XMLHttpRequest: \/(json|bom) as "json"$/,
    'Chromium makes the value of `response` anew each time it is read. The standard has it made once.',
  ],
  [
    /^XMLHttpRequest: \/(text|latin1) as "blob"$/,
    'Chromium leaves the parameters of the MIME type out of the type of a Blob. The standard keeps them.',
  ],
  [
    /^XMLHttpRequest: what is heard of a body that breaks off$/,
    'Chromium tells of the headers of plain text only when it has enough of the text to tell what it is.',
  ],
  [
    /^fetch: (text|blob|arrayBuffer)\(\) of \/empty$/,
    'Chromium gives a response of status 204 a body, which can be read once. In the standard it has none.',
  ],
];
const whyDiffers = (name: string) => reasons.find(([pattern]) => pattern.test(name))?.[1];

describe('what a component observes of its network', () => {
  let behaviours: readonly Behaviour[];
  beforeAll(async () => {
    behaviours = await runScript<Behaviour[]>('browser/wire.mjs');
  }, 180_000);

  it('is observed at all', () => {
    expect(behaviours.length).toBeGreaterThan(450);
    expect(new Set(behaviours.map(({ real }) => JSON.stringify(real))).size).toBeGreaterThan(200);
    const real = (name: string) => behaviours.find((one) => one.name === name)?.real;
    expect(real('XMLHttpRequest: method get')).toEqual([200, 'GET', '']);
    expect(real('WebSocket: is closed by the server with 1000 bye')).toContainEqual([
      'close',
      1000,
      'bye',
      true,
      3,
    ]);
    expect(behaviours.filter(({ real: seen }) => String(seen).startsWith('threw'))).toEqual([]);
  });

  it.each(['ours', 'simulated'] as const)(
    'is the same as of a server, but for what is listed: %s',
    (where) => {
      const unlike = behaviours.filter((one) => JSON.stringify(one.real) !== JSON.stringify(one[where]));
      expect(unlike.filter(({ name }) => !whyDiffers(name))).toEqual([]);
    },
  );

  it('differs where it says that it does', () => {
    const same = behaviours.filter(
      (one) => whyDiffers(one.name) && JSON.stringify(one.real) === JSON.stringify(one.ours),
    );
    expect(same).toEqual([]);
    const unused = reasons.filter(([pattern]) => !behaviours.some(({ name }) => pattern.test(name)));
    expect(unused).toEqual([]);
  });

  it('in the docs is what was observed', () => {
    const file = join(__dirname, '../../docs/wire.md');
    const made = printBehaviours(behaviours);
    if (process.env['UPDATE']) writeFileSync(file, made);
    expect(readFileSync(file, 'utf8')).toBe(made);
  });
});

function printBehaviours(behaviours: readonly Behaviour[]): string {
  const carriers = new Map<string, string[]>();
  for (const { name } of behaviours) {
    const [, carrier, what] = /^(.*?): (.*)$/s.exec(name)!;
    carriers.set(carrier!, [...(carriers.get(carrier!) ?? []), what!]);
  }
  const counts = [...carriers].map(([carrier, names]) => `| ${carrier} | ${names.length} |`);
  const cell = (text: string) => text.replace(/\|/g, '\\|');
  const differing = behaviours.flatMap(({ name }) => {
    const why = whyDiffers(name);
    return why ? [`| ${cell(name)} | ${why} |`] : [];
  });
  const lists = [...carriers].map(
    ([carrier, names]) =>
      `## ${carrier}\n\n${names.map((name) => `\`${name.replace(/`/g, '')}\``).join(' · ')}\n`,
  );
  return `# What a component observes of its network

A test runs the same ${behaviours.length} cases three times: in Chromium with its own classes against a server on
this machine, in Chromium with our network, and in a simulated page with our network. The cases were written from
the standards of Fetch, XMLHttpRequest, WebSockets, server-sent events and URL Pattern. The server gives the same
answers as the routes in the page. \`UPDATE=1\` writes this page anew.

| Carrier | Cases |
| --- | --- |
${counts.join('\n')}

${differing.length} cases differ from Chromium, the same in both kinds of page:

| Case | Why |
| --- | --- |
${differing.join('\n')}

A simulated page has no layout and loads no images, but it sends requests as a browser does.

${lists.join('\n')}`;
}
