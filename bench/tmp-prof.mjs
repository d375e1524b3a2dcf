import './page.mjs';
import { isolate } from 'simulacra/react';
import { role, text } from 'simulacra';
import { createElement as h } from 'react';
const rowsOf = (n) => Array.from({ length: n }, (_, at) => `<tr><td>Hive ${at}</td><td>${at} kg</td><td>calm</td><td><button>Open hive ${at}</button></td></tr>`).join('');
const Table = ({ rows }) => h('table', null, h('tbody', { dangerouslySetInnerHTML: { __html: rowsOf(rows) } }));
const s = await isolate(Table, { props: { rows: 3000 } });
const by = process.argv[2] === 'text' ? text('Hive nine') : role('button','Open hive nine');
const start = performance.now();
try { s.find(by); } catch (e) { console.log(e.message.slice(0, 500)); }
console.log(performance.now() - start);
