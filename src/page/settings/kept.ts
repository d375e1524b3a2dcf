import { once } from '../../core/shared';
import { written } from '../globals/written';
import { surroundings } from '../surroundings';

/** What a page keeps for a person, beyond what is rendered. */
interface Kept {
  readonly local: readonly Item[];
  readonly session: readonly Item[];
  readonly address: string;
  /** The cookies and the title, known once a script has written them. */
  readonly written: Map<'cookie' | 'title', string>;
}
type Item = readonly [key: string, value: string];

const keeping = once('keeping', () => ({ users: new Set<object>(), before: undefined as Kept | undefined }));

/** Notes what the page keeps before the first of the subjects that are up. @returns how to put it back after the last */
export function keepPage(user: object): () => void {
  if (typeof document === 'undefined') return () => undefined;
  if (keeping.users.size === 0) keeping.before = read();
  keeping.users.add(user);
  return () => {
    keeping.users.delete(user);
    if (keeping.users.size > 0 || !keeping.before) return;
    written.before = undefined;
    putBack(keeping.before);
    keeping.before = undefined;
  };
}

function read(): Kept {
  const texts = new Map<'cookie' | 'title', string>();
  // Reading them takes a while, and few components write them.
  written.before = (what, { cookie, title }) =>
    void (texts.has(what) || texts.set(what, what === 'cookie' ? cookie : title));
  return {
    local: itemsOf(storageOf('localStorage')),
    session: itemsOf(storageOf('sessionStorage')),
    address: document.location.href,
    written: texts,
  };
}

function putBack({ local, session, address, written: texts }: Kept): void {
  refill(storageOf('localStorage'), local);
  refill(storageOf('sessionStorage'), session);
  const [cookies, title] = [texts.get('cookie'), texts.get('title')];
  if (cookies !== undefined) putBackCookies(cookies);
  if (title !== undefined) putBackTitle(title);
  // An address of another origin is none that a script has gone to.
  const { location, defaultView } = document;
  if (location.href !== address && address.startsWith(location.origin))
    defaultView?.history.replaceState(null, '', address);
  surroundings.clipboard = { text: '' };
  surroundings.notifications.length = 0;
  surroundings.watchers.clear();
  surroundings.statuses.clear();
}

function putBackTitle(title: string): void {
  if (title === '') document.querySelector('head > title')?.remove();
  else document.title = title;
}

/** A page without an origin has no storage, and throws where it is asked for it. */
export function storageOf(name: 'localStorage' | 'sessionStorage'): Storage | undefined {
  try {
    return document.defaultView?.[name];
  } catch {
    return undefined;
  }
}

const itemsOf = (storage: Storage | undefined): readonly Item[] =>
  !storage || storage.length === 0
    ? []
    : Array.from({ length: storage.length }, (_, at) => {
        const key = storage.key(at)!;
        return [key, storage.getItem(key)!] as const;
      });

function refill(storage: Storage | undefined, items: readonly Item[]): void {
  if (!storage || (storage.length === 0 && items.length === 0)) return;
  storage.clear();
  for (const [key, value] of items) storage.setItem(key, value);
}

const nameOf = (cookie: string): string => cookie.split('=')[0]!.trim();

function putBackCookies(cookies: string): void {
  for (const cookie of document.cookie.split(';').filter(Boolean)) writeCookie(nameOf(cookie), undefined);
  for (const cookie of cookies.split('; ').filter(Boolean))
    writeCookie(nameOf(cookie), cookie.slice(cookie.indexOf('=') + 1));
}

/** Sets a cookie for the whole site; undefined takes it away. */
export function writeCookie(name: string, value: string | undefined): void {
  if (value !== undefined) document.cookie = `${name}=${value}; path=/`;
  else {
    const gone = `${name}=; expires=Thu, 01 Jan 1970 00:00:00 GMT`;
    document.cookie = `${gone}; path=/`;
    document.cookie = gone;
  }
}
