import { once } from '../core/shared';

/** Where a person is. @see https://w3c.github.io/geolocation/#dom-geolocationcoordinates */
export interface Position {
  readonly latitude: number;
  readonly longitude: number;
  /** Metres; 10 unless said otherwise. */
  readonly accuracy?: number;
}

/** What a page was allowed to do. @see https://w3c.github.io/permissions/#dom-permissionstate */
export type Permission = 'granted' | 'denied' | 'prompt';

export interface Watcher {
  readonly told: (position: object) => void;
  readonly failed: ((error: object) => void) | undefined;
  readonly end?: (() => void) | undefined;
}

/** What surrounds a page, as its settings say. It is the same for all subjects that are up at once. */
export const surroundings = once('surroundings', () => ({
  clipboard: { text: '' } as {
    readonly text: string;
    readonly html?: string;
    readonly files?: readonly File[];
  },
  position: undefined as Position | undefined,
  permissions: {} as Record<string, Permission>,
  /** What was shown to the person outside of the page. */
  notifications: [] as { title: string; body: string }[],
  /** Who watches the position. */
  watchers: new Map<number, Watcher>(),
  /** The lists of permissions that were asked for. */
  statuses: new Set<EventTarget & { readonly name: string }>(),
}));

const denied = {
  code: 1,
  message: 'User denied Geolocation',
  PERMISSION_DENIED: 1,
  POSITION_UNAVAILABLE: 2,
  TIMEOUT: 3,
};
const unavailable = { ...denied, code: 2, message: 'The position is not known' };

/** Gives a watcher the position, or the reason why there is none. */
export function tellPosition({ told, failed }: Watcher): void {
  const { position, permissions } = surroundings;
  if (permissions['geolocation'] === 'denied') return failed?.(denied);
  if (!position) return failed?.(unavailable);
  const rest = { altitude: null, altitudeAccuracy: null, heading: null, speed: null };
  told({ coords: { accuracy: 10, ...rest, ...position }, timestamp: Date.now() });
}
