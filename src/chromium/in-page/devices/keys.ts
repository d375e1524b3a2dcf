import { isCommand } from '../../../page/gestures/keyboard';
import { keyOf, type Key } from '../../../page/gestures/keys';
import type { Person } from '../../../page/gestures/person';
import type { Command } from '../../told';
import { modifiersOf } from './wire';

/** What a key writes where nothing is held that makes a command of it. */
function textOf(person: Person, { key }: Key): string | undefined {
  if (isCommand(person)) return undefined;
  if (key === 'Enter') return '\r';
  return [...key].length === 1 ? key : undefined;
}

/** What a browser on this system does by Control, and on another one by Meta. */
const commands: Readonly<Record<string, string>> = {
  ...{ a: 'selectAll', c: 'copy', x: 'cut', v: 'paste', z: 'undo', y: 'redo', 'shift z': 'redo' },
};
function commandsOf({ held }: Person, { key }: Key): readonly string[] {
  if (!held.has('Meta')) return [];
  const command = commands[(held.has('Shift') ? 'shift ' : '') + key.toLowerCase()];
  return command === undefined ? [] : [command];
}

/** One half of a key. */
export function keyCommand(person: Person, name: string, half: 'down' | 'up'): Command {
  const pressed = keyOf(name, person.held.has('Shift'));
  const text = half === 'down' ? textOf(person, pressed) : undefined;
  const { key, code, keyCode } = pressed;
  return [
    'Input.dispatchKeyEvent',
    {
      type: half === 'up' ? 'keyUp' : text === undefined ? 'rawKeyDown' : 'keyDown',
      modifiers: modifiersOf(person),
      ...{ key, code, windowsVirtualKeyCode: keyCode },
      ...(text !== undefined && { text, unmodifiedText: text }),
      ...(half === 'down' && { commands: commandsOf(person, pressed) }),
    },
  ];
}

export const strike = (person: Person, name: string): Command[] => [
  keyCommand(person, name, 'down'),
  keyCommand(person, name, 'up'),
];
