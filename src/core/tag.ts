/**
 * Names the objects of a class as the platform does: `[object ResizeObserver]`. Vue, for one, wraps objects without
 * a name of their own in proxies, which cannot call methods that read private fields.
 *
 * @see https://webidl.spec.whatwg.org/#dfn-class-string
 */
export function tagAs({ prototype }: { readonly prototype: object }, name: string): void {
  Object.defineProperty(prototype, Symbol.toStringTag, { value: name, configurable: true });
}
