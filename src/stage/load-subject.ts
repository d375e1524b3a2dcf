import { isError } from '../core/is-error';
import { whatThePageLacks } from '../page/lacking';
import { isExplained } from '../core/errors/called-from';
import { refuse } from './errors';
import { callForSubject } from '../seam/place';
import { fileNameIn, looksLikeThunk, specifierIn } from '../seam/thunk';
import type { Adapter } from './adapter';

/** `() => import('…')`: leads to a module with one component in it, or to a component. */
export type Load = () => Promise<unknown>;

/** The component a test names: itself, or the one a module it leads to has. `C` is what a component can be. */
export type Loaded<S, C> = S extends () => Promise<infer M>
  ? [ComponentIn<M, C>] extends [never]
    ? Extract<S, C>
    : ComponentIn<M, C>
  : Extract<S, C>;

// The default export, or the export that `then` picked, or else the exports with a capital letter.
type ComponentIn<M, C> = M extends { readonly default: infer D extends C }
  ? D
  : M extends C
    ? M
    : {
        [K in keyof M & string]: K extends Capitalize<K> ? (M[K] extends C ? M[K] : never) : never;
      }[keyof M & string];

/** The subject itself, loaded where it was given as `() => import('…')`. @throws SIM-SUBJECT-LOAD, SIM-SUBJECT-EXPORTS */
export const loadSubject = (adapter: Adapter, given: unknown, calledAt: Error): unknown =>
  looksLikeThunk(given) ? load(adapter, given, calledAt) : given;

async function load(adapter: Adapter, given: Load, calledAt: Error): Promise<unknown> {
  const specifier = specifierIn(given);
  const found = await callForSubject(given).catch((error: unknown) => {
    if (isExplained(error)) throw error;
    const threw = isError(error) ? `${error.name}: ${error.message}` : String(error);
    const [, module] = /Cannot find (?:module|package) '([^']+)'/.exec(threw) ?? [];
    const fields = { specifier, threw, module, feature: whatThePageLacks(error) };
    return refuse('SIM-SUBJECT-LOAD', fields, { cause: error, calledAt });
  });
  const isComponent = (value: unknown) =>
    adapter.nameOf(value) !== undefined && (adapter.isSubject?.(value) ?? true);
  const loaded = withoutInterop(found);
  if (!isModule(loaded)) return loaded;
  const names = Object.keys(loaded)
    .filter((name) => name !== '__esModule')
    .sort();
  const components = names.filter((name) => isComponent(loaded[name]) && /^([A-Z]|default$)/.test(name));
  const file = fileNameIn(specifier);
  const chosen = ['default', file].find((name) => components.includes(name)) ?? components[0];
  const isClear = chosen === 'default' || chosen === file || components.length === 1;
  if (!chosen || !isClear) {
    const fields = { specifier, framework: adapter.framework, components, exports: names };
    refuse('SIM-SUBJECT-EXPORTS', fields, { calledAt });
  }
  return loaded[chosen];
}

// An ES import of a CommonJS module has all of its exports as the default export.
const withoutInterop = (loaded: unknown): unknown => {
  const whole = isModule(loaded) ? loaded['default'] : undefined;
  return isModule(whole) && whole['__esModule'] === true ? whole : loaded;
};

const isModule = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' &&
  value !== null &&
  ('__esModule' in value || Object.prototype.toString.call(value) === '[object Module]');
