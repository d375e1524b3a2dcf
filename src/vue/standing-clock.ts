import { once } from '../core/shared';
import { pageTime } from '../core/page-time';

const supplied = once('vue-clock', () => new WeakSet<object>());

/**
 * Vue drops an event that it saw no later than it attached the listener, by the date it wrote on the
 * event. On a clock that stands still that is every event on its way up. So events have a later date while the
 * clock is virtual.
 */
export function letEventsPass(): void {
  const { prototype } = Event;
  if (!pageTime.clock || supplied.has(prototype)) return;
  supplied.add(prototype);
  Object.defineProperty(prototype, '_vts', {
    configurable: true,
    get: () => (pageTime.clock ? Infinity : undefined),
    set(this: object, value: unknown) {
      Object.defineProperty(this, '_vts', { value, configurable: true, writable: true, enumerable: true });
    },
  });
}
