/** A request's address as messages have it: without the origin where that is the page's own. */
export const printAddress = (url: URL): string => `${isHome(url) ? '' : url.origin}${printPath(url)}`;

export const printPath = (url: URL): string => `${url.pathname}${url.search}`;

const isHome = (url: URL) =>
  url.origin === (globalThis as { location?: Location }).location?.origin || url.hostname === 'localhost';
