// What a person does at a page, once with a real mouse and keyboard (`real`), once by our gestures (`ours`).
// Each sequence begins on a page of its own.

export const at = (id) => `#${id}`;
export const mouseTo = async (page, id) => {
  const box = await (await page.$(at(id))).boundingBox();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
};
export const nudge = async (page, id) => {
  const box = await (await page.$(at(id))).boundingBox();
  await page.mouse.move(box.x + box.width / 2 + 8, box.y + box.height / 2 + 8);
};
export const keys = async (page, chord) => {
  const parts = chord.split('+');
  for (const key of parts) await page.keyboard.down(key);
  for (const key of parts.reverse()) await page.keyboard.up(key);
};

/** A file, as a person's own machine has it. */
export const aFile = { file: 'package.json' };

export const buttons = `<button id="save" type="button">Save</button> <button id="other" type="button">Other</button>
  <button id="off" disabled><b id="inside">Off</b></button>`;
export const field = `<label id="label" for="note">Note</label> <input id="note" value="two frames full">`;
export const form = (inside) => `<form id="form">${inside}</form>`;

/** A click, in both. */
export const clicking = (id) => ({
  real: (page) => page.click(at(id)),
  ours: [['click', id]],
});
/** A key or a chord on what has the focus, in both. */
export const pressing = (chord, ...more) => ({
  real: async (page) => {
    for (const one of [chord, ...more]) await keys(page, one);
  },
  ours: [chord, ...more].map((one) => ['press', one]),
});
export const inField = (chord, ...more) => ({
  on: field,
  start: 'note',
  caret: [10, 10],
  ...pressing(chord, ...more),
});

// Why a sequence differs, by where it does.
export const everywhere = (reason) => ({ ours: reason, simulated: reason });
export const unseen = {
  ours: 'the browser sees by itself what lies under its own pointer, which a script does not move',
  simulated: 'without a layout nobody knows what lies under the pointer when the page changes',
};
export const dialogOpened = {
  ours: 'the browser opens its own dialog as well, which the driver cancels',
};

/** A drag of one element onto another, in both. */
export const dragging = (from, to, isSlow = false) => ({
  real: async (page) => {
    await mouseTo(page, from);
    await page.mouse.down();
    await nudge(page, from);
    await mouseTo(page, to);
    if (isSlow) await nudge(page, to);
    await page.mouse.up();
  },
  ours: [['drag', from, to]],
});
