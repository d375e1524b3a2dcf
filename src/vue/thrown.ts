import type * as Vue from 'vue';
import { explain as explainShared } from '../stage/errors';
import { explain } from './errors';
import { nearest } from '../core/near';
import { print } from '../core/print';
import type { Plan } from '../stage/adapter';
import { explainThrown, type BareRead } from '../stage/thrown';
import { asName, nameOf, type Definition } from './kinds';
import { isDirectiveName } from './directives';

type Instance = Vue.ComponentInternalInstance;
type Proxied = Vue.ComponentPublicInstance | null;

/** Hears what an application throws and warns of. */
export function listenToFailures(
  app: Vue.App,
  plan: Plan,
  isSubject: (instance: Instance | undefined) => boolean,
) {
  const bareReads: BareRead[] = [];
  let failed = false;
  const broken = new WeakSet<Instance>();
  app.config.errorHandler = (error, proxy, info) => {
    if (/event handler$/.test(info)) return plan.onListenerThrew(error);
    failed = true;
    const instance = proxy?.$;
    // Vue goes on with a component whose setup has thrown: that it cannot be rendered then is no news.
    if (instance && broken.has(instance)) return;
    if (instance && info === 'setup function') broken.add(instance);
    plan.onThrown(
      explainThrown(error, {
        subject: plan.name,
        names: namesAround(proxy),
        bareReads,
        provided: plan.provide.map(({ token }) => nameOfToken(token)),
        chronicle: plan.chronicle,
        thing: 'injection',
        phase: phases[info] ?? `in a ${info}`,
        wrapperOf,
      }),
    );
  };
  app.config.warnHandler = (message, proxy, trace) => {
    // Vue goes on with a component whose setup has thrown: what it lacks then is no news.
    if (failed) return;
    const wrongProp = isSubject(proxy?.$) ? wordWrongProp(message, plan) : undefined;
    const complaint = wrongProp ?? complaintOf(message, proxy, plan);
    if (complaint === 'none') return;
    if (complaint) plan.onThrown(complaint);
    else if (!/^injection ".*" not found/.test(message)) console.warn(`[Vue warn]: ${message}\n${trace}`);
  };
  const onBareRead = (instance: Instance, key: string | symbol) => {
    if (isPrivate(key)) return;
    const token = nameOfToken(key);
    const reader = nameOf(instance.type) ?? 'a component';
    if (!bareReads.some((other) => other.token === token && other.reader === reader))
      plan.chronicle.add('read', token, { detail: 'nobody provides it', from: reader });
    bareReads.push({ token, value: 'undefined', reader });
  };
  return { onBareRead };
}

const phases: Record<string, string> = {
  'setup function': 'in its setup',
  'render function': 'while rendering',
};

// Vue asks itself for some keys of its own.
const isPrivate = (key: string | symbol) => typeof key === 'symbol' && /^(v-|_v)/.test(key.description ?? '');

function namesAround(proxy: Proxied): string[] {
  const names: string[] = [];
  for (let at: Instance | null = proxy?.$ ?? null; at; at = at.parent)
    names.push(nameOf(at.type) ?? 'Anonymous');
  return names.filter((name) => name !== 'SimulacraStage');
}

/** How an injection key or a plugin is called. */
export const nameOfToken = (key: unknown): string =>
  typeof key === 'symbol' ? (key.description ?? 'a symbol') : typeof key === 'string' ? key : print(key, 40);

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
    isDirectiveName(target) ? target === written : target === asName(name),
  );
  if (stubbed) {
    stubbed.used = true;
    return 'none';
  }
  const instance = proxy?.$;
  const holders = [(instance?.type ?? {}) as Definition, instance?.appContext as unknown as Definition];
  const known = holders.flatMap((holder) => Object.keys(holder?.[`${kind}s`] ?? {}));
  const fields = {
    kind,
    name: written,
    asName: kind === 'directive' ? written : asName(name),
    reader: nameOf(instance?.type) ?? plan.name,
    known,
    nearest: nearest(name, known),
    wrapper: /^router-|^Router/.test(name) ? 'router' : /^i18n|^I18n/.test(name) ? 'i18n' : '',
  };
  return explain('SIM-RESOLVE-NONE', fields, { chronicle: plan.chronicle });
}

/** The plugin an injection or a hook of a package comes with. */
export function wrapperOf(library: string): string {
  if (/^vue-router$|^router|^route location/.test(library)) return 'router';
  if (/^pinia$/.test(library)) return 'pinia';
  if (/i18n/.test(library)) return 'i18n';
  if (/vue-query|VUE_QUERY/.test(library)) return '[VueQueryPlugin, { queryClient }]';
  return /^@?[a-z][\w-]*\/|^vue-/.test(library) ? 'plugin' : '';
}
