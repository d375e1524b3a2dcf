/** True in a browser: it has a layout, workers and channels. */
export const isBrowser = 'Worker' in globalThis;
