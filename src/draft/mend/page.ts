import type { Draft } from '../model';
import type { Known } from '../plan';
import type { FailureSeen } from '../run/observed';
import { code } from '../value';
import type { Mended } from './mended';

/** Gives the page what a simulated one lacks: a canvas that can be drawn on. */
export function addFeature(_: Known, { given }: Draft, failure: FailureSeen): Mended | undefined {
  if (given.page.length > 0 || !/canvas/.test(String(failure.fields['feature'] ?? ''))) return undefined;
  return { given: { ...given, page: [canvas] }, done: 'gave the page canvases to draw on' };
}

const canvas = code(`// A simulated page has no canvas to draw on.
const made = { addColorStop: () => undefined, data: [], width: 0 };
const drawing = (name: string) => (/^(create|get|measure)/.test(name) ? made : undefined);
HTMLCanvasElement.prototype.getContext = () =>
  new Proxy({}, { get: (_, name) => () => drawing(String(name)) }) as never;`);
