import { emptyRect } from './rect';

type Features = Record<string, PropertyDescriptor | ((...args: never[]) => unknown)>;

const blobs = new Map<string, unknown>();

const fonts: PropertyDescriptor = {
  get(this: Document) {
    const { EventTarget } = this.defaultView as unknown as typeof globalThis;
    return (known ??= Object.assign(new EventTarget(), {
      status: 'loaded',
      size: 0,
      ready: Promise.resolve(),
      load: () => Promise.resolve([]),
      check: () => true,
      add() {},
      delete: () => false,
      forEach() {},
    }));
  },
};
let known: object | undefined;

/** What a document has, and ranges and addresses. */
export const documentFeatures: Readonly<Record<string, Features>> = {
  'Document.prototype': {
    // No command is supported, which a browser may say of any command.
    execCommand: () => false,
    queryCommandSupported: () => false,
    elementFromPoint: () => null,
    elementsFromPoint: () => [],
    getAnimations: () => [],
    fonts,
    scrollingElement: {
      get(this: Document) {
        return this.documentElement;
      },
    },
    fullscreenElement: { get: () => null },
  },
  'Range.prototype': {
    getClientRects: () => [],
    getBoundingClientRect: () => emptyRect(),
  },
  URL: {
    createObjectURL(blob: unknown) {
      const address = `blob:${globalThis.location?.origin ?? 'null'}/${blobs.size + 1}`;
      blobs.set(address, blob);
      return address;
    },
    revokeObjectURL(address: string) {
      blobs.delete(address);
    },
  },
};
