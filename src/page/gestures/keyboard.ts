import { refuse } from '../errors';
import { nearest } from '../../core/near';
import { isField } from '../describe';
import { moveFocus } from './click';
import { dispatch, tabStops, type KeyInit, type Send } from './dispatch';
import { commitChange, editText, selectAll } from './edit';

/** The named keys, with the code a browser gives them. @see https://www.w3.org/TR/uievents-key/ */
const named: Record<string, number> = {
  ...{ Backspace: 8, Tab: 9, Enter: 13, Shift: 16, Control: 17, Alt: 18, Escape: 27, PageUp: 33 },
  ...{ PageDown: 34, End: 35, Home: 36, ArrowLeft: 37, ArrowUp: 38, ArrowRight: 39, ArrowDown: 40 },
  ...{ Insert: 45, Delete: 46, Meta: 91, F1: 112, F2: 113, F3: 114, F4: 115, F5: 116, F6: 117 },
  ...{ F7: 118, F8: 119, F9: 120, F10: 121, F11: 122, F12: 123, Space: 32 },
};
// Other common names for these keys.
const otherNames: Record<string, string> = {
  ...{ return: 'Enter', esc: 'Escape', ctrl: 'Control', cmd: 'Meta', command: 'Meta', option: 'Alt' },
  ...{ del: 'Delete', left: 'ArrowLeft', right: 'ArrowRight', up: 'ArrowUp', down: 'ArrowDown' },
};

const modifiers = { Shift: 'shiftKey', Control: 'ctrlKey', Alt: 'altKey', Meta: 'metaKey' } as const;
const isModifier = (key: string): key is keyof typeof modifiers => key in modifiers;

/** Presses a key, with modifiers before it: `Enter`, `a`, `Shift+Tab`, `Control+k`. @throws SIM-ACT-KEY */
export async function press(target: Element, keys: string, send: Send): Promise<void> {
  const parts = !isCharacter(keys) ? keys.split('+').map((part) => part || '+') : [keys];
  const held = parts.slice(0, -1);
  const key = parts.at(-1)!;
  const unknown =
    parts.find((part) => !isCharacter(part) && !(part in named)) ?? held.find((part) => !isModifier(part));
  if (unknown !== undefined) {
    const mend = (part: string) =>
      isCharacter(part) || part in named
        ? part
        : (otherNames[part.toLowerCase()] ?? nearest(part, Object.keys(named)) ?? part);
    const meant = parts.map(mend).join('+');
    refuse('SIM-ACT-KEY', { keys, key: unknown, nearest: meant === keys ? undefined : meant });
  }
  const down: Record<string, boolean> = {};
  for (const modifier of held) {
    down[modifiers[modifier as keyof typeof modifiers]] = true;
    await send(() => void dispatch(target, 'keydown', { ...initOf(modifier), ...down }));
  }
  await strike(target, { ...initOf(key), ...down }, send);
  for (const modifier of held.reverse()) {
    down[modifiers[modifier as keyof typeof modifiers]] = false;
    await send(() => void dispatch(active(target), 'keyup', { ...initOf(modifier), ...down }));
  }
}

function initOf(name: string): KeyInit {
  const key = name === 'Space' ? ' ' : name;
  const code =
    key === ' '
      ? 'Space'
      : /^[a-z]$/i.test(key)
        ? `Key${key.toUpperCase()}`
        : /^\d$/.test(key)
          ? `Digit${key}`
          : isModifier(key)
            ? `${key}Left`
            : key;
  return { key, code, keyCode: named[name] ?? (key.length === 1 ? key.toUpperCase().charCodeAt(0) : 0) };
}

// Splits text into what a person sees as one character: an emoji, or a letter with a combining accent.
const isCharacter = (key: string): boolean => !(key in named) && [...characters().segment(key)].length === 1;
let segmenter: Intl.Segmenter | undefined;
// Created on first use, because it takes longer than loading this file.
const characters = () => (segmenter ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' }));

const active = (element: Element): Element => element.ownerDocument.activeElement ?? element;

/** One key on the element that has the focus: its events, and what the browser does by itself. */
export async function strike(target: Element, init: KeyInit, send: Send): Promise<void> {
  const focused = active(target) === target;
  let allowed = true;
  await send(() => void (allowed = dispatch(target, 'keydown', init)));
  const command = init.ctrlKey || init.metaKey || init.altKey;
  const printing = isCharacter(init.key) || init.key === 'Enter';
  if (allowed && printing && !command) {
    const charCode = init.key === 'Enter' ? 13 : init.key.codePointAt(0)!;
    await send(() => void (allowed = dispatch(target, 'keypress', { ...init, keyCode: charCode, charCode })));
  }
  if (allowed) await doByItself(target, init, send);
  // The keyup goes to whatever has the focus by then.
  const after = focused || !target.isConnected ? active(target) : target;
  let released = true;
  await send(() => void (released = dispatch(after, 'keyup', init)));
  if (allowed && released && init.key === ' ' && isPressable(target)) await clickByKey(target, send);
}

const isPressable = (element: Element) =>
  /^(button|summary)$/.test(element.localName) ||
  /^(checkbox|radio|button|submit|reset)$/.test((element as HTMLInputElement).type ?? '');

const clickByKey = async (target: Element, send: Send): Promise<void> => {
  if (!target.matches(':disabled')) await send(() => void dispatch(target, 'click', { detail: 0 }));
};

async function doByItself(target: Element, init: KeyInit, send: Send): Promise<void> {
  const { key } = init;
  if (key === 'Tab') return moveByTab(target, init.shiftKey === true, send);
  if (key === 'Enter') return enter(target, send);
  if ((key === 'ArrowDown' || key === 'ArrowUp') && target.localName === 'select')
    return step(target as HTMLSelectElement, key, send);
  if (/^Arrow/.test(key) && (target as HTMLInputElement).type === 'radio')
    return stepRadio(target as HTMLInputElement, key, send);
  if (!isField(target) || target.localName === 'select') return;
  if ((init.ctrlKey || init.metaKey) && key === 'a') return selectAll(target);
  if (init.ctrlKey || init.metaKey || init.altKey || (target as HTMLInputElement).readOnly) return;
  if (key === 'Backspace') await editText(target, { inputType: 'deleteContentBackward', data: null }, send);
  else if (key === 'Delete') await editText(target, { inputType: 'deleteContentForward', data: null }, send);
  else if (isCharacter(key)) await editText(target, { inputType: 'insertText', data: key }, send);
}

async function moveByTab(target: Element, back: boolean, send: Send): Promise<void> {
  const stops = tabStops(target.ownerDocument);
  const at = stops.indexOf(target as HTMLElement);
  const next = at < 0 ? (back ? stops.at(-1) : stops[0]) : stops[at + (back ? -1 : 1)];
  await moveFocus(next ?? null, target.ownerDocument, send);
  if (next && isField(next) && next.localName === 'input') selectAll(next);
}

// @see https://html.spec.whatwg.org/#implicit-submission
async function enter(target: Element, send: Send): Promise<void> {
  if (target.localName === 'textarea')
    return editText(target, { inputType: 'insertLineBreak', data: null }, send);
  if (/^(button|summary)$/.test(target.localName) || target.matches('a[href]'))
    return clickByKey(target, send);
  const form = target.localName === 'input' ? (target as HTMLInputElement).form : null;
  if (!form) return;
  await commitChange(target, send);
  const button = form.querySelector<HTMLElement>(
    'button:not([type]),button[type=submit],input[type=submit],input[type=image]',
  );
  if (button) return clickByKey(button, send);
  const fields = form.querySelectorAll('input:not([type=checkbox]):not([type=radio]):not([type=hidden])');
  if (fields.length <= 1) await send(() => form.requestSubmit());
}

async function step(select: HTMLSelectElement, key: string, send: Send): Promise<void> {
  const next = select.selectedIndex + (key === 'ArrowDown' ? 1 : -1);
  if (next < 0 || next >= select.options.length) return;
  await send(() => {
    select.selectedIndex = next;
    dispatch(select, 'input');
    dispatch(select, 'change');
  });
}

async function stepRadio(radio: HTMLInputElement, key: string, send: Send): Promise<void> {
  const root = radio.form ?? radio.ownerDocument;
  const group = [...root.querySelectorAll<HTMLInputElement>('input[type=radio]')].filter(
    ({ name, disabled }) => name === radio.name && !disabled,
  );
  const move = key === 'ArrowDown' || key === 'ArrowRight' ? 1 : -1;
  const next = group[(group.indexOf(radio) + move + group.length) % group.length];
  if (!next || next === radio) return;
  await moveFocus(next, radio.ownerDocument, send);
  await send(() => void dispatch(next, 'click', { detail: 0 }));
}

/** Types a text into a field that has the focus, key by key. */
export async function typeKeys(field: Element, text: string, send: Send): Promise<void> {
  for (const { segment: character } of characters().segment(text)) {
    const target = active(field);
    await strike(
      target === field || field.contains(target) ? target : field,
      initOf(character === '\n' ? 'Enter' : character),
      send,
    );
  }
}

/** Empties a field that has the focus. */
export async function clearField(field: Element, send: Send): Promise<void> {
  await send(() => selectAll(field));
  await editText(field, { inputType: 'deleteContentBackward', data: null }, send);
}
