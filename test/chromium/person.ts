/** What a person does, with the browser's own mouse and keyboard. */
export const person = `import { useEffect, useRef } from 'react';
import 'simulacra/jest';
import { label, role } from 'simulacra';
import { isolate } from 'simulacra/react';

let heard = [];
const types = ['pointerdown', 'pointerenter', 'click', 'dblclick', 'auxclick', 'contextmenu', 'keydown', 'beforeinput', 'input', 'change', 'copy', 'cut', 'paste', 'wheel', 'touchstart', 'compositionend', 'pointerup'];
function Bench() {
  const ref = useRef(null);
  useEffect(() => {
    for (const type of types) ref.current.addEventListener(type, (event) => heard.push(event), true);
  }, []);
  return (
    <div ref={ref} style={{ padding: 20 }}>
      <style>{'button:hover { color: rgb(1, 2, 3) } .veil { position: absolute; inset: 0 0 auto; height: 60px }'}</style>
      <button>Light</button>
      <label>Notes <input /></label> <label>Copy <textarea /></label> <label>Photo <input type="file" /></label>
      <a href="https://elsewhere.example/">Help</a>
      <div role="region" aria-label="Frames" style={{ height: 40, overflow: 'auto' }}><p style={{ height: 400 }}>Brood</p></div>
      <div style={{ position: 'relative' }}><button>Under</button><div className="veil" role="status">In flight</div></div>
      <div style={{ position: 'fixed', left: -900 }}><button>Away</button></div>
    </div>
  );
}
const light = role('button', 'Light');
const color = (bench) => getComputedStyle(bench.find(light)).color;
const told = () => heard.map(({ type }) => type);
// A composition is ended by the browser for the person.
const untrusted = () => heard.filter(({ isTrusted, type }) => !isTrusted && type !== 'compositionend');
let bench;
beforeEach(async () => {
  heard = [];
  bench = await isolate(Bench);
});
afterEach(() => expect(untrusted().map(({ type }) => type)).toEqual([]));

it('has the pointer nowhere to begin with', () => expect([told(), color(bench)]).toEqual([[], 'rgb(0, 0, 0)']));
it('hovers and leaves', async () => {
  await bench.hover(light);
  expect(color(bench)).toBe('rgb(1, 2, 3)');
  await bench.leave();
  expect(color(bench)).toBe('rgb(0, 0, 0)');
});
it('clicks', async () => {
  await bench.click(light, { times: 2 });
  await bench.click(light, { pointer: 'touch' });
  await bench.click(light, { button: 'secondary' });
  expect(told().filter((type) => /click|menu|touch/.test(type))).toEqual(['click', 'click', 'dblclick', 'touchstart', 'click', 'contextmenu', 'auxclick']);
});
it('has the pointer nowhere again', () => expect([told(), color(bench)]).toEqual([[], 'rgb(0, 0, 0)']));
it('stays on the page of a link', async () => {
  await bench.click(role('link'), { holding: 'Control' });
  await bench.click(role('link'), { button: 'auxiliary' });
  expect(told()).toContain('auxclick');
});
it('writes, undoes, copies, cuts and pastes', async () => {
  const notes = bench.find(label('Notes'));
  await bench.type(label('Notes'), 'Fé ☃');
  expect(heard.filter(({ type }) => type === 'keydown').map(({ key }) => key)).toEqual(['F', 'é', ' ']);
  await bench.press('Control+z');
  expect(notes.value).toBe('');
  await bench.press('Control+Shift+z');
  expect(notes.value).toBe('Fé ☃');
  expect(await bench.copy(label('Notes'))).toBe('Fé ☃');
  await bench.paste(label('Copy'));
  await bench.paste(label('Copy'), ' twice');
  expect(bench.find(label('Copy')).value).toBe('Fé ☃ twice');
  expect(await bench.cut(label('Copy'))).toBe('Fé ☃ twice');
  await bench.press('Meta+a', label('Notes'));
  await bench.press('Backspace');
  // Where nothing is selected, the clipboard stays as it was.
  await bench.press('Control+c');
  await bench.paste(label('Copy'));
  expect([notes.value, bench.find(label('Copy')).value]).toEqual(['', 'Fé ☃ twice']);
  await bench.clear(label('Copy'));
  await bench.compose(label('Notes'), 'e', 'é');
  expect([notes.value, bench.find(label('Copy')).value]).toEqual(['é', '']);
});
it('pastes a file', async () => {
  await bench.paste(label('Notes'), new File(['brood'], 'frame.png', { type: 'image/png' }));
  const [pasted] = heard.filter(({ type }) => type === 'paste');
  expect(pasted.clipboardData.files[0].name).toBe('frame.png');
  heard = [];
});
it('goes from field to field', async () => {
  await bench.press('Tab');
  expect(document.activeElement.textContent).toBe('Light');
  await bench.press('Tab');
  expect(document.activeElement).toBe(bench.find(label('Notes')));
});
it('chooses a file', async () => {
  await bench.choose(label('Photo'), new File(['brood'], 'frame.png', { type: 'image/png', lastModified: 1000 }));
  const [file] = bench.find(label('Photo')).files;
  expect([file.name, file.type, file.lastModified, await file.text()]).toEqual(['frame.png', 'image/png', 1000, 'brood']);
  expect(told()).toContain('change');
});
it('scrolls', async () => {
  await bench.scroll(role('region'), { down: 60 });
  expect(bench.find(role('region')).scrollTop).toBe(60);
});
it('drags', async () => {
  await bench.drag(light, { right: 40 });
  expect(told().filter((type) => /down|up|click/.test(type))).toEqual(['pointerdown', 'pointerup', 'click']);
});
it.each([['Under', /Nobody can click button "Under": <div class="veil"> lies over it/], ['Away', /Nobody can click button "Away": it is outside of what the window shows/]])('cannot click %s', async (name, message) => {
  const failure = await bench.click(role('button', name)).catch((problem) => problem);
  expect([failure.code, failure.message.replace(/\\s+/g, ' ')]).toEqual(['SIM-ACT-HIDDEN', expect.stringMatching(message)]);
});
`;
