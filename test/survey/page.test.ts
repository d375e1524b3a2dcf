/** @jest-environment node */
import { readFileSync } from 'node:fs';
import { JSDOM } from 'jsdom';
import { makeProject } from './project';

const escaped = makeProject({
  'Board.tsx': `export const Board = () => { fetch('/api/<script>alert(1)</script>&"'); return <p/>; };`,
});
it('draws a picture, and a page with it, of whatever names there are', async () => {
  const { code, stderr } = await escaped.survey('Board', '--svg', 'board.svg', '--html', 'board.html');
  expect({ code, stderr }).toEqual({
    code: 0,
    stderr: expect.stringMatching(/wrote .*board\.svg[^]*wrote .*board\.html/) as string,
  });
  const svg = readFileSync(escaped.path('board.svg'), 'utf8');
  expect(svg).toMatch(/^<svg [^]*<\/svg>\n$/);
  const html = readFileSync(escaped.path('board.html'), 'utf8');
  expect(html.match(/<script/g)?.length).toBe(2);
  for (const text of [svg, html]) expect(text).not.toContain('<script>alert');
});

const busy = makeProject({
  'Board.tsx': `import { Feed } from './Feed'; export const Board = () => <Feed/>;`,
  'Feed.tsx': `export const Feed = () => { ${Array.from({ length: 30 }, (_, index) => `fetch('/api/${index}');`).join(' ')} return <p/>; };`,
});
it('says on the page what goes with a cut, by a few names and how many more', async () => {
  await busy.survey('Board', '--html', 'board.html');
  const { window } = new JSDOM(readFileSync(busy.path('board.html'), 'utf8'), {
    runScripts: 'dangerously',
    beforeParse: ({ Element }) => (Element.prototype.scrollIntoView = () => undefined),
  });
  expect(window.document.querySelector('aside')?.textContent).toContain(
    'without GET /api/0, GET /api/1, GET /api/2, GET /api/3, GET /api/4, GET /api/5, GET /api/6 and 23 more',
  );
});
