import type { Leaf, Part, Parts, Unit, Use } from './facts';
import type { Found, Linker } from './link';
import { isArgument } from './read/addresses';

/** A request that depends on what its function is called with. */
interface Open {
  readonly leaf: Leaf;
  readonly address: Parts;
  readonly within: string | undefined;
}

/** True where callers say what is asked for: not for a part of a path, as in `/api/hives/${id}`. */
export const isOpen = (address: Parts): boolean =>
  address.some((part, index) => {
    const before = address[index - 1];
    return isArgument(part) && !(typeof before === 'string' && /[/=]$/.test(before));
  });

/** Finds what is asked for through functions of the project's own: `getJson('/api/hives')`. */
export class Requests {
  readonly #open = new Map<Unit, readonly Open[]>();

  constructor(readonly linker: Linker) {}

  /** The requests of a unit whose address its callers give. */
  openOf(file: string, unit: Unit): readonly Open[] {
    const known = this.#open.get(unit);
    if (known) return known;
    this.#open.set(unit, []);
    const own = unit.leaves
      .filter(({ kind, address }) => kind === 'request' && address && isOpen(address))
      .map((leaf) => ({ leaf, address: leaf.address!, within: leaf.within }));
    const handedOn = unit.uses.flatMap((use) =>
      this.#filled(this.linker.find(file, use.name, use.member), use).filter(({ address }) =>
        isOpen(address),
      ),
    );
    const all = [...own, ...handedOn];
    this.#open.set(unit, all);
    return all;
  }

  /** What one use of a function asks for, found for its name; where the use does not say, the address is a value. */
  askedBy(target: Found | undefined, use: Use): readonly Leaf[] {
    return this.#filled(target, use)
      .filter(({ address }) => !isOpen(address))
      .map(({ leaf, address }) => ({ ...leaf, line: use.line, address }));
  }

  #filled(target: Found | undefined, use: Use): readonly Open[] {
    // What a component asks for stands with the component.
    if (target?.kind !== 'unit' || target.unit.kind === 'component') return [];
    return this.openOf(target.file, target.unit)
      .filter(({ within }) => within === undefined || use.member === undefined || within === use.member)
      .map(({ leaf, address }) => {
        const filled = address.flatMap((part): Parts => {
          if (!isArgument(part)) return [part];
          return use.addresses?.[part.argument] ?? [{ unknown: part.unknown }];
        });
        return { leaf, address: filled, within: use.within };
      });
  }
}

/** An address as routes are written: `/api/hives/:hiveId`, without what follows a question mark. */
export function printAddress(linker: Linker, file: string, parts: Parts, depth = 0): string {
  const written = printText(linker, file, parts, depth);
  const path = written.replace(/[?#].*$/s, '');
  // What stands before the first slash is where the service is.
  return (
    path
      .replace(/^((wss?|https?):\/\/)?:[\w$]+(?=\/)/, '')
      .replace(/(?<=[\w-]):(?=[A-Za-z])(?!\/\/)/g, '…:') || path
  );
}

/** A text as far as it is known, as it is written. */
export const printText = (linker: Linker, file: string, parts: Parts, depth = 0): string =>
  parts.map((part) => printPart(linker, file, part, depth)).join('');

function printPart(linker: Linker, file: string, part: Part, depth: number): string {
  if (typeof part === 'string') return part;
  if (!('constant' in part)) return `:${part.unknown}`;
  const found = depth > 8 ? undefined : linker.find(file, part.constant, part.member);
  const unit = found?.kind === 'unit' ? found.unit : undefined;
  const text = part.member ? unit?.texts?.[part.member] : unit?.text;
  if (found?.kind === 'unit' && text) return printText(linker, found.file, text, depth + 1);
  return `:${part.member ?? part.constant}`;
}
