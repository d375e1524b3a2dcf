import { isValidElement } from 'react';

/** What kinds of components React has. */
export type Kind = 'function' | 'class' | 'forwardRef' | 'memo' | 'lazy';

interface Exotic {
  readonly $$typeof: symbol;
  readonly displayName?: string;
  readonly type?: unknown;
  readonly render?: { name?: string; displayName?: string };
}

export interface Lazy {
  readonly $$typeof: symbol;
  _init: (payload: unknown) => unknown;
  readonly _payload: unknown;
}

const kinds = new Map<symbol, Kind>([
  [Symbol.for('react.forward_ref'), 'forwardRef'],
  [Symbol.for('react.memo'), 'memo'],
  [Symbol.for('react.lazy'), 'lazy'],
]);

/** The kind of a component; undefined for what is none. */
export function kindOf(value: unknown): Kind | undefined {
  if (typeof value === 'function') {
    const { prototype } = value as { prototype?: { isReactComponent?: unknown } };
    return prototype?.isReactComponent ? 'class' : 'function';
  }
  return typeof value === 'object' && value !== null ? kinds.get((value as Exotic).$$typeof) : undefined;
}

/** How a component is called; undefined for what is none. */
export function nameOf(value: unknown): string | undefined {
  const kind = kindOf(value);
  if (!kind) return undefined;
  const named = value as { displayName?: string; name?: string };
  if (named.displayName) return named.displayName;
  if (kind === 'function' || kind === 'class') return named.name || 'Anonymous';
  const exotic = value as Exotic;
  const inner = kind === 'memo' ? nameOf(exotic.type) : exotic.render?.displayName || exotic.render?.name;
  return inner || (kind === 'lazy' ? 'Lazy' : 'Anonymous');
}

/** The component that an element is made of; undefined for what is none. */
export const madeOf = (value: unknown): string | undefined =>
  isValidElement(value) ? nameOf(value.type) : undefined;

/** The component inside of memo wrappings: a memo of a component counts as that component. */
export function unwrap(value: unknown): unknown {
  let inner = value;
  while (kindOf(inner) === 'memo') inner = (inner as Exotic).type;
  return inner;
}
