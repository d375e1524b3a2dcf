import { createServer } from 'node:http';

/** What a real browser does otherwise than a simulated page, or cannot be asked for, by parts of the test's name. */
export const differing: Readonly<Record<string, string>> = {
  'two subjects at once › are answered each by its own routes, also after an await and by a timer':
    'a browser does not tell who started a chain of promises',
  'no request leaves the machine': 'a page has no server that could be reached',
  'virtual time › begins at a date, in a zone, and everything that tells the time agrees':
    'a browser keeps its time zone',
  'virtual time › is real again afterwards, and nothing of it runs on': 'a browser keeps its time zone',
  'virtual time › is shared by subjects that are up at once': 'a browser keeps its time zone',
  'what is left behind › fails the test: a watch over the position':
    "it is the browser's own, which tells nobody",
  'React … a person at the page › writes and undone':
    'React writes the text of a textarea anew, so the browser undoes one letter at a time',
  'the page › has a permission': "until the test sets one, the browser's own is told",
  'the page › is as it was after each test, also what the component wrote itself':
    'until the test sets a clipboard, the real one is asked, and a page without a person may not read it',
  'the page › gives an element a size, and brings it into view': 'SIM-PAGE-REAL: the layout decides',
  'the page › plays media without a sound': 'the real ones are played, and need a file',
  'the end of a test › leaves the heap as it was after hundreds of subjects':
    'a page cannot collect its garbage',
};

/** Why a test differs; undefined where it should not. */
export const reasonFor = (name: string): string | undefined =>
  Object.entries(differing).find(([key]) => key.split(' … ').every((part) => name.includes(part)))?.[1];

// As a whole: each of its tests would hold for want of a server.
const withoutServer = 'no request leaves the machine';
const cannotServe = () => expect(() => createServer()).toThrow('a page has no server');

type Work = (...given: never[]) => unknown;
type Begin = (name: string, work: Work, limit?: number) => void;
type Each = (rows: readonly unknown[]) => Begin;

/** From now on a test that differs has to fail, so that a reason that is stale is found. */
export function expectDiffering(): void {
  const { it, describe } = globalThis as unknown as {
    it: Begin & { failing: Begin };
    describe: Begin;
  };
  const above: string[] = [];
  const within: Begin = (name, work) =>
    describe(name, () => {
      above.push(name);
      if (name === withoutServer) it(`cannot be asked, since ${differing[name]}`, cannotServe);
      else work();
      above.pop();
    });
  const one: Begin = (name, work, limit) =>
    (reasonFor([...above, name].join(' › ')) ? it.failing : it)(name, work, limit);
  Object.assign(globalThis, {
    describe: Object.assign(within, { each: eachOf(within) }),
    it: Object.assign(one, { each: eachOf(one) }),
  });
}

const eachOf =
  (begin: Begin): Each =>
  (rows) =>
  (name, work, limit) => {
    for (const row of rows) {
      const values = Array.isArray(row) ? (row as never[]) : [row as never];
      const left = [...values];
      begin(
        name.replace(/%[sdpj]/g, () => String(left.shift())),
        () => work(...values),
        limit,
      );
    }
  };
