import { realm } from '../../core/host';

/** True for a time zone that this platform knows. @see https://www.iana.org/time-zones */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** The names of all time zones. */
export const allZones = (): readonly string[] => [...Intl.supportedValuesOf('timeZone'), 'UTC'];

interface Process {
  readonly env: Record<string, string | undefined>;
}

/**
 * Gives the process another time zone, for `Date`, `Intl` and the `toLocale…` functions alike.
 *
 * @returns how to give it back; undefined where this process cannot change its zone (a worker thread, a browser)
 */
export function enterZone(zone: string): (() => void) | undefined {
  const { process } = realm as { process?: Process };
  if (!process?.env) return undefined;
  const { env } = process;
  const before = env['TZ'];
  const restore = () => {
    if (before === undefined) delete env['TZ'];
    else env['TZ'] = before;
  };
  env['TZ'] = zone;
  if (isIn(zone)) return restore;
  restore();
  return undefined;
}

// January and July, because many zones have another offset in summer.
const moments = [Date.UTC(2031, 0, 15), Date.UTC(2031, 6, 15)];

function isIn(zone: string): boolean {
  const options = {
    timeZone: zone,
    hour: 'numeric',
    minute: 'numeric',
    day: 'numeric',
    hourCycle: 'h23',
  } as const;
  const there = new Intl.DateTimeFormat('en', options);
  return moments.every((moment) => {
    const parts = new Map(there.formatToParts(moment).map(({ type, value }) => [type, Number(value)]));
    const here = new Date(moment);
    return (
      here.getHours() === parts.get('hour') &&
      here.getMinutes() === parts.get('minute') &&
      here.getDate() === parts.get('day')
    );
  });
}
