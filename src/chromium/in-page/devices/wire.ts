import type { Clip, Modifier, Person } from '../../../page/gestures/person';
import { ask } from '../wire';
import type { Command, Copied } from '../../told';

const bits: Readonly<Record<Modifier, number>> = { Alt: 1, Control: 2, Meta: 4, Shift: 8 };

/** The keys that are held, as the protocol has them. @see https://chromedevtools.github.io/devtools-protocol/tot/Input/ */
export const modifiersOf = ({ held }: Person): number => [...held].reduce((sum, key) => sum | bits[key], 0);

/** Has the browser do something, and waits until the page has heard of all of it. */
export const drive = (...commands: readonly Command[]): Promise<unknown> => ask('input', { commands });

/** The same, with a text on the clipboard before. */
export const driveWith = ({ text, html }: Clip, ...commands: readonly Command[]): Promise<unknown> =>
  ask('input', { commands, clipboard: { text, html } });

/** The same, and what is on the clipboard after. */
export const driveAndRead = ({ text, html }: Clip, ...commands: readonly Command[]): Promise<Copied> =>
  ask<Copied>('input', { commands, clipboard: { text, html }, isRead: true });
