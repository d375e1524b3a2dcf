import type * as Vue from 'vue';
import { explain as explainShared } from '../stage/errors';
import { explain } from './errors';
import { isError } from '../core/is-error';
import { nearest } from '../core/near';
import { asCode, print } from '../core/print';
import type { Plan } from '../stage/adapter';
import { BareReads, type BareRead } from '../stage/bare-reads';
import { explainThrown } from '../stage/thrown';
import { asName, nameOf, type Definition } from './kinds';
import { componentIn } from './lost';
import { isDirectiveName } from './directives';
import { isStubComponent } from './stub-component';
import { exportOf } from '../seam/exports';

type Instance = Vue.ComponentInternalInstance;
type Proxied = Vue.ComponentPublicInstance | null;

/** Hears what an application throws and warns of. */
export function listenToFailures(
  app: Vue.App,
  plan: Plan,
  isSubject: (instance: Instance | undefined) => boolean,
) {
  const asked = new BareReads(plan.chronicle);
  const bareReads: BareRead[] = [];
  let failed = false;
  const broken = new WeakSet<Instance>();
  const word = (error: unknown, proxy: Proxied, phase: string) =>
    plan.onThrown(
      explainThrown(error, {
        subject: plan.name,
        ...traceOf(proxy),
        bareReads: [...bareReads, ...destructuredRead(error, proxy?.$, asked)],
        provided: plan.provide.map(({ token }) => ({ token, name: nameOfToken(token) })),
        chronicle: plan.chronicle,
        thing: 'injection',
        phase,
        wrapperOf,
        importOf,
        asWrapper: (component) => component,
        emptyStub: (name) => `stub(${asCode(name)}, () => null)`,
      }),
    );
  app.config.errorHandler = (error, proxy, info) => {
    if (/event handler$/.test(info)) return plan.onListenerThrew(error);
    failed = true;
    const instance = proxy?.$;
    // Vue continues with a component whose setup threw. The rendering error that follows is not reported
    // again.
    if (instance && broken.has(instance)) return;
    if (instance && info === 'setup function') broken.add(instance);
    word(error, proxy, phases[info] ?? `in ${/^[aeiou]/.test(info) ? 'an' : 'a'} ${info}`);
  };
  app.config.warnHandler = (message, proxy, trace) => {
    // Vue warns about the injection that was read last, and only if it has no default.
    if (/^injection ".*" not found/.test(message))
      return void bareReads.push(
        ...asked.all.slice(-1).filter(({ token }) => !providesItself(proxy?.$, token)),
      );
    // After an error in setup, further warnings are only consequences.
    if (failed) return;
    const wrongProp = isSubject(proxy?.$) ? wordWrongProp(message, plan) : undefined;
    const complaint = wrongProp ?? complaintOf(message, proxy, plan);
    if (complaint === 'none') return;
    if (complaint) plan.onThrown(complaint);
    else console.warn(`[Vue warn]: ${message}\n${trace}`);
  };
  return {
    /** For what reaches no handler of the application. */
    onLost: (error: unknown): void => {
      const component = componentIn(error);
      failed = true;
      if (component === undefined) return word(error, null, 'as what it renders was put on the page');
      const fields = { component, subject: plan.name };
      plan.onThrown(explain('SIM-UPDATE-ENDLESS', fields, { cause: error, chronicle: plan.chronicle }));
    },
    onBareRead: (instance: Instance, token: string | symbol) => {
      if (isPrivate(token)) return;
      const reader = nameOf(instance.type) ?? 'a component';
      const origin = () => ({ name: nameOfToken(token) });
      asked.note({ token, value: undefined, reader, isAround: false, origin });
    },
  };
}

/** True for a component that provides what it reads: a client's composables find it there by themselves. */
const providesItself = (instance: Instance | undefined, token: unknown): boolean =>
  instance !== undefined &&
  Object.hasOwn((instance as unknown as { provides: object }).provides, token as string);

/**
 * The injection that the error text itself names as missing, as for `const { ns } = inject(KEY, undefined)`:
 * it is the one that was read last. Empty if someone provides such a value on purpose.
 */
function destructuredRead(error: unknown, instance: Instance | undefined, asked: BareReads): BareRead[] {
  const [, what] =
    /of '[^']*\binject\)?\([^']*\)' as it is (undefined|null)/.exec(isError(error) ? error.message : '') ??
    [];
  const last = asked.all.at(-1);
  if (!what || !last || !instance || last.reader !== nameOf(instance.type)) return [];
  const { provides } = (instance.parent ?? instance.appContext) as { provides: object };
  for (let at: object | null = provides; at; at = Object.getPrototypeOf(at) as object | null)
    for (const key of Reflect.ownKeys(at)) if (at[key as never] == null) return [];
  return [{ ...last, value: what === 'null' ? null : undefined }];
}

// Vue injects some keys of its own.
const isPrivate = (key: string | symbol) => typeof key === 'symbol' && /^(v-|_v)/.test(key.description ?? '');

const phases: Record<string, string> = {
  'setup function': 'in its setup',
  'render function': 'while rendering',
};

/** The components from one outwards, and the stub it stands in. */
function traceOf(proxy: Proxied): { names: string[]; stub: string | undefined } {
  const names: string[] = [];
  let stub: string | undefined;
  for (let at: Instance | null = proxy?.$ ?? null; at; at = at.parent) {
    const name = nameOf(at.type) ?? 'Anonymous';
    if (at !== proxy?.$ && isStubComponent(at.type)) stub ??= name;
    if (name !== 'SimulacraStage') names.push(name);
  }
  return { names, stub };
}

/** How an injection key or a plugin is called: by the export that has it, or what it says itself. */
export const nameOfToken = (key: unknown): string =>
  typeof key === 'symbol'
    ? key.description || exportOf(key) || 'a symbol'
    : typeof key === 'string'
      ? key
      : print(key, 40);

/** A prop of the subject that is of another type than it declares: Vue only warns. */
function wordWrongProp(message: string, { name, chronicle }: Plan): Error | undefined {
  const [, why, prop] =
    /^Invalid prop: (type|custom validator) check failed for prop "(.+?)"/.exec(message) ?? [];
  if (!why || !prop) return undefined;
  const found =
    /(Expected .*)$/.exec(message.split('\n')[0]!)?.[1]?.replace(' with value NaN', '') ??
    'Its validator refuses the value.';
  return explainShared('SIM-PROP-TYPE', { subject: name, prop, found }, { chronicle });
}

/** What a warning means for a test: a failure that is worded, nothing at all, or undefined for a mere warning. */
function complaintOf(message: string, proxy: Proxied, plan: Plan): Error | 'none' | undefined {
  const [, kind, name] = /^Failed to resolve (component|directive): (\S+)/.exec(message) ?? [];
  if (kind && name) return wordUnresolved(kind as 'component' | 'directive', name, proxy, plan);
  const [, reader] =
    /^Component <(.+?)>: setup function returned a promise, but no <Suspense>/.exec(message) ?? [];
  if (!reader) return undefined;
  return explain('SIM-SUSPENSE-MISSING', { reader, subject: plan.name }, { chronicle: plan.chronicle });
}

function wordUnresolved(
  kind: 'component' | 'directive',
  name: string,
  proxy: Proxied,
  plan: Plan,
): Error | 'none' {
  const written = kind === 'directive' ? `v-${name}` : name;
  const stubbed = plan.stubs.records.find(({ target }) =>
    isDirectiveName(target)
      ? target === written
      : typeof target === 'string' && asName(target) === asName(name),
  );
  if (stubbed) {
    stubbed.used = true;
    return 'none';
  }
  const instance = proxy?.$;
  const holders = [(instance?.type ?? {}) as Definition, instance?.appContext as unknown as Definition];
  const registered = holders.flatMap((holder) => Object.entries(holder?.[`${kind}s`] ?? {}));
  const known = registered.filter(([, one]) => one != null).map(([key]) => key);
  const isSame = (key: string) => (kind === 'directive' ? key === name : asName(key) === asName(name));
  const fields = {
    kind,
    name: written,
    asName: kind === 'directive' ? written : asName(name),
    reader: nameOf(instance?.type) ?? plan.name,
    known,
    isEmpty: registered.some(([key, one]) => one == null && isSame(key)),
    nearest: nearest(name, known),
    wrapper: /^router-|^Router/.test(name) ? 'router' : /^i18n|^I18n/.test(name) ? 'i18n' : '',
  };
  return explain('SIM-RESOLVE-NONE', fields, { chronicle: plan.chronicle });
}

const plugins = [
  [/^router$/, 'createMemoryHistory, createRouter', 'vue-router'],
  [/^pinia$/, 'createPinia', 'pinia'],
  [/^i18n$/, 'createI18n', 'vue-i18n'],
  [/^\[VueQueryPlugin/, 'QueryClient, VueQueryPlugin', '@tanstack/vue-query'],
] as const;

function importOf(library: string): string | undefined {
  const [, names, from] = plugins.find(([plugin]) => plugin.test(wrapperOf(library))) ?? [];
  return names && `import { ${names} } from '${from}';`;
}

/** The plugin an injection or a hook of a package comes with. */
export function wrapperOf(library: string): string {
  if (/^vue-router$|^router|^route location/.test(library)) return 'router';
  if (/^pinia$/.test(library)) return 'pinia';
  if (/i18n/.test(library)) return 'i18n';
  if (/vue-query|VUE_QUERY/.test(library)) return '[VueQueryPlugin, { queryClient }]';
  return /^@?[a-z][\w-]*\/|^vue-/.test(library) ? 'plugin' : '';
}
