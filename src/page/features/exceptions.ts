/** What the platform throws, by the name its standard gives it. @see https://webidl.spec.whatwg.org/#idl-DOMException */
export const domException = (
  { DOMException }: Pick<typeof globalThis, 'DOMException'>,
  name: string,
  message: string,
): DOMException => new DOMException(message, name);
