import { forgetAddress, noteAddress } from '../globals/resources';
import { emptyRect } from './rect';

type Features = Record<string, PropertyDescriptor | ((...args: never[]) => unknown)>;

let addresses = 0;

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
    createObjectURL(_blob: unknown) {
      const address = `blob:${globalThis.location?.origin ?? 'null'}/${++addresses}`;
      noteAddress(address, documentFeatures['URL']!['createObjectURL'] as () => unknown);
      return address;
    },
    revokeObjectURL: forgetAddress,
  },
};
