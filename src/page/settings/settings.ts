import { connection } from '../../core/connection';
import type { Page } from '../../core/replace';
import { once } from '../../core/shared';
import { makeFeature } from '../features';
import { mediaState } from '../features/media';
import { isSimulated } from '../styles';
import { surroundings, tellPosition, type Permission, type Position } from '../surroundings';
import { storageOf, writeCookie } from './kept';
import { enterLanguage, isLanguage } from './language';

/** What the page of a subject is like. What is left out stays as it is. */
export interface PageOption {
  /** Width of the window in pixels of CSS. */
  readonly width?: number;
  /** Height of the window in pixels of CSS. */
  readonly height?: number;
  /** Whether the person has asked for dark colours. */
  readonly dark?: boolean;
  /** Whether the person has asked for less motion. */
  readonly reducedMotion?: boolean;
  /** Whether there is a connection. Without one every request breaks. */
  readonly online?: boolean;
  /** The person's language (BCP 47): `'fr'`, `'de-CH'`. What names no language is written in it. */
  readonly language?: string;
  /** Whether the page can be seen; a tab in the background cannot. */
  readonly visible?: boolean;
  /** What is in the local storage, by key; `null` takes one away. */
  readonly storage?: Readonly<Record<string, string | null>>;
  /** The same for the session's storage. */
  readonly session?: Readonly<Record<string, string | null>>;
  /** The cookies, by name; `null` takes one away. */
  readonly cookies?: Readonly<Record<string, string | null>>;
  /** The address: `'/hives/h1?tab=queen'`, of the page's own origin. */
  readonly location?: string;
  /** The title of the document. */
  readonly title?: string;
  /** The text on the clipboard. */
  readonly clipboard?: string;
  /** Where the person is; `null` where that is not known. */
  readonly position?: Position | null;
  /** What the page was allowed, by the name of the permission: `{ geolocation: 'denied' }`. */
  readonly permissions?: Readonly<Record<string, Permission>>;
}

export type Setting = keyof PageOption;

const isText = (value: unknown): boolean => typeof value === 'string';
const isFlag = (value: unknown): boolean => typeof value === 'boolean';
const isSize = (value: unknown): boolean => typeof value === 'number' && value >= 0 && Number.isFinite(value);
const areTexts = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  Object.values(value).every((one) => one === null || typeof one === 'string');

interface Kind {
  readonly isRight: (value: unknown) => boolean;
  /** What belongs there, in words. */
  readonly wanted: string;
  /** True for what a real browser's page does not let a script change. */
  readonly isOfScreen?: boolean;
}

const flag = { isRight: isFlag, wanted: 'true or false' };
const size = { isRight: isSize, wanted: 'a number of pixels from 0', isOfScreen: true };
const texts = { isRight: areTexts, wanted: "texts by name: { units: 'pounds' }; null takes one away" };
const text = { isRight: isText, wanted: 'a text' };

/** Every setting, and what it takes. */
export const kinds: { readonly [name in Setting]-?: Kind } = {
  width: size,
  height: size,
  dark: { ...flag, isOfScreen: true },
  reducedMotion: { ...flag, isOfScreen: true },
  online: flag,
  language: {
    isRight: (value) => typeof value === 'string' && isLanguage(value),
    wanted: "the tag of a language (BCP 47): 'en', 'fr', 'de-CH'",
  },
  visible: flag,
  storage: texts,
  session: texts,
  cookies: texts,
  location: {
    isRight: (value) => typeof value === 'string' && isOwnAddress(value),
    wanted: "an address of the page's own origin: '/hives/h1'",
  },
  title: text,
  clipboard: text,
  position: {
    isRight: (value) => value === null || isPosition(value as Position),
    wanted: '{ latitude: 47.1, longitude: 8.5 }, in degrees, or null',
  },
  permissions: {
    isRight: (value) =>
      typeof value === 'object' &&
      value !== null &&
      Object.values(value).every((one) => /^(granted|denied|prompt)$/.test(String(one))),
    wanted: "'granted', 'denied' or 'prompt' by name: { geolocation: 'denied' }",
  },
};

function isOwnAddress(address: string): boolean {
  try {
    return new URL(address, document.baseURI).origin === document.location.origin;
  } catch {
    return false;
  }
}

const isPosition = (value: Partial<Position> | undefined): boolean =>
  Math.abs(value?.latitude ?? NaN) <= 90 && Math.abs(value?.longitude ?? NaN) <= 180;

// A process may have a document and not all that belongs to its window.
const view = () => document.defaultView as Window & typeof globalThis;

/** How to take each setting away again, the first one set first. */
const undoing = once('page-settings', () => new Map<string, () => void>());

/** Puts a property in the place of the page's own, which comes back at the end. */
function override(object: object, name: string, value: unknown): void {
  const key = `${name} of ${String(object)}`;
  if (!undoing.has(key)) {
    const before = Object.getOwnPropertyDescriptor(object, name);
    undoing.set(key, () => {
      if (before) Object.defineProperty(object, name, before);
      else Reflect.deleteProperty(object, name);
    });
  }
  Object.defineProperty(object, name, {
    get: () => value,
    set: () => undefined,
    configurable: true,
    enumerable: true,
  });
}

/** Takes every setting away. */
export function takeAwaySettings(): void {
  for (const undo of [...undoing.values()].reverse()) undo();
  undoing.clear();
}

const atEnd = (key: string, undo: () => void): void => void (undoing.has(key) || undoing.set(key, undo));

type Texts = Readonly<Record<string, string | null>>;

/** Sets texts in a storage, and removes those that are null. @param wrote is called for each, with the text before */
function fill(
  storage: Storage | undefined,
  items: Texts,
  wrote?: (key: string, oldValue: string | null, newValue: string | null) => void,
): void {
  for (const [key, value] of Object.entries(items)) {
    const before = storage?.getItem(key) ?? null;
    if (value === null) storage?.removeItem(key);
    else storage?.setItem(key, value);
    wrote?.(key, before, value);
  }
}

/** Tells the page of a change, as a browser does. */
type Tell = (target: EventTarget, event: Event) => void;
const event = (type: string): Event => new (view().Event)(type);

function resize(side: 'Width' | 'Height', pixels: number): void {
  override(view(), `inner${side}`, pixels);
  override(view(), `outer${side}`, pixels);
  override(document.documentElement, `client${side}`, pixels);
}

function prefer(feature: string, value: string): void {
  atEnd(feature, () => void (mediaState.preferences = {}));
  mediaState.preferences[feature] = value;
}

/** Replaces what a real browser has, and would ask a person for. */
function standInFor(name: 'clipboard' | 'geolocation' | 'permissions' | 'Notification'): void {
  if (isSimulated(document)) return;
  const [object, place] = name === 'Notification' ? [view(), ''] : [view().navigator, 'Navigator.prototype'];
  override(object, name, makeFeature(view() as unknown as Page, place, name).value);
}

/** How each setting is applied. `tell` is given where the subject has seen the page before. */
const setters: { readonly [name in Setting]-?: (value: never, tell?: Tell) => void } = {
  width: (pixels: number) => resize('Width', pixels),
  height: (pixels: number) => resize('Height', pixels),
  dark: (isDark: boolean) => prefer('prefers-color-scheme', isDark ? 'dark' : 'light'),
  reducedMotion: (isLess: boolean) => prefer('prefers-reduced-motion', isLess ? 'reduce' : 'no-preference'),
  online(isOnline: boolean, tell?: Tell) {
    atEnd('online', () => void (connection.isOnline = true));
    connection.isOnline = isOnline;
    override(view().navigator, 'onLine', isOnline);
    tell?.(view(), event(isOnline ? 'online' : 'offline'));
  },
  language(tag: string, tell?: Tell) {
    undoing.get('language')?.();
    undoing.set('language', enterLanguage(tag));
    override(view().navigator, 'language', tag);
    override(view().navigator, 'languages', Object.freeze([tag]));
    tell?.(view(), event('languagechange'));
  },
  visible(isVisible: boolean, tell?: Tell) {
    override(document, 'visibilityState', isVisible ? 'visible' : 'hidden');
    override(document, 'hidden', !isVisible);
    tell?.(document, event('visibilitychange'));
  },
  storage(items: Texts, tell?: Tell) {
    const storageArea = storageOf('localStorage') ?? null;
    const { href: url } = document.location;
    // As another page of the same site would change it.
    fill(storageArea ?? undefined, items, (key, oldValue, newValue) =>
      tell?.(view(), new (view().StorageEvent)('storage', { key, oldValue, newValue, storageArea, url })),
    );
  },
  session: (items: Texts) => fill(storageOf('sessionStorage'), items),
  cookies(cookies: Texts) {
    for (const [name, value] of Object.entries(cookies)) writeCookie(name, value ?? undefined);
  },
  location(address: string, tell?: Tell) {
    const { history } = view();
    if (!tell) return history.replaceState(null, '', address);
    history.pushState(null, '', address);
    tell(view(), new (view().PopStateEvent)('popstate', { state: null }));
  },
  title: (title: string) => void (document.title = title),
  clipboard(copied: string) {
    standInFor('clipboard');
    surroundings.clipboard = { text: copied };
  },
  position(position: Position | null) {
    standInFor('geolocation');
    atEnd('position', () => void (surroundings.position = undefined));
    surroundings.position = position ?? undefined;
    for (const watcher of surroundings.watchers.values()) tellPosition(watcher);
  },
  permissions(permissions: Readonly<Record<string, Permission>>, tell?: Tell) {
    standInFor('permissions');
    standInFor('Notification');
    atEnd('permissions', () => void (surroundings.permissions = {}));
    surroundings.permissions = { ...surroundings.permissions, ...permissions };
    for (const status of surroundings.statuses)
      if (Object.hasOwn(permissions, status.name)) tell?.(status, event('change'));
  },
};

/** Makes the page as the settings say. @param isChange whether the page fires the events of a change */
export function applySettings(settings: PageOption, isChange: boolean): void {
  const tell: Tell | undefined = isChange ? (target, told) => void target.dispatchEvent(told) : undefined;
  // A real page fires the events of its screen by itself.
  const isOwn = isSimulated(document);
  for (const [name, value] of Object.entries(settings))
    if (value !== undefined && (isOwn || !kinds[name as Setting].isOfScreen))
      setters[name as Setting](value as never, tell);
  if (!isOwn) return;
  if (settings.width !== undefined || settings.height !== undefined) tell?.(view(), event('resize'));
  for (const look of [...mediaState.listening]) look();
}
