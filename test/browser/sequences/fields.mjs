import { inField, pressing } from './shared.mjs';

export const fields = {
  'type into a field': {
    on: `<input id="note">`,
    real: async (page) => {
      await page.click('#note');
      await page.keyboard.type('Ab');
    },
    ours: [['type', 'note', 'Ab']],
  },
  'type into what is read-only': {
    on: `<input id="note" readonly value="x">`,
    start: 'note',
    ...pressing('a', 'Backspace'),
  },
  'type more than fits': { on: `<input id="note" maxlength="2">`, start: 'note', ...pressing('a', 'b', 'c') },
  'type where the key is prevented': {
    on: `<input id="note" onkeydown="event.preventDefault()">`,
    start: 'note',
    ...pressing('a'),
  },
  'type where the input is prevented': {
    on: `<input id="note" onbeforeinput="event.preventDefault()">`,
    start: 'note',
    ...pressing('a'),
  },
  'type into a textarea': {
    on: `<textarea id="note"></textarea>`,
    start: 'note',
    ...pressing('a', 'Enter', 'b'),
  },
  'type into a number field': { on: `<input id="note" type="number">`, start: 'note', ...pressing('4', '2') },
  'type a letter into a number field': {
    on: `<input id="note" type="number" value="4">`,
    start: 'note',
    ...pressing('x'),
  },
  'move the caret and type': inField('ArrowLeft', 'ArrowLeft', 'x'),
  'Home and End': inField('Home', 'x', 'End', 'y'),
  'select by Shift and replace': inField('Shift+ArrowLeft', 'Shift+ArrowLeft', 'x'),
  'leave a selection by an arrow': inField('Shift+Home', 'ArrowRight', 'x'),
  'select to the end and delete': inField('Shift+End', 'Delete'),
  'a word to the left': inField('Control+ArrowLeft', 'x'),
  'a word to the right': inField('Control+ArrowRight', 'x'),
  'select a word': inField('Control+Shift+ArrowLeft', 'x'),
  'delete a word': inField('Control+Backspace'),
  'delete the word after': inField('Control+Delete'),
  Backspace: inField('Backspace'),
  'Backspace at the start': { ...inField('Backspace'), caret: [0, 0] },
  Delete: inField('Delete'),
  'Delete at the end': { ...inField('Delete'), caret: [15, 15] },
  'select all and type': inField('Control+a', 'x'),
  undo: inField('x', 'Control+z'),
  'undo and redo': inField('x', 'Backspace', 'Control+z', 'Control+Shift+Z'),
  copy: { ...inField('Control+c'), caret: [0, 3] },
  'copy nothing': inField('Control+c'),
  cut: { ...inField('Control+x'), caret: [0, 3] },
  'copy and paste': { ...inField('Control+c', 'End', 'Control+v'), caret: [0, 3] },
  'copy where it is prevented': {
    ...inField('Control+c'),
    on: `<input id="note" value="two" oncopy="event.preventDefault()">`,
    caret: [0, 3],
  },
  'paste where it is prevented': {
    ...inField('Control+c', 'Control+v'),
    on: `<input id="note" value="two" onpaste="event.preventDefault()">`,
    caret: [0, 3],
  },
  'compose a letter': {
    on: `<input id="note">`,
    start: 'note',
    real: async (page, driver) => {
      await driver.send('Input.imeSetComposition', { text: 'e', selectionStart: 1, selectionEnd: 1 });
      await driver.send('Input.imeSetComposition', { text: 'é', selectionStart: 1, selectionEnd: 1 });
      await driver.send('Input.insertText', { text: 'é' });
    },
    ours: [['compose', 'note', 'e', 'é']],
  },
  'put in an emoji': {
    on: `<input id="note">`,
    real: async (page, driver) => {
      await page.click('#note');
      await driver.send('Input.insertText', { text: '🐝' });
    },
    ours: [['type', 'note', '🐝']],
  },
  'edit what is editable': {
    on: `<div id="note" contenteditable>two</div>`,
    start: 'note',
    ...pressing('End', 'x', 'Backspace'),
  },
  'up and down in a textarea': {
    on: `<textarea id="note" rows="9">two\nframes\nfull</textarea>`,
    start: 'note',
    caret: [6, 6],
    ...pressing('ArrowUp', 'x', 'ArrowDown', 'ArrowDown', 'y'),
  },
  'to the start and the end of a textarea': {
    on: `<textarea id="note">two\nframes</textarea>`,
    start: 'note',
    caret: [6, 6],
    ...pressing('Control+Home', 'x', 'Control+End', 'y', 'Home', 'z'),
  },
  'up and down in a field': inField('ArrowUp', 'x', 'ArrowDown', 'y'),
  'paste lines into a field': {
    on: `<textarea id="log">two\nframes</textarea><input id="note">`,
    start: 'log',
    caret: [0, 10],
    ...pressing('Control+c', 'Tab', 'Control+v'),
  },
  'paste over what is selected': {
    ...inField('Control+c', 'Control+a', 'Control+v'),
    caret: [0, 3],
  },
  'paste more than fits': {
    on: `<input id="note" value="frames" maxlength="8">`,
    start: 'note',
    caret: [0, 6],
    ...pressing('Control+c', 'End', 'Control+v'),
  },
  'cut from what is read-only': {
    on: `<input id="note" value="frames" readonly>`,
    start: 'note',
    caret: [0, 6],
    ...pressing('Control+x'),
  },
  'undo letters in a row': { on: `<input id="note">`, start: 'note', ...pressing('a', 'b', 'Control+z') },
  'undo nothing': inField('Control+z'),
  'type capitals and signs': {
    on: `<input id="note">`,
    start: 'note',
    real: async (page) => {
      await page.keyboard.type('A');
      await page.keyboard.press('Minus');
      await page.keyboard.type('1? .');
    },
    ours: ['A', '-', '1', '?', 'Space', '.'].map((one) => ['press', one]),
  },
  'type into an e-mail field': {
    on: `<input id="note" type="email">`,
    start: 'note',
    real: (page) => page.keyboard.type('a@b'),
    ours: ['a', '@', 'b'].map((one) => ['press', one]),
  },
  'type a decimal number': {
    on: `<input id="note" type="number" step="any">`,
    start: 'note',
    real: async (page) => {
      await page.keyboard.press('Minus');
      for (const key of ['4', '.', '5', 'Backspace', 'Tab']) await page.keyboard.press(key);
    },
    ours: ['-', '4', '.', '5', 'Backspace', 'Tab'].map((one) => ['press', one]),
  },
  'select all of what is editable': {
    on: `<div id="note" contenteditable>two <b>frames</b></div>`,
    start: 'note',
    ...pressing('Control+a', 'x'),
  },
  'a new line in what is editable': {
    on: `<div id="note" contenteditable>two</div>`,
    start: 'note',
    ...pressing('End', 'Enter', 'x'),
  },
  'move the caret in what is editable': {
    on: `<div id="note" contenteditable>two <b>frames</b></div>`,
    start: 'note',
    ...pressing('End', 'ArrowLeft', 'x', 'Home', 'y'),
  },
  'the keydown moves the focus': {
    on: `<input id="note" onkeydown="document.getElementById('other').focus()"><input id="other">`,
    start: 'note',
    ...pressing('a'),
  },
};
