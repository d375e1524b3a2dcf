import type { Plan } from '../stage/adapter';
import { bridge, type Fiber } from './bridge';
import { containerOf, levelBelow, tags } from './fibers';
import { kindOf, type Lazy } from './kinds';
import { isStubComponent, makeStubComponent } from './stub-component';

const { live } = bridge;

/** Lets React ask about the components of one container. @returns how to stop */
export function resolveIn({ container, environment, stubs }: Plan, anchor: unknown): () => void {
  live.set(container, { environment, stubs, anchor, families: new Map() });
  bridge.resolve = resolve;
  const restore = stubs.records.flatMap(({ target }) =>
    kindOf(target) === 'lazy' ? [holdBack(target as Lazy)] : [],
  );
  return () => {
    for (const undo of restore) undo();
    live.delete(container);
    if (live.size === 0) bridge.resolve = undefined;
  };
}

/** The function inside of the forwardRef that was asked about last. */
let inside: unknown;

/** What React renders instead of a component; undefined for the component itself. */
function resolve(type: unknown): { readonly current: unknown } | undefined {
  const kind = kindOf(type);
  const fiber = bridge.internals!.getCurrentFiber!();
  // For a real forwardRef, React asks again about the function inside: immediately after, or (since React
  // 19.3) when it renders.
  const isInside = type === inside || (fiber?.tag === tags.forwardRef && type === renderOf(fiber.type));
  inside = kind === 'forwardRef' ? renderOf(type) : undefined;
  if (isInside) return undefined;
  // For a memo, the component inside decides. React asks about it next.
  if (kind === undefined || kind === 'memo' || isStubComponent(type)) return undefined;
  return familyOf(type, fiber);
}

const renderOf = (type: unknown): unknown => (type as { render?: unknown } | null)?.render;

function familyOf(type: unknown, fiber: Fiber | null): { readonly current: unknown } | undefined {
  const stage = live.get(containerOf(fiber) as Element);
  if (!stage || type === stage.anchor) return undefined;
  // On the first rendering of a memo, React asks about its inside separately.
  const level = levelBelow(stage.anchor, fiber);
  if (!level) return undefined;
  const record = stage.stubs.decide(type, level);
  if (!record) return undefined;
  let family = stage.families.get(type);
  if (!family) stage.families.set(type, (family = { current: makeStubComponent(record, type) }));
  return family;
}

// Before React 19.3, React loads a lazy component without asking the resolver. We hold its loader back
// instead.
function holdBack(lazy: Lazy): () => void {
  const load = lazy._init;
  lazy._init = (payload) => familyOf(lazy, bridge.internals!.getCurrentFiber!())?.current ?? load(payload);
  return () => {
    lazy._init = load;
  };
}
