import { isError } from '../core/is-error';
import '@angular/compiler';
import * as core from '@angular/core';
import { createApplication } from '@angular/platform-browser';
import { once } from '../core/shared';
import { takeFromTimer } from '../page/globals/errors';
import { forgetView, SURROUNDINGS } from './surroundings';

/** A subject that is mounted. */
export interface Live {
  /** Runs change detection on it, even if Angular sees no reason to. */
  check(): void;
  onRendered(): void;
  onThrown(error: unknown): void;
}

/**
 * All subjects of a test file share one application, because creating one takes longer than most tests. Each
 * subject has its own injector, which creates root services again. So no state passes from one test to the next.
 */
interface Application {
  readonly ref: core.ApplicationRef;
  readonly zone: core.NgZone;
  /** Services that all subjects share, because the application itself uses them. */
  readonly kept: core.Provider[];
  /** Angular's own scheduler. We clear it after rendering ourselves. */
  readonly scheduler: { cleanup?(): void; runningTick?: boolean };
}

export const live = new Set<Live>();
let application: Application | undefined;

/** The application. Call {@link prepare} first. */
export const app = (): Application => application!;

/** True if zone.js is loaded. */
export const withZone = (): boolean => typeof (globalThis as { Zone?: unknown }).Zone !== 'undefined';

export const prepare = (): Promise<void> | undefined =>
  application && !application.ref.destroyed ? undefined : start();

async function start(): Promise<void> {
  // Without strict mode Angular only logs a missing import.
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

// A subject's injector is a root injector, so Angular would create these services again in it. We prevent that for
// the injectors of subjects, which then find them in the application.
function keepFromSubjects(injector: core.EnvironmentInjector): core.Provider[] {
  const own = new Set<unknown>([core.ɵINTERNAL_APPLICATION_ERROR_HANDLER, core.TransferState]);
  const kept = Object.values(core as unknown as Record<string, Token | undefined>).filter(
    (token) => !own.has(token) && /^(root|platform)$/.test(String(token?.ɵprov?.providedIn)),
  );
  const injectors = Object.getPrototypeOf(injector) as Scoped;
  const isInScope = injectors.injectableDefInScope;
  // If this version of Angular has no such method, the services are provided one by one.
  if (!isInScope) return kept.map((token) => ({ provide: token, useValue: injector.get(token!, null) }));
  if (patched.has(injectors)) return [];
  patched.add(injectors);
  const definitions = new Set(kept.map((token) => token!.ɵprov));
  injectors.injectableDefInScope = function (this: Scoped, definition) {
    if (definitions.has(definition as never) && this.records.has(SURROUNDINGS)) return false;
    return isInScope.call(this, definition);
  };
  return [];
}

// The application renders all subjects together, and does not say which one an error came from.
function blame(error: unknown): void {
  // zone.js reports what a timer threw together with what was rendered after it.
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
 * Destroys the injector of a subject and its services. Angular would also destroy the application's own services
 * that the injector returned, so those are removed first.
 */
export function destroyInjector(injector: core.EnvironmentInjector): void {
  const { _ngOnDestroyHooks: hooks } = injector as unknown as { _ngOnDestroyHooks?: Set<unknown> };
  for (const kept of app().kept) hooks?.delete((kept as core.ValueProvider).useValue);
  injector.destroy();
  forgetView();
}

/** True while change detection is scheduled. */
export const isPending = (): boolean =>
  withZone()
    ? app().zone.hasPendingMicrotasks
    : (app().ref as unknown as { dirtyFlags: number }).dirtyFlags !== 0;

/** Runs change detection if it is scheduled. */
function flush(): void {
  const { ref, scheduler, zone } = app();
  if ((ref as unknown as { dirtyFlags: number }).dirtyFlags !== 0) {
    try {
      // Angular renders whenever the zone is left. If we called tick() outside the zone, an effect that enters and
      // leaves the zone would start a second tick inside the first one.
      if (withZone()) zone.run(() => undefined);
      else ref.tick();
    } catch (error) {
      blame(error);
    }
  }
  // Cancel what the scheduler still has, so that nothing runs after take-down.
  if (!withZone()) scheduler.cleanup?.();
}

export async function settle(work: () => unknown): Promise<void> {
  await app().zone.run(work as () => unknown);
  await Promise.resolve();
  flush();
}

/** Waits for one turn. This runs outside the zone, so waiting alone triggers no change detection. */
export async function pass(turn: () => unknown): Promise<void> {
  await turn();
  flush();
}

/** Like {@link settle}, for synchronous work: we render it ourselves, so the scheduler is not used. */
export async function settleAtOnce(work: () => void): Promise<void> {
  // With a zone Angular renders after every task anyway.
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
