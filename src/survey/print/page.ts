import { surveyData } from './data';
import { drawSurvey, escape } from './picture';
import type { Survey } from '../index';

/** The picture on a page of its own: searched, enlarged, and followed from one thing to the next. */
export function printPage(survey: Survey): string {
  const { subject } = survey;
  const data = JSON.stringify(surveyData(survey)).replaceAll('<', '\\u003c');
  const title = `What ${subject.unit.name} leans on`;
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(title)}</title>
<style>
:root{color-scheme:light dark;--ground:#fbfaf7;--ink:#22201b;--soft:#6d675c;--line:#d8d1c3;--box:#fff;--hard:#b3261e;--link:#2f6fb0}
@media (prefers-color-scheme:dark){:root{--ground:#1b1a18;--ink:#efece5;--soft:#a9a294;--line:#48443b;--box:#26241f;--hard:#ff8a80;--link:#7db5ee}}
*{box-sizing:border-box}
body{margin:0;height:100dvh;display:grid;grid-template-columns:1fr minmax(260px,340px);grid-template-rows:auto 1fr;background:var(--ground);color:var(--ink);font:14px/1.45 system-ui,sans-serif}
header{grid-column:1/-1;display:flex;flex-wrap:wrap;gap:8px 14px;align-items:center;padding:10px 16px;border-bottom:1px solid var(--line)}
header label{display:flex;gap:6px;align-items:center}
input,button{font:inherit;color:inherit;background:var(--box);border:1px solid var(--line);border-radius:6px;padding:4px 8px}
input[type=search]{width:min(15rem,60vw)}
main{overflow:auto;min-width:0}
aside{overflow:auto;padding:14px 16px;border-left:1px solid var(--line)}
aside h2{margin:0 0 4px;font-size:16px;overflow-wrap:anywhere}
aside h3{margin:14px 0 4px;font-size:13px}
aside p{margin:2px 0;color:var(--soft);overflow-wrap:anywhere}
aside .hard{color:var(--hard)}
aside ul{margin:0;padding:0;list-style:none}
aside li button{border:0;background:none;padding:2px 0;color:var(--link);text-align:left;cursor:pointer;overflow-wrap:anywhere}
aside code{display:block;padding:5px 8px;margin:4px 0;background:var(--box);border:1px solid var(--line);border-radius:6px;overflow-wrap:anywhere;font-size:12.5px}
.node{cursor:pointer}
.node:focus-visible{outline:3px solid var(--link);outline-offset:2px}
@media (max-width:720px){body{grid-template-columns:1fr;grid-template-rows:auto 1fr 40dvh}aside{border-left:0;border-top:1px solid var(--line)}}
</style>
<header><label>Find <input type="search" placeholder="a name or a file"></label><span id="found" role="status"></span><button id="smaller" aria-label="Smaller">−</button><button id="larger" aria-label="Larger">+</button><button id="whole">Whole picture</button></header>
<main tabindex="0" aria-label="Picture">${drawSurvey(survey)}</main>
<aside aria-live="polite"></aside>
<script type="application/json" id="data">${data}</script>
<script>
${script}
</script>
</html>
`;
}

// The first node is the subject.
const script = `
const { component } = JSON.parse(document.getElementById('data').textContent);
const root = String(component.nodes[0].id);
const nodes = new Map(component.nodes.map((node) => [String(node.id), node]));
const drawn = new Map([...document.querySelectorAll('main .node[data-id]')].map((one) => [one.dataset.id, one]));
const ways = [...document.querySelectorAll('main .way')];
const svg = document.querySelector('main svg');
const main = document.querySelector('main');
const aside = document.querySelector('aside');
const whole = { width: Number(svg.getAttribute('width')), height: Number(svg.getAttribute('height')) };
let scale = 1;
function enlarge(next) {
  scale = Math.min(3, Math.max(0.1, next));
  svg.setAttribute('width', whole.width * scale);
  svg.setAttribute('height', whole.height * scale);
}
const fit = () => enlarge(Math.min(1, main.clientWidth / whole.width, main.clientHeight / whole.height));
const make = (name, text, className) => Object.assign(document.createElement(name), { textContent: text, className: className ?? '' });
function list(ids) {
  const names = [...new Set(ids.map((id) => nodes.get(String(id)).name))];
  return names.length > 8 ? names.slice(0, 7).join(', ') + ' and ' + (names.length - 7) + ' more' : names.join(', ');
}
function describe(cut) {
  return [cut.modules && cut.modules + ' of ' + cut.of + ' modules ' + cut.how, cut.gone.length && 'without ' + list(cut.gone), cut.still.length && 'still on load: ' + list(cut.still)].filter(Boolean).join('; ');
}
function chosen(id) {
  const node = nodes.get(id);
  const from = component.edges.filter((edge) => String(edge.to) === id && edge.how !== 'loaded' && drawn.has(String(edge.from)));
  const to = component.edges.filter((edge) => String(edge.from) === id && edge.how !== 'loaded' && drawn.has(String(edge.to)));
  aside.replaceChildren(make('h2', node.name), make('p', node.kind + (node.package ? ' of ' + node.package : '')), make('p', node.file ? node.file + ':' + node.line : ''));
  if (node.hard.length) aside.append(make('p', 'Hard in a test: ' + node.hard.join(', '), 'hard'));
  else if (node.leadsTo.length) aside.append(make('p', 'Leads to ' + node.leadsTo.join(', ')));
  const cut = component.cuts.find((one) => String(one.node) === id);
  if (cut) aside.append(make('h3', 'Cut it'), make('code', cut.line), make('p', describe(cut)));
  for (const [title, edges, end] of [['Used by', from, 'from'], ['Uses', to, 'to']]) {
    if (edges.length === 0) continue;
    const items = make('ul');
    for (const edge of edges) {
      const item = make('li');
      const button = make('button', nodes.get(String(edge[end])).name + '  (' + edge.how + ')');
      button.onclick = () => choose(String(edge[end]), true);
      item.append(button);
      items.append(item);
    }
    aside.append(make('h3', title), items);
  }
  if (id === root && component.cuts.length) {
    aside.append(make('h3', 'Where to cut'));
    for (const one of component.cuts) aside.append(make('code', one.line), make('p', describe(one)));
  }
}
function choose(id, isMoving) {
  for (const [other, element] of drawn) element.classList.toggle('is-chosen', other === id);
  for (const way of ways) way.classList.toggle('is-on', way.dataset.from === id || way.dataset.to === id);
  chosen(id);
  if (isMoving) drawn.get(id)?.scrollIntoView({ block: 'center', inline: 'center' });
}
for (const [id, element] of drawn) {
  element.setAttribute('tabindex', '0');
  element.setAttribute('role', 'button');
  element.setAttribute('aria-label', nodes.get(id).name + ', ' + nodes.get(id).kind);
  element.addEventListener('click', () => choose(id));
  element.addEventListener('keydown', (event) => { if (event.key === 'Enter' || event.key === ' ') { event.preventDefault(); choose(id); } });
}
document.querySelector('input').addEventListener('input', ({ target }) => {
  const words = target.value.trim().toLowerCase();
  const hits = [...drawn].filter(([id]) => { const { name, file, package: from } = nodes.get(id); return (name + ' ' + (file ?? '') + ' ' + (from ?? '')).toLowerCase().includes(words); });
  for (const [, element] of drawn) element.classList.toggle('is-faint', words !== '');
  for (const [, element] of hits) element.classList.remove('is-faint');
  document.getElementById('found').textContent = words ? hits.length + ' of ' + drawn.size : '';
  if (words && hits.length) hits[0][1].scrollIntoView({ block: 'center', inline: 'center' });
});
document.getElementById('smaller').onclick = () => enlarge(scale / 1.25);
document.getElementById('larger').onclick = () => enlarge(scale * 1.25);
document.getElementById('whole').onclick = fit;
if (Math.min(main.clientWidth / whole.width, main.clientHeight / whole.height) > 0.6) fit();
choose(root, true);
`;
