import * as core from '@angular/core';
import { once } from '../core/shared';
import type { Provision } from '../stage/plan';
import type { StubRecord, StubSet } from '../stage/stubs';
import { nameOf, type Definition } from './definitions';

/** A component that is rendered: its element, and what it is. */
export interface Rendered {
  readonly element: Element;
  readonly instance: object;
  readonly definition: Definition;
  readonly record: StubRecord | undefined;
}

/** How what is rendered is called: a stub as what it stands for. */
export const nameOfRendered = ({ record, definition }: Rendered): string =>
  record?.name ?? nameOf(definition.type) ?? 'Anonymous';

/** What a subject has around it. */
export interface Surroundings {
  /** The component that is put on the stage. */
  readonly subject: unknown;
  readonly stubs: StubSet;
  /** What the test provides: it beats what components and modules provide. */
  readonly provided: ReadonlyMap<unknown, Provision>;
  onCreated(rendered: Rendered): void;
  /** The names of the components that an element stands in. */
  namesAbove(element: Element): string[];
  /** Told of who is being made when something could not be. */
  onFailed(error: unknown, asker: string): void;
}

/** By this what is made below a subject finds its surroundings; the copies it is made by may serve others, too. */
export const AROUND = once(
  'angular-around',
  () => new core.InjectionToken<Surroundings>('what is around the subject'),
);

/** A stub that is being made: whose it is, and what it is told of. */
export interface StubOrder {
  readonly record: StubRecord;
  readonly around: Surroundings;
}

/** What a test provides, for whoever asks: it has been of use then. */
export function readProvision(provision: Provision): unknown {
  provision.used = true;
  return provision.value;
}
