import '@angular/compiler';
import * as core from '@angular/core';
import { supplyViewport } from './deferred';
import { createApplication } from '@angular/platform-browser';
import { takeFromTimer } from '../page/globals/errors';

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
}

export const live = new Set<Live>();
let application: Application | undefined;

/** The application; it is there after {@link prepare}. */
export const app = (): Application => application!;

const withZone = () => typeof (globalThis as { Zone?: unknown }).Zone !== 'undefined';

export async function prepare(): Promise<void> {
  if (application && !application.ref.destroyed) return;
  supplyViewport();
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
  core.afterNextRender(() => undefined, { injector });
  ref.tick();
  (ref as unknown as { afterTick: { subscribe(listen: () => void): void } }).afterTick.subscribe(() => {
    for (const { onRendered } of live) onRendered();
  });
  application = { ref, zone: injector.get(core.NgZone), kept: keptIn(injector) };
}

type Token = core.InjectionToken<unknown> & { readonly ɵprov?: { readonly providedIn?: unknown } };

// A subject's injector counts as the root of an application, where Angular would make these once more.
function keptIn(injector: core.EnvironmentInjector): core.Provider[] {
  const own = new Set<unknown>([core.ɵINTERNAL_APPLICATION_ERROR_HANDLER, core.TransferState]);
  return Object.values(core as unknown as Record<string, Token | undefined>).flatMap((token) => {
    const scope = own.has(token) ? undefined : token?.ɵprov?.providedIn;
    if (scope !== 'root' && scope !== 'platform') return [];
    return [{ provide: token, useValue: injector.get(token!, null) }];
  });
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
  error instanceof Error && /_Template|detectChanges|refreshView|synchronizeOnce/.test(error.stack ?? '');

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

/** Renders what is due. With zone.js that is asked after everything, as the zone would. */
function flush(): void {
  const { ref } = app();
  if (!withZone() && (ref as unknown as { dirtyFlags: number }).dirtyFlags === 0) return;
  try {
    ref.tick();
  } catch (error) {
    blame(error);
  }
}

export async function settle(work: () => unknown): Promise<void> {
  await app().zone.run(work as () => unknown);
  await Promise.resolve();
  flush();
}
