/** What promises, printers, frameworks (Angular's lifecycle) and equality checks read of anything they are handed. */
const names = new Set([
  ...['then', 'toJSON', 'constructor', 'prototype', 'inspect', 'length', 'size', '__esModule', 'nodeType'],
  ...['nodeName', 'tagName', 'hasAttribute', 'asymmetricMatch', '$$typeof', 'simulacra', 'ngOnDestroy'],
]);

/** True for a member that nobody's code asks for, only tools that look what a value is. */
export const isProbed = (key: string | symbol): boolean =>
  typeof key === 'symbol' || names.has(key) || /^(@@|__|_is)/.test(key);
