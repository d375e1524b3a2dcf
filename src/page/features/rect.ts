const empty = { x: 0, y: 0, top: 0, left: 0, right: 0, bottom: 0, width: 0, height: 0 };

/** The place of whatever is asked for, on a page without a layout. */
export const emptyRect = ({ DOMRect }: Partial<Pick<typeof globalThis, 'DOMRect'>> = {}): object =>
  DOMRect ? new DOMRect() : { ...empty };
