import type { ChronicleLog } from '../core/chronicle';
import type { Fiber } from './bridge';
import { tags } from './fibers';

interface Place {
  readonly pathname: string;
  readonly search?: string;
  readonly hash?: string;
}

/**
 * Writes down where a router leads: routers tell what is below them by a context whose value has a
 * `location`, as the page's own has it. Kept in memory, it shows nowhere else.
 */
export function watchPlace(rootFiber: () => Fiber | null, chronicle: ChronicleLog): () => void {
  let last: string | undefined;
  return () => {
    const place = findPlace(rootFiber());
    const address = place && `${place.pathname}${place.search ?? ''}${place.hash ?? ''}`;
    // Where it begins is nowhere it went.
    if (last !== undefined && address !== undefined && address !== last) chronicle.add('navigated', address);
    last = address ?? last;
  };
}

function findPlace(fiber: Fiber | null): Place | undefined {
  for (let at = fiber; at; at = at.sibling) {
    const found = (at.tag === tags.provider ? placeIn(at) : undefined) ?? findPlace(at.child);
    if (found) return found;
  }
  return undefined;
}

function placeIn({ memoizedProps }: Fiber): Place | undefined {
  const value = memoizedProps?.['value'];
  // A double refuses to be looked into for what it was not given, so nothing is read that is not there.
  if (typeof value !== 'object' || value === null || !Object.hasOwn(value, 'location')) return undefined;
  const { location } = value as { location?: Place };
  return typeof location?.pathname === 'string' ? location : undefined;
}
