import { part, takeDown } from 'simulacra';

/** What is asked of a subject, whatever its framework. */
interface Seen {
  outline(options?: { readonly depth?: number }): string;
  findAll(locator: ReturnType<typeof part>): readonly Element[];
  readonly chronicle: { of(kind: 'logged'): readonly { readonly what: string; readonly detail?: string }[] };
}

/** One component of a library, as it is isolated and as a parent renders it. */
export interface Piece {
  readonly name: string;
  readonly component: unknown;
  /** What else a person sees of it, whatever is stubbed. */
  alone(options: { readonly depth?: number }): Promise<Seen>;
  /** In a parent that renders it, with it stubbed. */
  stubbed(): Promise<Seen>;
}

const page = () => [...document.body.children].filter((element) => element.childNodes.length > 0);

/** What must hold of every component of a library: whole, with its children stubbed, and stubbed itself. */
export function sweep(library: string, pieces: readonly Piece[]): void {
  describe(library, () => {
    it('has ten components', () => expect(pieces.length).toBe(10));

    it.each(pieces.map((piece) => [piece.name, piece] as const))('%s', async (name, piece) => {
      const { component } = piece;
      const before = page();
      const whole = await piece.alone({});
      expect(whole.outline().split('\n')[0]).toContain(name);
      expect(whole.chronicle.of('logged').map(({ detail }) => detail)).toEqual([]);
      await takeDown();
      expect(page()).toEqual(before);

      const shallow = await piece.alone({ depth: 1 });
      expect(shallow.outline({ depth: 1 })).not.toBe('');
      expect(shallow.chronicle.of('logged').map(({ detail }) => detail)).toEqual([]);
      await takeDown();
      expect(page()).toEqual(before);

      const parent = await piece.stubbed();
      expect(parent.findAll(part(component, { hidden: true })).length).toBe(1);
      expect(parent.outline()).toContain(name);
      await takeDown();
      expect(page()).toEqual(before);
    });
  });
}
