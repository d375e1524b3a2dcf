import { dragging, buttons, clicking, everywhere, field, mouseTo, unseen } from './shared.mjs';

export const pointer = {
  'click a button': {
    on: buttons,
    ...clicking('save'),
  },
  'click twice': {
    on: buttons,
    real: (page) => page.click('#save', { count: 2 }),
    ours: [['click', 'save', { times: 2 }]],
  },
  'click with the secondary button': {
    on: buttons,
    real: (page) => page.click('#save', { button: 'right' }),
    ours: [['click', 'save', { button: 'secondary' }]],
  },
  'click with the auxiliary button': {
    differs: everywhere('on Linux this button pastes as well'),
    on: buttons,
    real: (page) => page.click('#save', { button: 'middle' }),
    ours: [['click', 'save', { button: 'auxiliary' }]],
  },
  'click holding keys': {
    on: buttons,
    real: async (page) => {
      await page.keyboard.down('Control');
      await page.keyboard.down('Shift');
      await page.click('#save');
      await page.keyboard.up('Shift');
      await page.keyboard.up('Control');
    },
    ours: [['click', 'save', { holding: 'Control+Shift' }]],
  },
  'hold a button down': {
    on: buttons,
    real: (page) => page.click('#save', { delay: 30 }),
    ours: [['click', 'save', { heldFor: 30 }]],
  },
  'touch a button': {
    on: buttons,
    real: (page) => page.tap('#save'),
    ours: [['click', 'save', { pointer: 'touch' }]],
  },
  hover: {
    on: buttons,
    real: (page) => mouseTo(page, 'save'),
    ours: [['hover', 'save']],
  },
  'move on to another': {
    on: buttons,
    real: async (page) => {
      await mouseTo(page, 'save');
      await mouseTo(page, 'other');
    },
    ours: [
      ['hover', 'save'],
      ['hover', 'other'],
    ],
  },
  'move off the element': {
    on: buttons,
    real: async (page) => {
      await mouseTo(page, 'save');
      await page.mouse.move(2, 2);
    },
    ours: [['hover', 'save'], ['leave']],
  },
  'move into what is nested': {
    on: `<div id="yard" style="padding: 20px"><div id="hive" style="padding: 20px"><i id="frame">frame</i></div></div>`,
    real: async (page) => {
      await mouseTo(page, 'frame');
      await page.mouse.move(2, 2);
    },
    ours: [['hover', 'frame'], ['leave']],
  },
  'click one, then the other': {
    on: buttons,
    real: async (page) => {
      await page.click('#save');
      await page.click('#other');
    },
    ours: [
      ['click', 'save'],
      ['click', 'other'],
    ],
  },
  'click inside of a disabled button': {
    on: buttons,
    ...clicking('inside'),
  },
  'press on one, release on another': {
    on: `<div id="row">${buttons}</div>`,
    ...dragging('save', 'other'),
  },
  'click a label': {
    on: field,
    ...clicking('label'),
  },
  'click the label of a checkbox': {
    on: `<label id="label"><input id="marked" type="checkbox"> <span id="words">Marked</span></label>`,
    ...clicking('words'),
  },
  'check by a click': {
    on: `<input id="marked" type="checkbox">`,
    ...clicking('marked'),
  },
  'check where the click is prevented': {
    on: `<input id="marked" type="checkbox" onclick="event.preventDefault()">`,
    ...clicking('marked'),
  },
  'choose a radio button': {
    on: `<input id="calm" type="radio" name="mood" checked><input id="angry" type="radio" name="mood">`,
    ...clicking('angry'),
  },
  'press where mousedown is prevented': {
    on: `<input id="note"><button id="save" type="button" onmousedown="event.preventDefault()">Save</button>`,
    start: 'note',
    ...clicking('save'),
  },
  'press where pointerdown is prevented': {
    on: `<button id="save" type="button">Save</button>`,
    before: `document.getElementById('save').addEventListener('pointerdown', (event) => event.preventDefault())`,
    ...clicking('save'),
  },
  'click what takes no focus': {
    on: `<input id="note"><p id="text">Text</p>`,
    start: 'note',
    ...clicking('text'),
  },
  'click a link': {
    on: `<a id="link" href="#hives">Hives</a>`,
    ...clicking('link'),
  },
  'remove what is pressed': {
    differs: unseen,
    on: `<div id="row"><button id="save" type="button" onmousedown="this.remove()">Save</button></div>`,
    ...clicking('save'),
  },
  'hold a finger down': {
    on: buttons,
    real: async (page) => {
      const box = await (await page.$('#save')).boundingBox();
      await page.touchscreen.touchStart(box.x + 5, box.y + 5);
      await new Promise((done) => setTimeout(done, 900));
      await page.touchscreen.touchEnd();
    },
    ours: [['click', 'save', { pointer: 'touch', heldFor: 900 }]],
  },
  'touch where the touch is prevented': {
    on: buttons,
    before: `document.getElementById('save').addEventListener('touchstart', (event) => event.preventDefault(), { passive: false })`,
    real: (page) => page.tap('#save'),
    ours: [['click', 'save', { pointer: 'touch' }]],
  },
  'hover over a disabled button': {
    on: buttons,
    real: (page) => mouseTo(page, 'off'),
    ours: [['hover', 'inside']],
  },
  'press what is only called disabled': {
    on: `<button id="save" type="button" aria-disabled="true">Save</button>`,
    ...clicking('save'),
  },
  'click twice on a text': {
    on: `<p id="text">two frames</p>`,
    real: (page) => page.click('#text', { count: 2 }),
    ours: [['click', 'text', { times: 2 }]],
  },
  'click three times in a field and type': {
    on: `<input id="note" value="two frames" style="width: 4em">`,
    real: async (page) => {
      await page.click('#note', { count: 3 });
      await page.keyboard.type('x');
    },
    ours: [
      ['click', 'note', { times: 3 }],
      ['press', 'x'],
    ],
  },
  'click the label of a button': {
    on: `<label id="label">Save it <button id="save" type="button">Save</button></label>`,
    real: (page) => page.click('#label', { offset: { x: 5, y: 5 } }),
    ours: [['click', 'label']],
  },
  'click twice in a field and type': {
    on: `<input id="note" value="frames" style="width: 4em">`,
    real: async (page) => {
      await page.click('#note', { count: 2 });
      await page.keyboard.type('x');
    },
    ours: [
      ['click', 'note', { times: 2 }],
      ['press', 'x'],
    ],
  },
};
