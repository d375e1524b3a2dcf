import { dragging, clicking, dialogOpened, aFile, mouseTo, pressing, unseen } from './shared.mjs';

export const boxes = {
  'unfold details': {
    differs: { simulated: 'its event "toggle" of details tells no states' },
    on: `<details id="more"><summary id="summary">More</summary>Queen</details>`,
    ...clicking('summary'),
  },
  'unfold details by the space bar': {
    differs: { simulated: 'its event "toggle" of details tells no states' },
    on: `<details id="more"><summary id="summary">More</summary>Queen</details>`,
    start: 'summary',
    ...pressing('Space'),
  },
  'close a dialog by Escape': {
    // It goes to the button or to the page, as the next frame is early or late.
    ignores: 'keyup',
    on: `<dialog id="dialog"><button id="save">Save</button></dialog>`,
    before: `document.getElementById('dialog').showModal()`,
    ...pressing('Escape'),
  },
  'close a dialog by its form': {
    differs: unseen,
    on: `<dialog id="dialog"><form id="form" method="dialog"><button id="save" value="yes">Save</button></form></dialog>`,
    before: `document.getElementById('dialog').showModal()`,
    ...clicking('save'),
  },
  'Tab within a dialog': {
    on: `<button id="behind">x</button><dialog id="dialog"><button id="save">Save</button><button id="other">Other</button></dialog>`,
    before: `document.getElementById('dialog').showModal()`,
    ...pressing('Tab'),
  },
  'show a popover': {
    on: `<button id="save" type="button" popovertarget="menu">Menu</button><div id="menu" popover>Hives</div>`,
    ...clicking('save'),
  },
  'hide a popover by Escape': {
    on: `<div id="menu" popover>Hives</div>`,
    before: `document.getElementById('menu').showPopover()`,
    ...pressing('Escape'),
  },
  'hide a popover by a press outside': {
    on: `<p id="text">Text</p><div id="menu" popover>Hives</div>`,
    before: `document.getElementById('menu').showPopover()`,
    ...clicking('text'),
  },
  'choose a file': {
    differs: dialogOpened,
    on: `<input id="photo" type="file">`,
    real: async (page) => {
      const [chooser] = await Promise.all([page.waitForFileChooser(), page.click('#photo')]);
      await chooser.accept(['package.json']);
    },
    ours: [['choose', 'photo', aFile]],
  },
  'choose a file by a button': {
    differs: dialogOpened,
    on: `<button id="save" type="button" onclick="photo.click()">Photo</button><input id="photo" type="file" hidden>`,
    real: async (page) => {
      const [chooser] = await Promise.all([page.waitForFileChooser(), page.click('#save')]);
      await chooser.accept(['package.json']);
    },
    ours: [['choose', 'save', aFile]],
  },
  'drop a file': {
    differs: { ours: 'a script cannot hide the files while they are dragged' },
    on: `<div id="zone" ondragover="event.preventDefault()" ondrop="event.preventDefault()">Drop</div>`,
    real: async (page, driver) => {
      const box = await (await page.$('#zone')).boundingBox();
      const place = { x: box.x + 5, y: box.y + 5 };
      const data = { items: [], files: [process.cwd() + '/package.json'], dragOperationsMask: 1 };
      for (const type of ['dragEnter', 'dragOver', 'drop'])
        await driver.send('Input.dispatchDragEvent', { type, ...place, data });
    },
    ours: [['drop', 'zone', aFile]],
  },
  'drag and drop': {
    on: `<div id="hive" draggable="true">Hive</div><div id="zone" style="margin-top: 30px" ondragover="event.preventDefault()" ondrop="event.preventDefault()">Drop</div>`,
    ...dragging('hive', 'zone', true),
  },
  'drag to where nothing drops': {
    on: `<div id="hive" draggable="true">Hive</div><div id="zone" style="margin-top: 30px">Drop</div>`,
    ...dragging('hive', 'zone', true),
  },
  'turn the wheel': {
    on: `<div id="list" style="height: 40px; overflow: auto"><p id="row" style="height: 400px">x</p></div>`,
    real: async (page) => {
      await mouseTo(page, 'list');
      await page.mouse.wheel({ deltaY: 50 });
      await new Promise((done) => setTimeout(done, 300));
    },
    ours: [['scroll', 'row', { down: 50 }]],
  },
  'turn the wheel where it is prevented': {
    on: `<div id="list" style="height: 40px; overflow: auto"><p id="row" style="height: 400px">x</p></div>`,
    before: `document.getElementById('list').addEventListener('wheel', (event) => event.preventDefault(), { passive: false })`,
    real: async (page) => {
      await mouseTo(page, 'list');
      await page.mouse.wheel({ deltaY: 50 });
      await new Promise((done) => setTimeout(done, 300));
    },
    ours: [['scroll', 'row', { down: 50 }]],
  },
  'drag a slider of one’s own': {
    on: `<div id="track" style="width: 300px; height: 20px"><div id="thumb" style="width: 20px; height: 20px"></div></div>`,
    real: async (page) => {
      await mouseTo(page, 'thumb');
      await page.mouse.down();
      const box = await (await page.$('#thumb')).boundingBox();
      await page.mouse.move(box.x + 12, box.y + 10);
      await page.mouse.move(box.x + 14, box.y + 10);
      await page.mouse.up();
    },
    ours: [['drag', 'thumb', { right: 4 }]],
  },
  'drag where it is prevented': {
    on: `<div id="hive" draggable="true" ondragstart="event.preventDefault()">Hive</div><div id="zone" style="margin-top: 30px">Drop</div>`,
    ...dragging('hive', 'zone'),
  },
  'press a popover button again': {
    on: `<button id="save" type="button" popovertarget="menu">Menu</button><div id="menu" popover style="inset: 100px auto auto 100px">Hives</div>`,
    real: async (page) => {
      await page.click('#save');
      await page.click('#save');
    },
    ours: [
      ['click', 'save'],
      ['click', 'save'],
    ],
  },
};
