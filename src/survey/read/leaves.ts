import type { LeafKind } from '../facts';

type Found = { readonly kind: LeafKind; readonly what: string } | undefined;

const features = new Set(
  ['IntersectionObserver', 'ResizeObserver', 'EventSource', 'Worker', 'SharedWorker', 'Notification'].concat([
    'matchMedia',
    'Audio',
    'MediaRecorder',
    'speechSynthesis',
    'PaymentRequest',
    'RTCPeerConnection',
  ]),
);
const calls: Readonly<Record<string, LeafKind>> = {
  fetch: 'request',
  setTimeout: 'timer',
  setInterval: 'timer',
  requestAnimationFrame: 'timer',
  requestIdleCallback: 'timer',
  matchMedia: 'page feature',
  alert: 'page feature',
  confirm: 'page feature',
  prompt: 'page feature',
};
const made: Readonly<Record<string, LeafKind>> = {
  XMLHttpRequest: 'request',
  WebSocket: 'socket',
  EventSource: 'event stream',
  Worker: 'worker',
  SharedWorker: 'worker',
  BroadcastChannel: 'global',
};
const objects: Readonly<Record<string, LeafKind>> = {
  localStorage: 'storage',
  sessionStorage: 'storage',
  indexedDB: 'storage',
  caches: 'storage',
  cookieStore: 'storage',
};
const members: Readonly<Record<string, LeafKind>> = {
  'Date.now': 'clock',
  'performance.now': 'clock',
  'Math.random': 'chance',
  'crypto.randomUUID': 'chance',
  'crypto.getRandomValues': 'chance',
  'document.cookie': 'storage',
  'document.title': 'global',
  'navigator.sendBeacon': 'request',
  'navigator.onLine': 'page feature',
  'navigator.language': 'page feature',
  'navigator.geolocation': 'page feature',
  'navigator.clipboard': 'page feature',
  'navigator.mediaDevices': 'page feature',
  'navigator.permissions': 'page feature',
  'navigator.serviceWorker': 'worker',
  'navigator.share': 'page feature',
  'location.assign': 'navigation',
  'location.replace': 'navigation',
  'location.reload': 'navigation',
  'location.href': 'navigation',
  'location.search': 'navigation',
  'location.pathname': 'navigation',
  'location.hash': 'navigation',
  'history.pushState': 'navigation',
  'history.replaceState': 'navigation',
  'history.back': 'navigation',
  'document.addEventListener': 'global',
  'window.addEventListener': 'global',
  'window.open': 'navigation',
  'window.scrollTo': 'page feature',
};
/** Methods of elements that a simulated page lacks. */
const ofElements = new Set([
  ...['getContext', 'scrollIntoView', 'showModal', 'showPopover', 'requestFullscreen', 'setPointerCapture'],
  ...['requestPointerLock', 'requestPictureInPicture', 'captureStream'],
]);

const own = <T>(table: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;

/** What a global function does that is called by its name. */
export const calledGlobal = (name: string): Found => {
  const kind = own(calls, name);
  return kind && { kind, what: name };
};

/** What a global class does that is made by `new`. */
export function madeGlobal(name: string, count: number): Found {
  if (name === 'Date') return count === 0 ? { kind: 'clock', what: 'new Date()' } : undefined;
  const kind = own(made, name) ?? (features.has(name) ? 'page feature' : undefined);
  return kind && { kind, what: name };
}

/** What a part of a global object is: `localStorage.getItem`, `Date.now`. */
export function memberOfGlobal(object: string, member: string | undefined): Found {
  const kind = own(objects, object);
  if (kind) return { kind, what: object };
  const name = `${object}.${member ?? ''}`;
  const found = own(members, name);
  return found && { kind: found, what: name };
}

/** What a method of any element does that a simulated page lacks. */
export const methodOfElement = (method: string): Found =>
  ofElements.has(method) ? { kind: 'page feature', what: method } : undefined;

/** Names under which the global object itself is known. */
export const isGlobalObject = (name: string): boolean => /^(window|globalThis|self|global)$/.test(name);

export type PackageKind = 'network' | 'router' | 'store' | 'storage';

// What a component leans on when it uses a package of these.
const packages: readonly (readonly [PackageKind, RegExp])[] = [
  [
    'network',
    /^(axios|ky|got|ofetch|superagent|swr|graphql-request|socket\.io-client|urql|apollo-client|firebase|graphql-ws|@(tanstack\/\w+-query(-experimental)?|apollo\/client|urql\/\w+|supabase\/\S+|trpc\/client|rtk-query\/\S+|microsoft\/signalr|angular\/common\/http|stomp\/\S+))(\/|$)/,
  ],
  [
    'router',
    /^(react-router|react-router-dom|vue-router|@angular\/router|wouter|@tanstack\/\w+-router|next\/(router|navigation|link))(\/|$)/,
  ],
  [
    'store',
    /^(redux|react-redux|zustand|jotai|recoil|mobx|mobx-react|mobx-react-lite|pinia|vuex|valtio|@(reduxjs\/toolkit|ngrx\/\S+|ngxs\/\S+|xstate\/\S+))(\/|$)/,
  ],
  ['storage', /^(localforage|idb|idb-keyval|js-cookie|dexie)(\/|$)/],
];

/** What a package is for, as far as that concerns a test. */
export const packageKind = (specifier: string): PackageKind | undefined =>
  packages.find(([, names]) => names.test(specifier))?.[0];

/** True for what a framework itself exports: it is no dependency that one would replace. */
export const isFramework = (specifier: string): boolean =>
  /^(react|react-dom|preact|vue|tslib|@vue\/[\w-]+|@angular\/(core|common|forms|platform-browser|animations|localize))(\/(?!http)|$)/.test(
    specifier,
  );
