import { buttons, clicking, field, form, pressing } from './shared.mjs';

export const keys = {
  'submit by a button': {
    on: form('<input id="note" value="calm"><button id="save">Save</button>'),
    ...clicking('save'),
  },
  'submit what is not valid': {
    on: form('<input id="note" required><input id="more" required><button id="save">Save</button>'),
    ...clicking('save'),
  },
  'submit without validation': {
    on: form('<input id="note" required><button id="save" formnovalidate>Save</button>'),
    ...clicking('save'),
  },
  'reset a form': {
    on: form('<input id="note"><button id="save" type="reset">Clear</button>'),
    ...clicking('save'),
  },
  'submit by Enter': {
    on: form('<input id="note"><button id="save">Save</button>'),
    start: 'note',
    ...pressing('a', 'Enter'),
  },
  'submit by Enter with a disabled button': {
    on: form('<input id="note"><button id="save" disabled>Save</button>'),
    start: 'note',
    ...pressing('Enter'),
  },
  'submit by Enter without a button': { on: form('<input id="note">'), start: 'note', ...pressing('Enter') },
  'Enter in one of two fields': {
    on: form('<input id="note"><input id="other">'),
    start: 'note',
    ...pressing('Enter'),
  },
  'Enter on a checkbox': {
    on: form('<input id="marked" type="checkbox"><button id="save">Save</button>'),
    start: 'marked',
    ...pressing('Enter'),
  },
  'Enter on a link': { on: `<a id="link" href="#hives">Hives</a>`, start: 'link', ...pressing('Enter') },
  'Enter on a button': { on: buttons, start: 'save', ...pressing('Enter') },
  'the space bar on a button': { on: buttons, start: 'save', ...pressing('Space') },
  'the space bar on a button, prevented': {
    on: `<button id="save" type="button" onkeydown="event.preventDefault()">Save</button>`,
    start: 'save',
    ...pressing('Space'),
  },
  'the space bar on a checkbox': {
    on: `<input id="marked" type="checkbox">`,
    start: 'marked',
    ...pressing('Space'),
  },
  'an arrow on a radio button': {
    on: `<input id="calm" type="radio" name="mood" checked><input id="angry" type="radio" name="mood">`,
    start: 'calm',
    ...pressing('ArrowRight'),
  },
  'a key alone': { on: buttons, start: 'save', ...pressing('Shift', 'F2', 'Escape') },
  'a shortcut': { on: field, start: 'note', ...pressing('Control+k', 'Alt+n') },
  'Tab through a page': {
    on: `<input id="note"><input id="hidden" style="visibility: hidden"><fieldset disabled><input id="off"></fieldset>
      <div inert><input id="inert"></div><a id="plain">plain</a><a id="link" href="#x">Link</a>
      <details><summary id="summary">More</summary><input id="folded"></details>
      <input id="calm" type="radio" name="mood"><input id="angry" type="radio" name="mood" checked>
      <div id="box" contenteditable>x</div><div id="none" tabindex="-1">x</div><p id="stop" tabindex="0">x</p>`,
    start: 'note',
    ...pressing('Tab', 'Tab', 'Tab', 'Tab', 'Tab'),
  },
  'Tab back': { on: buttons, start: 'other', ...pressing('Shift+Tab') },
  'Tab by order': {
    on: `<button id="c">c</button><button id="b" tabindex="2">b</button><button id="a" tabindex="1">a</button>`,
    start: 'a',
    ...pressing('Tab', 'Tab'),
  },
  'Tab into a field and type': {
    on: `<button id="save">Save</button>${field}`,
    start: 'save',
    ...pressing('Tab', 'x', 'Tab'),
  },
  'Tab where it is prevented': {
    on: `<button id="save" onkeydown="event.preventDefault()">Save</button><button id="other">Other</button>`,
    start: 'save',
    ...pressing('Tab'),
  },
  'step a number': {
    on: `<input id="note" type="number" value="4" step="2" max="7">`,
    start: 'note',
    ...pressing('ArrowUp', 'ArrowUp', 'ArrowDown'),
  },
  'step a range': {
    on: `<input id="note" type="range" value="50">`,
    start: 'note',
    ...pressing('ArrowRight', 'ArrowDown', 'Home', 'PageUp'),
  },
  'step a select': {
    on: `<select id="yard"><option>North</option><option disabled>East</option><option>South</option></select>`,
    start: 'yard',
    ...pressing('ArrowDown', 'ArrowUp', 'End', 's'),
  },
  'empty a search field': {
    on: `<input id="note" type="search" value="two">`,
    start: 'note',
    ...pressing('Escape'),
  },
  'submit from outside of a form': {
    on: `<form id="form"><input id="note"></form><button id="save" form="form">Save</button>`,
    ...clicking('save'),
  },
  'Enter in what is not valid': {
    on: form('<input id="note" required><button id="save">Save</button>'),
    start: 'note',
    ...pressing('Enter'),
  },
  'Tab into radio buttons and back': {
    on: `<button id="save">Save</button><input id="calm" type="radio" name="mood"><input id="angry" type="radio" name="mood"><input id="note">`,
    start: 'save',
    ...pressing('Tab', 'Tab', 'Shift+Tab'),
  },
  'Tab from what only a press can focus': {
    on: `<button id="save">Save</button><p id="text" tabindex="-1">Text</p><button id="other">Other</button>`,
    start: 'text',
    ...pressing('Tab'),
  },
  'an arrow on a checkbox': {
    on: `<input id="marked" type="checkbox">`,
    start: 'marked',
    ...pressing('ArrowDown'),
  },
  'the space bar on a link': {
    on: `<a id="link" href="#hives">Hives</a>`,
    start: 'link',
    ...pressing('Space'),
  },
  'the space bar on what only looks like a button': {
    on: `<div id="save" role="button" tabindex="0">Save</div>`,
    start: 'save',
    ...pressing('Space', 'Enter'),
  },
  'the space bar where the keyup is prevented': {
    on: `<button id="save" type="button" onkeyup="event.preventDefault()">Save</button>`,
    start: 'save',
    ...pressing('Space'),
  },
  'a letter on a select': {
    on: `<select id="yard"><option>North</option><option>East</option><option>South</option></select>`,
    start: 'yard',
    ...pressing('s', 'Home'),
  },
};
