import { LocationStrategy } from '@angular/common';
import { FetchBackend, HttpBackend, type HttpRequest } from '@angular/common/http';
import * as core from '@angular/core';
import { BrowserModule } from '@angular/platform-browser';
import { Observable } from 'rxjs';
import type { Plan } from '../stage/adapter';
import { app } from './application';
import { SURROUNDINGS, readProvision, type Surroundings } from './surroundings';
import { directiveOf, isComponent, isModule } from './definitions';
import { deferredBy } from './deferred';
import type { Scope } from './scope';
import { MemoryLocation } from './memory-location';

type Wrapping = readonly [component: core.Type<unknown>, inputs?: object];

/** The components among what goes around a subject, with their inputs. */
export const wrappingComponents = ({ wrap }: Plan): Wrapping[] =>
  wrap.flatMap((one) => {
    const [component, inputs] = (Array.isArray(one) ? one : [one]) as unknown as Wrapping;
    if (isComponent(component)) return [[component, inputs] as const];
    return directiveOf(component) ? [[bearing(component), inputs] as const] : [];
  });

const bearers = new WeakMap<object, core.Type<unknown>>();

/** A component with an element that bears a directive, and what is around it put inside. */
function bearing(directive: core.Type<unknown>): core.Type<unknown> {
  let bearer = bearers.get(directive);
  if (!bearer) {
    const definition = directiveOf(directive)!;
    const { inputs } = definition;
    // What a module declares can be borne all the same; under its own class, which is what is asked for.
    const borne = definition.standalone
      ? directive
      : (class {
          static readonly ɵdir = { ...definition, standalone: true };
        } as unknown as core.Type<unknown>);
    bearer = class {} as core.Type<unknown>;
    core.Component({
      selector: 'sim-around',
      template: '<ng-content />',
      hostDirectives: [{ directive: borne, inputs: Object.keys(inputs) }],
    })(bearer);
    bearers.set(directive, bearer);
  }
  return bearer;
}

const startToken = new core.InjectionToken<string>('the address a subject starts at');

/**
 * Where the subject starts: an address of the application, for the router. The page's own address
 * stays what it is; the chronicle lists where the subject goes.
 *
 * @param url path, query and fragment
 * @example
 * const routes = [{ path: 'gate', component: YardGate }];
 * const page = await isolate(RouterOutletPage, {
 *   wrap: [provideRouter(routes), startAt('/gate')],
 *   provide: [[Session, standIn(Session, { keeper: signal(null) })]],
 * });
 * expect(page).toShow(role('form', 'Sign in'));
 */
export const startAt = (url: string): core.EnvironmentProviders =>
  core.makeEnvironmentProviders([{ provide: startToken, useValue: url }]);

/** The injector of one subject: what the test provides beats everything else. */
export function makeInjector(
  plan: Plan,
  handler: core.ErrorHandler,
  { scope, surroundings }: { scope: Scope; surroundings: Surroundings },
  attributed: <T>(work: () => T) => T,
): core.EnvironmentInjector {
  const { ref, kept } = app();
  const surrounding = plan.wrap.flatMap((one) => {
    const [component] = (Array.isArray(one) ? one : [one]) as unknown as Wrapping;
    if (isComponent(component) || directiveOf(component)) return [];
    if (!isModule(one)) return [one as core.EnvironmentProviders];
    // A module of an application imports that of a browser, which refuses to be there twice.
    return [core.importProvidersFrom(one as core.Type<unknown>), { provide: BrowserModule, useValue: {} }];
  });
  return core.createEnvironmentInjector(
    [
      kept,
      { provide: core.ɵINJECTOR_SCOPE, useValue: 'root' },
      { provide: SURROUNDINGS, useValue: surroundings },
      { provide: core.ErrorHandler, useValue: handler },
      // Nobody waits for what is only to be looked at.
      { provide: core.ɵANIMATIONS_DISABLED, useValue: true },
      { provide: core.ANIMATION_MODULE_TYPE, useValue: 'NoopAnimations' },
      {
        provide: LocationStrategy,
        useFactory: () =>
          new MemoryLocation(core.inject(startToken, { optional: true }) ?? '/', plan.chronicle),
      },
      FetchBackend,
      ...surrounding,
      givenBackend(surrounding),
      { provide: HttpBackend, useFactory: () => makeBackend(core.inject(backendToken), attributed) },
      deferredBy((plan.given as { defer?: unknown }).defer, scope, plan.environment),
      plan.provide.map((one) => ({ provide: one.token, useFactory: () => readProvision(one) })),
    ] as core.EnvironmentProviders[],
    ref.injector,
    plan.name,
  );
}

const backendToken = new core.InjectionToken<HttpBackend>('how HttpClient sends its requests');

/** The way of sending that the test's own providers name: XMLHttpRequest or `fetch`. Else it is `fetch`. */
function givenBackend(surrounding: readonly unknown[]): core.Provider {
  const given = flat(surrounding).findLast(({ provide }) => provide === HttpBackend);
  return { ...(given ?? { useExisting: FetchBackend }), provide: backendToken } as core.Provider;
}

function flat(one: unknown): { readonly provide?: unknown }[] {
  if (Array.isArray(one)) return one.flatMap(flat);
  const { ɵproviders } = (one ?? {}) as { ɵproviders?: unknown };
  return ɵproviders === undefined ? [one as object] : flat(ɵproviders);
}

// Angular's own way of sending, and so by the subject's network, with the request's owner.
const makeBackend = (backend: HttpBackend, attributed: <T>(work: () => T) => T) => ({
  handle: (request: HttpRequest<unknown>) =>
    new Observable((observer) => attributed(() => backend.handle(request).subscribe(observer as never))),
});

/** Lets the router, where the test has one, go to where the subject starts. */
export async function startRouter(plan: Plan, injector: core.EnvironmentInjector): Promise<void> {
  const named = (one: unknown): unknown[] => {
    if (Array.isArray(one)) return one.flatMap(named);
    if (typeof one !== 'object') return [];
    const { ɵproviders, providers, provide } = (one ?? {}) as Record<string, unknown>;
    return [...named(ɵproviders ?? providers ?? []), provide];
  };
  const hasRoutes = [...plan.wrap, ...plan.wrap.filter(isModule).map(importsOf)]
    .flatMap(named)
    .some((token) => (token as { _desc?: string } | null)?._desc === 'ROUTES');
  if (!hasRoutes) return;
  const { Router } = await import('@angular/router');
  injector.get(Router).initialNavigation();
}

const importsOf = (module: unknown): unknown => core.importProvidersFrom(module as core.Type<unknown>);
