import { once } from '../core/shared';
import { bridge, type Fiber } from './bridge';
import { fiberName, isComponent } from './fibers';
import { isStubComponent } from './stub-component';

/** Where an error was thrown: the components from the one that threw outwards, and the stub around it. */
export interface Trace {
  readonly names: readonly string[];
  readonly stub: string | undefined;
}

// React's flag for a fiber that was not completed because something in it threw.
const incomplete = 0b1000_0000_0000_0000;

const throwers = once('react-throwers', () => new Map<unknown, Fiber>());

/**
 * Remembers which component threw, while React still has the discarded fibers. Call it from the boundary's
 * `getDerivedStateFromError`.
 */
export function noteThrower(error: unknown): void {
  if (throwers.has(error)) return;
  const boundary = bridge.internals?.getCurrentFiber?.() ?? null;
  const found = boundary ? throwersBelow(boundary) : [];
  const known = new Set(throwers.values());
  // React 18 continues with the siblings, and reports their errors in the same order.
  const thrower = found.find((fiber) => !known.has(fiber)) ?? found.at(-1);
  if (thrower) throwers.set(error, thrower);
}

function throwersBelow(fiber: Fiber): Fiber[] {
  const found: Fiber[] = [];
  for (let at = fiber.child; at; at = at.sibling) {
    if (!((at.flags ?? 0) & incomplete)) continue;
    const below = throwersBelow(at);
    found.push(...(below.length > 0 ? below : [at]));
  }
  return found;
}

/** The node that threw, where React still had it. */
export const throwerOf = (error: unknown): Fiber | undefined => throwers.get(error);

/** Remembers which component has an effect that threw. */
export const noteEffect = (error: unknown, thrower: Fiber): void => void throwers.set(error, thrower);

/** Forgets what was thrown while a subject was up. */
export const forgetThrowers = (): void => throwers.clear();

/**
 * The components from the one that threw outwards. They come from React's fibers if the thrower was
 * remembered. Otherwise they come from React's component stack, whose names are wrong where a source map was
 * applied.
 */
export function traceOf(error: unknown, componentStack: string): Trace {
  const noted = throwers.get(error);
  if (!noted) return { names: namesIn(componentStack), stub: undefined };
  const names: string[] = [];
  let stub: string | undefined;
  for (let at: Fiber | null = noted; at; at = at.return) {
    if (!isComponent(at)) continue;
    const name = fiberName(at) ?? 'Anonymous';
    if (at !== noted && isStubComponent(at.type)) stub ??= name;
    names.push(name);
  }
  return { names: names.filter(isTheirs), stub };
}

// A component stack lists names from the inside out, elements in lower case. Our own components are left out.
const namesIn = (stack: string): string[] =>
  stack
    .split('\n')
    .map((line) => /^\s*(?:at|in) ([\w$.]+)/.exec(line)?.[1] ?? '')
    .filter((name) => /^[A-Z]/.test(name) && isTheirs(name));

const isTheirs = (name: string): boolean => !/^Simulacra/.test(name);
