import type { ChronicleLog } from '../core/chronicle';
import type { Fiber } from './bridge';
import { tags } from './fibers';

interface Place {
  readonly pathname: string;
  readonly search?: string;
  readonly hash?: string;
}

/**
 * Records navigation. A router provides a context whose value has a `location` like the page's own. A router
 * in memory shows its location nowhere else.
 */
export function watchPlace(rootFiber: () => Fiber | null, chronicle: ChronicleLog): () => void {
  let last: string | undefined;
  return () => {
    const place = findPlace(rootFiber());
    const address = place && `${place.pathname}${place.search ?? ''}${place.hash ?? ''}`;
    // The first location is not a navigation.
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
  // A stand-in refuses reads of missing members, so only existing ones are read.
  if (typeof value !== 'object' || value === null || !Object.hasOwn(value, 'location')) return undefined;
  const { location } = value as { location?: Place };
  return typeof location?.pathname === 'string' ? location : undefined;
}
