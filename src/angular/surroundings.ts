import * as core from '@angular/core';
import { once } from '../core/shared';
import type { Provision } from '../stage/plan';
import type { StubRecord, StubSet } from '../stage/stubs';
import { nameOf, type Definition } from './definitions';

/** A rendered component with its element. */
export interface Rendered {
  readonly element: Element;
  readonly instance: object;
  readonly definition: Definition;
  readonly record: StubRecord | undefined;
}

/** The name of a rendered component; a stub has the name of its original. */
export const nameOfRendered = ({ record, definition }: Rendered): string =>
  record?.name ?? nameOf(definition.type) ?? 'Anonymous';

/** What everything below a subject can look up. */
export interface Surroundings {
  /** The component under test. */
  readonly subject: unknown;
  readonly stubs: StubSet;
  /** Values from the test. They override what components and modules provide. */
  readonly provided: ReadonlyMap<unknown, Provision>;
  onCreated(rendered: Rendered): void;
  /** The names of the components that an element stands in. */
  namesAbove(element: Element): string[];
  /** Receives an error and the name of the class that was being created. */
  onFailed(error: unknown, asker: string): void;
}

/** The token for the surroundings. Subjects share copied definitions, so these look the surroundings up when they run. */
export const SURROUNDINGS = once(
  'angular-surroundings',
  () => new core.InjectionToken<Surroundings>('the surroundings of the subject'),
);

/** A stub that is being created, with its record and its surroundings. */
export interface StubOrder {
  readonly record: StubRecord;
  readonly surroundings: Surroundings;
}

/** Returns a value that the test provides, and marks it as used. */
export function readProvision(provision: Provision): unknown {
  provision.used = true;
  return provision.value;
}
