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

/** What a template is rendered into, as Angular keeps it: the element it belongs to, and what is around it. */
export type View = readonly [host: unknown, ...unknown[]];
const parentAt = 3;

/** The view around another one, or the place in it that holds several. */
export const outerOf = ({ [parentAt]: outer }: View): View | undefined =>
  Array.isArray(outer) ? (outer as unknown as View) : undefined;

/** The view that is being rendered. */
export const viewHere = (): View | null => core.ɵɵgetCurrentView() as unknown as View | null;

let last: { readonly outermost: View; readonly surroundings: Surroundings } | undefined;

/** The surroundings of what is being created. All that one tree of views creates has the same. */
export function surroundingsHere(): Surroundings {
  let outermost = viewHere();
  if (!outermost) return core.inject(SURROUNDINGS);
  for (let outer = outerOf(outermost); outer; outer = outerOf(outer)) outermost = outer;
  if (last?.outermost !== outermost) last = { outermost, surroundings: core.inject(SURROUNDINGS) };
  return last.surroundings;
}

/** Lets go of the view that was asked for last. */
export const forgetView = (): void => void (last = undefined);

/** The element of what is being created, as `inject(ElementRef)` finds it, which takes longer. */
export function elementHere(): Element {
  const { __NG_ELEMENT_ID__: read } = core.ElementRef as { __NG_ELEMENT_ID__?: () => core.ElementRef };
  return (read ? read() : core.inject(core.ElementRef)).nativeElement as Element;
}

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
