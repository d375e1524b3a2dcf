import { once } from '../../core/shared';
import { markReplaced, originalOf, replaceFunction, replaceValue, type Page } from '../../core/replace';
import { pageTime } from '../../core/page-time';

/**
 * Replaces what reads the time by functions that follow the virtual clock while there is one. They are
 * installed permanently, so that code that captured `Date` or `Date.now` when its file was loaded follows the
 * clock too.
 */
export function watchDates(page: Page): void {
  replaceDate(page);
  replacePerformance(page);
  replaceStamps(page);
  replaceSignals(page);
  replaceFormats(page);
  replaceTemporal(page);
}

const date = (): number | undefined => pageTime.clock?.date();

/** @see https://tc39.es/ecma262/#sec-date-constructor */
function replaceDate(page: Page): void {
  const Native = page['Date'] as DateConstructor | undefined;
  if (!Native) return;
  const { now } = Native;
  Native.now = Object.defineProperty(() => date() ?? now(), 'name', { value: 'now', configurable: true });
  const Replaced = new Proxy(Native, {
    construct(target, args: [], newTarget) {
      const time = args.length === 0 ? date() : undefined;
      return Reflect.construct(target, time === undefined ? args : [time], newTarget) as object;
    },
    apply(target, self, args) {
      const time = date();
      return time === undefined ? (Reflect.apply(target, self, args) as string) : new target(time).toString();
    },
  });
  Native.prototype.constructor = Replaced;
  replaceValue(page, 'Date', Replaced);
}

/** @see https://w3c.github.io/hr-time/ */
function replacePerformance(page: Page): void {
  const performance = page['performance'] as Performance | undefined;
  if (!performance || typeof performance.now !== 'function') return;
  replaceFunction<() => number>(performance as unknown as Page, 'now', (now) => {
    const read = () => now.call(performance) + pageTime.ahead;
    readings.read.set(page, read);
    return () => pageTime.clock?.now() ?? read();
  });
  const origin = performance.timeOrigin;
  Object.defineProperty(performance, 'timeOrigin', {
    configurable: true,
    enumerable: true,
    get: () => (pageTime.clock ? pageTime.clock.date() - pageTime.clock.now() : origin),
  });
}

const readings = once('readings', () => ({ read: new Map<Page, () => number>() }));

/** What the page's own clock reads: milliseconds that never go back. */
export const readPageClock = (): number => Math.max(0, ...[...readings.read.values()].map((read) => read()));

/** @see https://dom.spec.whatwg.org/#dom-event-timestamp */
function replaceStamps(page: Page): void {
  const prototype = (page['Event'] as { prototype?: object } | undefined)?.prototype;
  const own = prototype && Object.getOwnPropertyDescriptor(prototype, 'timeStamp');
  if (!own?.get) return;
  const native = originalOf(own.get);
  const stamps = new WeakMap<object, number>();
  Object.defineProperty(prototype, 'timeStamp', {
    ...own,
    get: markReplaced(function (this: object) {
      const { clock } = pageTime;
      if (!clock && !stamps.has(this)) return native.call(this) as number;
      if (!stamps.has(this)) stamps.set(this, clock!.now());
      return stamps.get(this);
    }, native),
  });
}

interface Signals {
  timeout?(delay: number): AbortSignal;
}

/** @see https://dom.spec.whatwg.org/#dom-abortsignal-timeout */
function replaceSignals(page: Page): void {
  const Signal = page['AbortSignal'] as (Signals & Page) | undefined;
  if (!Signal || typeof Signal.timeout !== 'function') return;
  replaceFunction<NonNullable<Signals['timeout']>>(Signal, 'timeout', (timeout) => (delay) => {
    const { clock } = pageTime;
    if (!clock) return timeout.call(Signal, delay);
    const Controller = page['AbortController'] as typeof AbortController;
    const Exception = page['DOMException'] as typeof DOMException;
    const controller = new Controller();
    clock.schedule({
      ...{ kind: 'signal', label: `AbortSignal.timeout ${delay} ms`, delay },
      run: () => controller.abort(new Exception('The operation timed out.', 'TimeoutError')),
    });
    return controller.signal;
  });
}

type Formatter = (date?: unknown, ...more: unknown[]) => unknown;

/** A format without a date formats the present. @see https://tc39.es/ecma402/#sec-datetime-format-functions */
function replaceFormats(page: Page): void {
  const intl = (page['Intl'] ?? Intl) as typeof Intl;
  const { prototype } = intl.DateTimeFormat;
  const own = Object.getOwnPropertyDescriptor(prototype, 'format');
  if (!own?.get || formats.has(prototype)) return;
  formats.add(prototype);
  const made = new WeakMap<object, Formatter>();
  Object.defineProperty(prototype, 'format', {
    ...own,
    get(this: object) {
      const format = own.get!.call(this) as Formatter;
      if (!made.has(this)) made.set(this, (given = date(), ...more) => format(given, ...more));
      return made.get(this);
    },
  });
  replaceFunction<Formatter>(
    prototype as unknown as Page,
    'formatToParts',
    (formatToParts) =>
      function (this: object, given = date()) {
        return formatToParts.call(this, given);
      },
  );
}

const formats = once('formats', () => new WeakSet<object>());

interface Temporals {
  readonly Now: Record<string, (zone?: unknown) => unknown>;
  readonly Instant: { fromEpochMilliseconds(at: number): { toZonedDateTimeISO(zone: unknown): Zoned } };
}
interface Zoned {
  toPlainDateTime(): unknown;
  toPlainDate(): unknown;
  toPlainTime(): unknown;
}

/** @see https://tc39.es/proposal-temporal/#sec-temporal-now-object */
function replaceTemporal(page: Page): void {
  const temporal = page['Temporal'] as Temporals | undefined;
  if (!temporal) return;
  const { Now, Instant } = temporal;
  const { timeZoneId } = Now;
  const replace = (name: string, make: (now: number, zone: unknown) => unknown) => {
    const own = Now[name];
    if (own)
      replaceValue(Now, name, (zone: unknown = timeZoneId!.call(Now)) => {
        const now = date();
        return now === undefined ? own.call(Now, zone) : make(now, zone);
      });
  };
  const zoned = (now: number, zone: unknown) => Instant.fromEpochMilliseconds(now).toZonedDateTimeISO(zone);
  replace('instant', (now) => Instant.fromEpochMilliseconds(now));
  replace('zonedDateTimeISO', zoned);
  replace('plainDateTimeISO', (now, zone) => zoned(now, zone).toPlainDateTime());
  replace('plainDateISO', (now, zone) => zoned(now, zone).toPlainDate());
  replace('plainTimeISO', (now, zone) => zoned(now, zone).toPlainTime());
}
