import 'simulacra/jest';
import { useLayoutEffect, useRef } from 'react';
import { css, label, role, testId, text, type Locator } from 'simulacra';
import { isolate } from 'simulacra/react';
import { nameOf } from '../../src/page/names';
import { roleOf } from '../../src/page/roles';

const page = (html: string) => isolate(() => <div dangerouslySetInnerHTML={{ __html: html }} />);

describe('roles and names', () => {
  it.each([
    ['<button>Log <b>it</b></button>', 'button', 'Log it'],
    ['<button aria-label="Close">×</button>', 'button', 'Close'],
    ['<input type="submit">', 'button', 'Submit'],
    ['<input type="image" alt="Go">', 'button', 'Go'],
    ['<a href="/">Home</a>', 'link', 'Home'],
    ['<a>Home</a>', undefined, ''],
    ['<h4>Frames</h4>', 'heading', 'Frames'],
    ['<label>Varroa <input type="number"></label>', 'spinbutton', 'Varroa', 'input'],
    ['<label for="q">Find</label><input id="q" type="search">', 'searchbox', 'Find', 'input'],
    ['<input placeholder="Name">', 'textbox', 'Name'],
    ['<input list="all" aria-label="Hive"><datalist id="all"></datalist>', 'combobox', 'Hive', 'input'],
    ['<select aria-label="Yard"><option>N</option></select>', 'combobox', 'Yard'],
    ['<select multiple title="Yards"></select>', 'listbox', 'Yards'],
    ['<img alt="A hive">', 'img', 'A hive'],
    ['<img alt="">', 'presentation', ''],
    ['<section aria-label="Scale"></section>', 'region', 'Scale'],
    ['<section></section>', undefined, ''],
    ['<p id="t">Task <i>list</i></p><ul aria-labelledby="t"></ul>', 'list', 'Task list', 'ul'],
    ['<fieldset><legend>Queen</legend></fieldset>', 'group', 'Queen'],
    ['<table><caption>Weights</caption></table>', 'table', 'Weights'],
    ['<table><tr><td>a</td><td>b</td></tr></table>', 'row', 'a b', 'tr'],
    ['<table><tr><th scope="row">a</th></tr></table>', 'rowheader', 'a', 'th'],
    ['<header>top</header>', 'banner', ''],
    ['<article><header>top</header></article>', undefined, '', 'header'],
    [
      '<button><span hidden>not</span><span aria-hidden="true">!</span><img alt="Log"></button>',
      'button',
      'Log',
    ],
    ['<button style="color: red">Log</button>', 'button', 'Log'],
    ['<button>Log<noscript>not</noscript></button>', 'button', 'Log'],
    ['<button>a<span style="display: none">b</span></button>', 'button', 'a'],
    ['<div role="switch">Night</div>', 'switch', 'Night'],
    ['<svg><title>Comb</title></svg>', 'img', 'Comb'],
    ['<details><summary>More</summary></details>', 'button', 'More', 'summary'],
    ['<a href="/" title="To the yard"></a>', 'link', 'To the yard'],
  ])('%s', (html, expectedRole, name, selector = '*') => {
    const place = document.body.appendChild(document.createElement('div'));
    place.innerHTML = html;
    const element = place.querySelector(selector)!;
    expect([roleOf(element), nameOf(element)]).toEqual([expectedRole, name]);
    place.remove();
  });
});

describe('locators', () => {
  const html = `
    <form aria-label="Inspection">
      <h2>Log <em>an</em> inspection</h2><h3>Frames</h3>
      <label>Brood <select><option>1</option><option selected>2</option></select></label>
      <label>Queen seen <input type="checkbox" checked></label>
      <button aria-expanded="false">More</button><button disabled>Log</button>
      <p>31.2 <b>kg</b></p><p hidden>Hidden words</p>
      <div data-testid="weather">Frost</div>
      <div role="tab" aria-selected="true">Stores</div>
      <span>kg</span>
    </form><p>kg</p>`;

  it.each<[string, Locator, number]>([
    ['a role', role('button'), 2],
    ['a name', role('button', 'More'), 1],
    ['a part of a name', role('heading', /inspection/), 1],
    ['a level', role('heading', { level: 3 }), 1],
    ['what is expanded', role('button', { expanded: false }), 1],
    ['what is disabled', role('button', { disabled: true }), 1],
    ['what is checked', role('checkbox', 'Queen seen', { checked: true }), 1],
    ['what is selected', role('tab', 'Stores', { selected: true }), 1],
    ['a label', label('Brood'), 1],
    ['a part of a label', label(/queen/i), 1],
    ['the innermost text', text('kg'), 3],
    ['text over elements', text('31.2 kg'), 1],
    ['folded text', text('Log  an\ninspection'), 1],
    ['hidden text, not', text('Hidden words'), 0],
    ['hidden text, when asked', text('Hidden words', { hidden: true }), 1],
    ['a test id', testId('weather'), 1],
    ['a selector', css('option'), 2],
    ['inside of another', text('kg').inside(role('form')), 2],
    ['inside of what is not there', text('kg').inside(role('table')), 0],
  ])('finds %s', async (_, locator, times) => {
    expect(await page(html)).toShow(locator, { times });
  });

  it('sees what style sheets hide, as they are now', async () => {
    const sheet = document.head.appendChild(document.createElement('style'));
    sheet.textContent = '.folded { display: none } .faint { visibility: hidden } p { color: red }';
    const subject = await page(
      '<div class="folded"><button>A</button></div><button class="faint">B</button><button>C</button>',
    );
    const shown = () => subject.findAll(role('button')).map(({ textContent }) => textContent);
    expect(shown()).toEqual(['C']);
    const { cssRules } = sheet.sheet!;
    (cssRules[0] as CSSStyleRule).style.display = 'block';
    expect(shown()).toEqual(['A', 'C']);
    (cssRules[2] as CSSStyleRule).style.display = 'none';
    sheet.sheet!.deleteRule(1);
    sheet.sheet!.insertRule('.folded button { display: none }', 2);
    expect(shown()).toEqual(['B', 'C']);
    sheet.remove();
    expect(shown()).toEqual(['A', 'B', 'C']);
  });

  it('computes no style of a simulated page, which takes long where there are many rules', async () => {
    const subject = await page('<button>Log</button>'.repeat(50));
    const { getComputedStyle } = window;
    let asked = 0;
    window.getComputedStyle = (...args) => (asked++, getComputedStyle(...args));
    const sheet = document.head.appendChild(document.createElement('style'));
    sheet.textContent = Array.from({ length: 3000 }, (_, at) => `.c${at} { display: none }`).join('\n');
    expect(subject.findAll(role('button', 'Log'))).toHaveLength(50);
    expect(asked).toBe(0);
    sheet.remove();
    window.getComputedStyle = getComputedStyle;
  });
});

describe('the history of a page', () => {
  it('rebuilds every moment from what changed', async () => {
    const subject = await isolate(({ step = 0 }: { step?: number }) => (
      <ul title={`step ${step}`}>
        {step !== 1 && <li>first {step}</li>}
        <li key="second">second</li>
        {step > 1 && <li>third</li>}
      </ul>
    ));
    for (const step of [1, 2, 3]) await subject.update({ step });
    for (const words of ['first 0', 'first 2', 'first 3', 'third']) expect(subject).toHaveShown(text(words));
    expect(subject).toHaveShown(css('ul[title="step 1"]'));
    expect(subject).not.toHaveShown(text('first 1'));
    expect(subject.chronicle.of('rendered').map(({ detail }) => detail)).toEqual([
      'list of 2, …',
      'list of 1',
      'list of 3, …',
      'text "first 3"',
    ]);
  });
});

it('tells in the chronicle what a person perceives of a change', async () => {
  const changes: [string, (root: Element) => void][] = [
    ['img "Borage"', (root) => root.querySelector('img')!.setAttribute('alt', 'Borage')],
    [
      'checkbox "Marked" checked',
      (root) => root.querySelector('[type=checkbox]')!.setAttribute('checked', ''),
    ],
    [
      'searchbox "Find a hive" value "Clover"',
      (root) => root.querySelector('[type=search]')!.setAttribute('value', 'Clover'),
    ],
    ['button "Queen" pressed', (root) => root.querySelector('button')!.setAttribute('aria-pressed', 'true')],
    [
      'in another order, from text "Clover" on',
      (root) => root.querySelector('tbody')!.append(root.querySelector('tr')!),
    ],
    [
      'stub Card hive="h2"',
      (root) => root.querySelector('[data-part]')!.setAttribute('data-props', 'hive="h2"'),
    ],
    ['looks as before', (root) => root.firstElementChild!.setAttribute('class', 'wide')],
  ];
  for (const [told, change] of changes) {
    const Page = ({ turn }: { turn: number }) => {
      const place = useRef<HTMLDivElement>(null);
      useLayoutEffect(() => {
        if (turn === 0) return;
        change(place.current!);
      }, [turn]);
      return (
        <div ref={place} data-turn={turn}>
          <div dangerouslySetInnerHTML={markup} />
        </div>
      );
    };
    const page = await isolate(Page, { props: { turn: 0 } });
    await page.update({ turn: 1 });
    expect(
      page.chronicle
        .of('rendered')
        .map(({ detail }) => detail)
        .at(-1),
    ).toBe(told);
    await page.takeDown();
  }
});

const markup = {
  __html: `<img alt="Anemone"><label><input type="checkbox">Marked</label>
    <input type="search" aria-label="Find a hive"><button aria-pressed="false">Queen</button>
    <table><tbody><tr><td>Borage</td></tr><tr><td>Clover</td></tr></tbody></table>
    <sim-part data-part="Card" data-props='hive="h1"'></sim-part>`,
};

describe('texts', () => {
  it('lists what is visible, in page order', async () => {
    const Board = () => (
      <ul>
        <li>
          Anemone <b>31.2</b> kg<span hidden> light</span>
        </li>
        <li>Borage</li>
        <li aria-label="Clover">
          <img alt="" />
        </li>
        <li style={{ display: 'none' }}>Heather</li>
      </ul>
    );
    const board = await isolate(Board);
    expect(board.texts(role('listitem'))).toEqual(['Anemone 31.2 kg', 'Borage', 'Clover']);
    expect(board.texts(role('row'))).toEqual([]);
    await board.takeDown();
    expect(() => board.texts(role('row'))).toThrow(/SIM-SUBJECT-GONE/);
  });
});

describe('the states of a locator', () => {
  it('know the focus and how rows are sorted', async () => {
    const Table = () => (
      <table>
        <thead>
          <tr>
            <th aria-sort="ascending">Hive</th>
            <th {...{ 'aria-sort': 'upwards' as 'other' }}>Weight</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>
              <button>Open</button>
            </td>
          </tr>
        </tbody>
      </table>
    );
    const table = await isolate(Table);
    expect(table.texts(role('columnheader', { sort: 'ascending' }))).toEqual(['Hive']);
    expect(table.texts(role('columnheader', { sort: 'none' }))).toEqual(['Weight']);
    expect(table.has(role('button', 'Open', { focused: true }))).toBe(false);
    await table.press('Tab');
    expect(table.has(role('button', 'Open', { focused: true }))).toBe(true);
  });
});
