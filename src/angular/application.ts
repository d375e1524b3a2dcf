import { isError } from '../core/is-error';
import '@angular/compiler';
import * as core from '@angular/core';
import { createApplication } from '@angular/platform-browser';
import { once } from '../core/shared';
import { takeFromTimer } from '../page/globals/errors';
import { AROUND } from './around';

/** A subject that is up. */
export interface Live {
  /** Renders it once more, whether Angular thinks it has to or not. */
  check(): void;
  onRendered(): void;
  onThrown(error: unknown): void;
}

/**
 * One application for all subjects of a test file: to make one takes longer than most tests. Each
 * subject has an injector of its own in it, in which services that belong to the whole application
 * are made anew, so that nothing a test does is there for the next one.
 */
interface Application {
  readonly ref: core.ApplicationRef;
  readonly zone: core.NgZone;
  /** What must be the same for all subjects, since the application itself works with it. */
  readonly kept: core.Provider[];
  /** What renders when nobody else does; what is rendered here is off its list. */
  readonly scheduler: { cleanup?(): void; runningTick?: boolean };
}

export const live = new Set<Live>();
let application: Application | undefined;

/** The application; it is there after {@link prepare}. */
export const app = (): Application => application!;

/** True where zone.js tells Angular of what goes on. */
export const withZone = (): boolean => typeof (globalThis as { Zone?: unknown }).Zone !== 'undefined';

export const prepare = (): Promise<void> | undefined =>
  application && !application.ref.destroyed ? undefined : start();

async function start(): Promise<void> {
  // A missing import is an error to Angular only while it is strict about it.
  core.ɵsetUnknownElementStrictMode(true);
  core.ɵsetUnknownPropertyStrictMode(true);
  const ref = await createApplication({
    providers: [
      withZone() ? core.provideZoneChangeDetection() : core.provideZonelessChangeDetection(),
      { provide: core.ErrorHandler, useValue: { handleError: blame } },
    ],
  });
  const { injector } = ref;
  const scheduler = injector.get(core.ɵChangeDetectionScheduler) as unknown as Application['scheduler'];
  core.afterNextRender(() => undefined, { injector });
  ref.tick();
  (ref as unknown as { afterTick: { subscribe(listen: () => void): void } }).afterTick.subscribe(() => {
    for (const { onRendered } of live) onRendered();
  });
  application = { ref, zone: injector.get(core.NgZone), kept: keepFromSubjects(injector), scheduler };
}

type Token = core.InjectionToken<unknown> & { readonly ɵprov?: { readonly providedIn?: unknown } };
interface Scoped {
  readonly records: ReadonlyMap<unknown, unknown>;
  injectableDefInScope?(definition: unknown): boolean;
}

const patched = once('angular-injectors', () => new WeakSet<object>());

// A subject's injector counts as the root of an application, where Angular would make these once more: it is
// kept from it for the injectors of subjects, which find them in the application then.
function keepFromSubjects(injector: core.EnvironmentInjector): core.Provider[] {
  const own = new Set<unknown>([core.ɵINTERNAL_APPLICATION_ERROR_HANDLER, core.TransferState]);
  const kept = Object.values(core as unknown as Record<string, Token | undefined>).filter(
    (token) => !own.has(token) && /^(root|platform)$/.test(String(token?.ɵprov?.providedIn)),
  );
  const injectors = Object.getPrototypeOf(injector) as Scoped;
  const isInScope = injectors.injectableDefInScope;
  // A version of Angular that asks otherwise is given them one by one.
  if (!isInScope) return kept.map((token) => ({ provide: token, useValue: injector.get(token!, null) }));
  if (patched.has(injectors)) return [];
  patched.add(injectors);
  const definitions = new Set(kept.map((token) => token!.ɵprov));
  injectors.injectableDefInScope = function (this: Scoped, definition) {
    if (definitions.has(definition as never) && this.records.has(AROUND)) return false;
    return isInScope.call(this, definition);
  };
  return [];
}

// The application renders all subjects in one go, and says nothing of where an error came from.
function blame(error: unknown): void {
  // zone.js hands on what a timer threw, and what is rendered in the same go.
  if (!isOfRendering(error) && takeFromTimer(error)) return;
  const [first, ...others] = live;
  const guilty = others.length === 0 ? first : [...live].find(fails);
  const told = guilty ?? first;
  if (told) told.onThrown(error);
  else console.error(error);
}

const isOfRendering = (error: unknown) =>
  isError(error) && /_Template|detectChanges|refreshView|synchronizeOnce/.test(error.stack ?? '');

function fails({ check }: Live): boolean {
  try {
    check();
    return false;
  } catch {
    return true;
  }
}

/**
 * Takes the injector of a subject down, and its services with it. Angular would do the same to whatever
 * the injector has handed out: what is the application's own is taken out before.
 */
export function destroyInjector(injector: core.EnvironmentInjector): void {
  const { _ngOnDestroyHooks: hooks } = injector as unknown as { _ngOnDestroyHooks?: Set<unknown> };
  for (const kept of app().kept) hooks?.delete((kept as core.ValueProvider).useValue);
  injector.destroy();
}

/** True while change detection is due. */
export const isPending = (): boolean =>
  withZone()
    ? app().zone.hasPendingMicrotasks
    : (app().ref as unknown as { dirtyFlags: number }).dirtyFlags !== 0;

/** Renders what is due. */
function flush(): void {
  const { ref, scheduler, zone } = app();
  if ((ref as unknown as { dirtyFlags: number }).dirtyFlags !== 0) {
    try {
      // The zone renders when it is left. To render outside of it would begin a second rendering from within the
      // first one, as soon as an effect enters the zone and leaves it.
      if (withZone()) zone.run(() => undefined);
      else ref.tick();
    } catch (error) {
      blame(error);
    }
  }
  // What it scheduled is done: nothing of a subject is left to run after its take-down.
  if (!withZone()) scheduler.cleanup?.();
}

export async function settle(work: () => unknown): Promise<void> {
  await app().zone.run(work as () => unknown);
  await Promise.resolve();
  flush();
}

/** Lets time pass. Unlike work, that alone makes a zone render nothing. */
export async function pass(turn: () => unknown): Promise<void> {
  await turn();
  flush();
}

/** The same for work that is done at once: it is rendered here, so nothing has to be scheduled for it. */
export async function settleAtOnce(work: () => void): Promise<void> {
  // A zone renders after everything, whether it was asked to or not.
  if (withZone()) return settle(work);
  const { scheduler, zone } = app();
  scheduler.runningTick = true;
  try {
    zone.run(work);
  } finally {
    scheduler.runningTick = false;
  }
  await Promise.resolve();
  flush();
}
