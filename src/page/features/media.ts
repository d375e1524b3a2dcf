import type { Page } from '../../core/replace';
import { noteMade } from '../../core/left';
import { once } from '../../core/shared';

/** What the settings of the page say otherwise, and the lists that are listened to. */
export const mediaState = once('media', () => ({
  preferences: {} as Record<string, string>,
  listening: new Set<() => void>(),
}));

/** What is true of a person at a desk who has asked for nothing in particular. */
const preferences: Readonly<Record<string, string>> = {
  ...{ 'prefers-reduced-motion': 'no-preference', 'prefers-color-scheme': 'light' },
  ...{ 'prefers-contrast': 'no-preference', 'prefers-reduced-transparency': 'no-preference' },
  ...{ hover: 'hover', 'any-hover': 'hover', pointer: 'fine', 'any-pointer': 'fine' },
  ...{ 'forced-colors': 'none', 'inverted-colors': 'none', 'display-mode': 'browser', scripting: 'enabled' },
  ...{ update: 'fast', 'color-gamut': 'srgb' },
};

/**
 * Whether a media query matches the page's window.
 *
 * @see https://drafts.csswg.org/mediaqueries/
 */
export function makeMatchMedia(page: Page): (query: string) => object {
  const window = page as unknown as Window & typeof globalThis;
  return (query) => {
    const media = String(query);
    const list = new window.EventTarget() as EventTarget & Record<string, unknown>;
    const { addEventListener: add, removeEventListener: remove } = list;
    const listeners = new Set<unknown>();
    let was = fits(media, window);
    const look = () => {
      const is = fits(media, window);
      if (is === was) return;
      was = is;
      list.dispatchEvent(Object.assign(new window.Event('change'), { matches: is, media }));
    };
    // A list is kept only while somebody listens to it.
    let end: (() => void) | undefined;
    const keep = (below: (...args: never[]) => unknown) => {
      if (listeners.size > 0) {
        mediaState.listening.add(look);
        end ??= noteMade(`a listener of the media query "${media}"`, below);
      } else {
        mediaState.listening.delete(look);
        end?.();
        end = undefined;
      }
    };
    const listen = (type: string, listener: EventListener | null, options?: AddEventListenerOptions) => {
      if (!listener) return;
      listeners.add(listener);
      keep(listen);
      add.call(list, type, listener, options);
    };
    const leave = (type: string, listener: EventListener | null) => {
      listeners.delete(listener);
      keep(leave);
      remove.call(list, type, listener);
    };
    let handler: EventListener | null = null;
    Object.defineProperties(list, {
      matches: { get: () => fits(media, window), enumerable: true },
      media: { value: media, enumerable: true },
      onchange: {
        get: () => handler,
        set(given: EventListener | null) {
          leave('change', handler);
          listen('change', (handler = given));
        },
      },
    });
    return Object.assign(list, {
      addEventListener: listen,
      removeEventListener: leave,
      addListener: (listener: EventListener | null) => listen('change', listener),
      removeListener: (listener: EventListener | null) => leave('change', listener),
    });
  };
}

const fits = (query: string, window: Window): boolean =>
  query.split(',').some((one) => fitsOne(one.trim().toLowerCase(), window));

function fitsOne(query: string, window: Window): boolean {
  if (query.startsWith('not ')) return !fitsOne(query.slice(4), window);
  const parts = query.replace(/^only /, '').split(/\s+and\s+/);
  return parts.every((part) => {
    const inside = /^\((.*)\)$/.exec(part.trim())?.[1];
    return inside === undefined ? /^(all|screen|)$/.test(part.trim()) : fitsFeature(inside.trim(), window);
  });
}

function fitsFeature(feature: string, window: Window): boolean {
  if (feature.startsWith('not ')) return !fitsFeature(feature.slice(4).replace(/^\(|\)$/g, ''), window);
  const [, name = '', wanted] = /^([\w-]+)\s*(?::\s*(.*))?$/.exec(feature) ?? [];
  const compared = /^([\w-]+)\s*([<>]=?|=)\s*(.*)$/.exec(feature);
  if (compared) return compare(sizeOf(compared[1]!, window), compared[2]!, pixels(compared[3]!));
  const [, bound, what = name] = /^(min|max)-(.*)$/.exec(name) ?? [];
  if (/^(width|height)$/.test(what)) {
    const size = sizeOf(what, window);
    return wanted === undefined
      ? size > 0
      : compare(size, bound === 'min' ? '>=' : bound === 'max' ? '<=' : '=', pixels(wanted));
  }
  if (name === 'orientation')
    return wanted === (window.innerWidth > window.innerHeight ? 'landscape' : 'portrait');
  const known = mediaState.preferences[name] ?? preferences[name];
  return wanted === undefined ? known !== undefined && !/^no(ne|-preference)$/.test(known) : known === wanted;
}

const sizeOf = (what: string, window: Window) => (what === 'height' ? window.innerHeight : window.innerWidth);

const pixels = (length: string): number => parseFloat(length) * (/r?em$/.test(length.trim()) ? 16 : 1);

function compare(size: number, sign: string, bound: number): boolean {
  switch (sign) {
    case '>=':
      return size >= bound;
    case '<=':
      return size <= bound;
    case '>':
      return size > bound;
    case '<':
      return size < bound;
    default:
      return size === bound;
  }
}
