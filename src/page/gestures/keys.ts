import { nearest } from '../../core/near';
import { print } from '../../core/print';
import { refuse } from '../errors';
import { isLocator } from '../locators';
import { modifiers, type Modifier } from './person';
import { isOneCharacter } from './words';

/** The named keys, with the code a browser gives them. @see https://www.w3.org/TR/uievents-key/ */
const named: Record<string, number> = {
  ...{ Backspace: 8, Tab: 9, Enter: 13, Shift: 16, Control: 17, Alt: 18, Escape: 27, PageUp: 33 },
  ...{ PageDown: 34, End: 35, Home: 36, ArrowLeft: 37, ArrowUp: 38, ArrowRight: 39, ArrowDown: 40 },
  ...{ Insert: 45, Delete: 46, Meta: 91, ContextMenu: 93, F1: 112, F2: 113, F3: 114, F4: 115, F5: 116 },
  ...{ F6: 117, F7: 118, F8: 119, F9: 120, F10: 121, F11: 122, F12: 123, Space: 32 },
};
// Other common names for these keys.
const otherNames: Record<string, string> = {
  ...{ return: 'Enter', esc: 'Escape', ctrl: 'Control', cmd: 'Meta', command: 'Meta', option: 'Alt' },
  ...{ del: 'Delete', left: 'ArrowLeft', right: 'ArrowRight', up: 'ArrowUp', down: 'ArrowDown' },
};

/** Where the signs are on a keyboard of the United States, alone and with Shift. */
const signs: readonly (readonly [signs: string, code: string, keyCode: number])[] = [
  ...[...')!@#$%^&*('].map((shifted, at) => [`${at}${shifted}`, `Digit${at}`, 48 + at] as const),
  ...([
    [';:', 'Semicolon', 186],
    ['=+', 'Equal', 187],
    [',<', 'Comma', 188],
  ] as const),
  ...([
    ['-_', 'Minus', 189],
    ['.>', 'Period', 190],
    ['/?', 'Slash', 191],
  ] as const),
  ...([
    ['`~', 'Backquote', 192],
    ['[{', 'BracketLeft', 219],
    ['\\|', 'Backslash', 220],
  ] as const),
  ...([
    [']}', 'BracketRight', 221],
    [`'"`, 'Quote', 222],
  ] as const),
];

export interface Key {
  readonly key: string;
  readonly code: string;
  readonly keyCode: number;
}

export const isModifier = (key: string): key is Modifier => key in modifiers;
const isNamed = (key: string): boolean => Object.hasOwn(named, key);
const isKey = (key: string): boolean => isNamed(key) || isOneCharacter(key);

/** A key, as the members of its events. */
export function keyOf(name: string, isShifted = false): Key {
  const key = name === 'Space' ? ' ' : isShifted && /^[a-z]$/.test(name) ? name.toUpperCase() : name;
  if (key === ' ') return { key, code: 'Space', keyCode: 32 };
  if (/^[a-z]$/i.test(key))
    return { key, code: `Key${key.toUpperCase()}`, keyCode: key.toUpperCase().charCodeAt(0) };
  const [, code, keyCode] = signs.find(([both]) => both.includes(key)) ?? [];
  if (code !== undefined) return { key, code, keyCode: keyCode! };
  if (!isNamed(key)) return { key, code: '', keyCode: 0 };
  return { key, code: isModifier(key) ? `${key}Left` : key, keyCode: named[key]! };
}

/** Reads a key with the modifiers before it: `Enter`, `a`, `Shift+Tab`, `Control++`. @throws SIM-ACT-KEY */
export function readKeys(keys: string): { held: Modifier[]; key: string } {
  if (typeof keys !== 'string')
    return refuse('SIM-ACT-KEY', {
      ...{ call: 'press(…)', key: '' },
      given: isLocator(keys) ? 'a locator' : print(keys),
    });
  const parts = isKey(keys) ? [keys] : keys.split(/\+(?=.)/s);
  const held = parts.slice(0, -1);
  const key = parts[parts.length - 1]!;
  const unknown = parts.find((part) => !isKey(part)) ?? held.find((part) => !isModifier(part));
  if (unknown === undefined) return { held: held as Modifier[], key };
  const meant = parts.map((part) => meantBy(part, isKey, named)).join('+');
  return refuse('SIM-ACT-KEY', {
    call: `press('${keys}')`,
    key: unknown,
    nearest: meant === keys ? undefined : `press('${meant}')`,
  });
}

const meantBy = (part: string, isRight: (key: string) => boolean, names: object): string =>
  isRight(part) ? part : (otherNames[part.toLowerCase()] ?? nearest(part, Object.keys(names)) ?? part);

/** Reads what is held during another gesture: `Control+Shift`. @throws SIM-ACT-KEY */
export function readHeld(keys: string | undefined): Modifier[] {
  if (keys === undefined) return [];
  const parts = keys.split('+');
  const unknown = parts.find((part) => !isModifier(part));
  if (unknown === undefined) return parts as Modifier[];
  const meant = parts.map((part) => meantBy(part, isModifier, modifiers));
  return refuse('SIM-ACT-KEY', {
    call: `holding: '${keys}'`,
    key: unknown,
    nearest:
      meant.every(isModifier) && meant.join('+') !== keys ? `holding: '${meant.join('+')}'` : undefined,
  });
}
