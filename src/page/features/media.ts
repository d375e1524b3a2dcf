import type { Page } from '../../core/replace';

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
    const list = new window.EventTarget() as EventTarget & Record<string, unknown>;
    const listen = (listener: EventListener | null) => listener && list.addEventListener('change', listener);
    const leave = (listener: EventListener | null) =>
      listener && list.removeEventListener('change', listener);
    Object.defineProperty(list, 'matches', { get: () => fits(String(query), window), enumerable: true });
    return Object.assign(list, {
      media: String(query),
      onchange: null,
      addListener: listen,
      removeListener: leave,
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
  const known = preferences[name];
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
