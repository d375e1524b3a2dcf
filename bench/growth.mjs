// What grows with its input, each with a bound that fails: nothing may grow faster than what it is given.
import './page.mjs';
import { isolate } from 'simulacra/react';
import { label, role, spy, takeDown, text } from 'simulacra';
import { matchers } from 'simulacra/jest';
import { createElement as h, useState, useEffect } from 'react';
import { wire } from './growing-wire.mjs';

const rowsOf = (n, from = 0) =>
  Array.from(
    { length: n },
    (_, at) =>
      `<tr><td>Hive ${from + at}</td><td>${at} kg</td><td>calm</td><td><button>Open hive ${from + at}</button></td></tr>`,
  ).join('');
const Table = ({ rows }) =>
  h('table', null, h('tbody', { dangerouslySetInnerHTML: { __html: rowsOf(rows) } }));

async function took(work) {
  const start = performance.now();
  await work();
  return performance.now() - start;
}
const failing = (work) => {
  try {
    work();
  } catch (error) {
    return error;
  }
  throw new Error('nothing failed');
};
const found = (verdict) => {
  if (!verdict.pass) throw new Error(verdict.message());
};

/** A component that is updated from outside, many times. */
function Counter({ nodes }) {
  const [count, setCount] = useState(0);
  Counter.set = setCount;
  return h(
    'section',
    null,
    h('p', { role: 'status' }, `Count ${count}`),
    Array.from({ length: nodes }, (_, n) => h('p', { key: n }, `Line ${n}`)),
  );
}

async function counted(nodes, updates) {
  const subject = await isolate(Counter, { props: { nodes } });
  for (let n = 1; n <= updates; n++) {
    Counter.set(n);
    await subject.atRest();
  }
  return subject;
}

const heap = () => {
  globalThis.gc?.();
  return process.memoryUsage().heapUsed / 1e6;
};

const Field = () => {
  const [note, setNote] = useState('');
  return h('input', { 'aria-label': 'Note', value: note, onChange: (e) => setNote(e.target.value) });
};

/** Each row: what it is, how much of it, the most it may take in milliseconds, and the work. */
const rows = [
  ...[
    [1000, 400],
    [3000, 500],
    [10_000, 2000],
  ].map(([n, most]) => [
    'a find by role that fails',
    `${n} rows`,
    most,
    async () => {
      const subject = await isolate(Table, { props: { rows: n } });
      return took(() => failing(() => subject.find(role('button', 'Open hive nine'))));
    },
  ]),
  ...[
    [3000, 750],
    [10_000, 2000],
  ].map(([n, most]) => [
    'a find by text that fails',
    `${n} rows`,
    most,
    async () => {
      const subject = await isolate(Table, { props: { rows: n } });
      return took(() => failing(() => subject.find(text('Hive nine'))));
    },
  ]),
  [
    'a find by text that succeeds',
    '3000 rows',
    150,
    async () => {
      const subject = await isolate(Table, { props: { rows: 3000 } });
      return took(() => subject.find(text('Hive 1500')));
    },
  ],
  ...[
    [100, 500],
    [300, 1000],
  ].map(([updates, most]) => [
    'toHaveShown over 1,000 nodes',
    `${updates} updates`,
    most,
    async () => {
      const subject = await counted(1000, updates);
      const before = heap();
      const time = await took(() => {
        found(matchers.toHaveShown(subject, role('status', 'Count 3')));
        if (matchers.toHaveShown(subject, role('alert')).pass) throw new Error('no alert was shown');
      });
      const more = heap() - before;
      if (more > 100) throw new Error(`${more.toFixed(0)} MB are kept`);
      return time;
    },
  ]),
  [
    'toHaveShown after each of 80 updates, 300 nodes',
    '80 updates',
    2000,
    async () => {
      const subject = await isolate(Counter, { props: { nodes: 300 } });
      let time = 0;
      for (let n = 1; n <= 80; n++) {
        Counter.set(n);
        await subject.atRest();
        time += await took(() => found(matchers.toHaveShown(subject, role('status', 'Count 0'))));
      }
      return time;
    },
  ],
  ...wire,
  [
    'requests that no route answers',
    '1,000',
    150,
    async () => {
      const Asker = ({ times }) => {
        useEffect(() => {
          for (let n = 0; n < times; n++) void fetch(`/api/hives/${n}`).catch(() => undefined);
        }, [times]);
        return null;
      };
      const asked = (times) =>
        took(async () => {
          await isolate(Asker, { props: { times }, network: { 'GET /api/yards': [] } });
          await takeDown().catch(() => undefined);
        });
      // Node loads its Fetch classes for the first request.
      await asked(500);
      return asked(1000);
    },
  ],
  [
    'a failure after many calls',
    '1,000,000 lines',
    2000,
    async () => {
      const subject = await isolate(Field);
      const call = spy();
      for (let n = 0; n < 1e6; n++) call(n);
      return took(() => {
        const { message } = failing(() => subject.find(role('alert')));
        if (message.split('\n').length > 80) throw new Error('the message is too long');
      });
    },
  ],
  [
    'DOM changes in one turn',
    '150,000',
    3000,
    async () => {
      const Busy = () => {
        const [, again] = useState(0);
        useEffect(() => {
          const host = document.getElementById('busy');
          for (let n = 0; n < 150_000; n++) host.setAttribute('data-n', n);
          again(1);
        }, []);
        return h('p', { id: 'busy' }, 'busy');
      };
      return took(async () => {
        const subject = await isolate(Busy);
        found(matchers.toHaveShown(subject, text('busy')));
      });
    },
  ],
  [
    'characters typed',
    '10,000',
    60_000,
    async () => {
      const subject = await isolate(Field);
      const words = 'calm bees '.repeat(1000);
      const time = await took(() => subject.type(label('Note'), words));
      if (subject.find(label('Note')).value !== words) throw new Error('something was lost');
      return time;
    },
  ],
  [
    'a function of nothing but blanks, isolated',
    '10,000 blanks',
    50,
    () => {
      // Looked at for whether it leads to a module.
      const blank = new Function(`return () =>${' '.repeat(10_000)}null`)();
      return took(() => isolate(blank));
    },
  ],
  [
    'elements nested in each other',
    '2,000',
    2000,
    async () => {
      const Deep = () => {
        let inside = h('button', null, 'Open');
        for (let n = 0; n < 2000; n++) inside = h('div', null, inside);
        return inside;
      };
      const subject = await isolate(Deep);
      return took(() => {
        subject.find(role('button', 'Open'));
        failing(() => subject.find(role('button', 'Shut')));
        found(matchers.toHaveShown(subject, text('Open')));
        String(subject.chronicle);
        subject.outline();
      });
    },
  ],
];

/** @returns the lines of the table, and whether all bounds were kept */
export async function growing() {
  const lines = [];
  let kept = true;
  for (const [name, size, most, work] of rows) {
    let time;
    let why = '';
    try {
      time = await work();
    } catch (error) {
      why = String(error.message ?? error).split('\n')[0];
    }
    await takeDown().catch(() => undefined);
    const met = time !== undefined && time <= most;
    kept &&= met;
    lines.push(
      `| ${name} | ${size} | ${time === undefined ? why : `${time.toFixed(0)} ms`} | ${most} ms | ${met ? 'met' : 'missed'} |`,
    );
    console.error(lines.at(-1));
  }
  return { lines, kept };
}

if (process.argv[1]?.endsWith('growth.mjs')) {
  const { lines, kept } = await growing();
  console.log(lines.join('\n'));
  process.exit(kept ? 0 : 1);
}
