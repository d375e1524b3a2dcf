import { readSpan } from '../../core/spans';
import { isSlip, nearest } from '../../core/near';
import { print } from '../../core/print';
import { type Circumstances } from '../../core/errors/registry';
import { refuse } from '../errors';
import type { TypeWhere } from './acts';
import type { Distance } from './drag';
import { readHeld } from './keys';
import type { ClickHow } from './click';
import { buttons } from './pointer';

const otherButtons: Readonly<Record<string, string>> = {
  ...{ left: 'primary', main: 'primary', right: 'secondary', middle: 'auxiliary' },
};

interface Check {
  readonly possible: readonly string[];
  readonly isRight: (value: unknown) => boolean;
  readonly meant?: (value: string) => string | undefined;
}

const isOneOf = (...words: readonly string[]): Check => ({
  possible: words.map((word) => `'${word}'`),
  isRight: (value) => words.includes(value as string),
  meant: (value) => otherButtons[value.toLowerCase()] ?? nearest(value, words),
});

const clicks: Readonly<Record<keyof ClickHow, Check>> = {
  button: isOneOf(...Object.keys(buttons)),
  pointer: isOneOf('mouse', 'touch'),
  times: {
    possible: ['a whole number from 1'],
    isRight: (value) => Number.isInteger(value) && (value as number) > 0,
  },
  heldFor: {
    possible: ["milliseconds, or a text as '600ms'"],
    isRight: (value) => readSpan(value) !== undefined,
  },
  holding: {
    possible: ["the names of keys, as 'Shift' and 'Control+Shift'"],
    isRight: (value) => typeof value === 'string',
  },
};

const otherOptions: Readonly<Record<string, keyof ClickHow>> = {
  ...{ modifiers: 'holding', keys: 'holding', count: 'times', delay: 'heldFor', duration: 'heldFor' },
  ...{ hold: 'heldFor', double: 'times', pointerType: 'pointer' },
};

/** Reads how a click is done. @throws SIM-ACT-HOW, SIM-ACT-KEY */
export function refuseHow(how: ClickHow, circumstances: Circumstances): ClickHow {
  refuseUnknown('click', how, clicks, circumstances, otherOptions);
  readHeld(how.holding);
  return how.heldFor === undefined ? how : { ...how, heldFor: readSpan(how.heldFor)! };
}

const length: Check = {
  possible: ['a number of pixels from 0'],
  isRight: (value) => typeof value === 'number' && value >= 0,
};

/** @throws SIM-ACT-HOW for what is no distance */
export function refuseDistance(call: string, by: Distance, circumstances: Circumstances): void {
  refuseUnknown(call, by, { right: length, left: length, down: length, up: length }, circumstances, {
    ...{ x: 'right', y: 'down', top: 'down', bottom: 'down', deltaY: 'down', deltaX: 'right' },
  });
}

/** @throws SIM-ACT-HOW for what is no place in a text */
export function refuseWhere(where: TypeWhere, circumstances: Circumstances): void {
  const at: Check = {
    possible: ['a whole number from 0'],
    isRight: (value) => Number.isInteger(value) && (value as number) >= 0,
  };
  const over: Check = { possible: ['a text that is there'], isRight: (value) => typeof value === 'string' };
  refuseUnknown('type', where, { at, over }, circumstances, {
    ...{ position: 'at', start: 'at', replace: 'over', select: 'over' },
  });
}

/** @throws SIM-ACT-HOW for what is no file */
export function refuseFiles(call: string, files: readonly unknown[], circumstances: Circumstances): void {
  const wrong = files.find((file) => typeof (file as Partial<File> | undefined)?.name !== 'string');
  if (files.length > 0 && wrong === undefined) return;
  const given = files.length === 0 ? 'no files' : print(wrong);
  const possible = ["files: new File(['…'], 'frame.png', { type: 'image/png' })"];
  refuse('SIM-ACT-HOW', { call: `${call}()`, given, possible }, circumstances);
}

function refuseUnknown(
  call: string,
  options: object,
  known: Readonly<Record<string, Check>>,
  circumstances: Circumstances,
  otherNames: Readonly<Record<string, string>>,
): void {
  const names = Object.keys(known);
  if (typeof options !== 'object' || options === null) {
    const given = print(options);
    refuse(
      'SIM-ACT-HOW',
      { call: `${call}()`, given, possible: names.map((one) => `{ ${one}: … }`) },
      circumstances,
    );
  }
  for (const [name, value] of Object.entries(options)) {
    const check = known[name];
    if (!check) {
      const meant = otherNames[name] ?? names.find((one) => isSlip(name, one));
      const given = `the option "${name}", which it does not know`;
      refuse(
        'SIM-ACT-HOW',
        { call: `${call}()`, given, possible: names, nearest: meant && `{ ${meant}: … }` },
        circumstances,
      );
    }
    if (value === undefined || check!.isRight(value)) continue;
    const meant = typeof value === 'string' ? check!.meant?.(value) : undefined;
    refuse(
      'SIM-ACT-HOW',
      {
        call: `${call}()`,
        given: `${name}: ${print(value)}`,
        possible: check!.possible,
        nearest: meant && `{ ${name}: '${meant}' }`,
      },
      circumstances,
    );
  }
}
