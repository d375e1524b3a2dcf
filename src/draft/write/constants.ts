import { code, type Value } from '../value';
import { writeLine } from './layout';
import { constantName, hasFixed, reserved } from './names';

/** Values at the top of a file, each under a name of its own. */
export class Constants {
  readonly #all = new Map<string, { readonly name: string; readonly value: Value }>();

  constructor(
    /** Names that are taken by something else. */
    readonly taken: () => readonly string[],
  ) {}

  get all(): readonly { readonly name: string; readonly value: Value }[] {
    return [...this.#all.values()];
  }

  /** A value that is long stands at the top of the file, under a name. */
  named(field: string, value: Value): Value {
    const type = 'type' in value ? value.type : undefined;
    if (value.kind !== 'list' && value.kind !== 'object') return value;
    const isList = value.kind === 'list' && value.items.some(({ kind }) => kind === 'object');
    const isObject = value.kind === 'object' && value.fields.length > 0;
    if (!isList && !isObject) return value;
    // Without its type, the compiler would take words of a union for any text.
    if (!type && (hasFixed(value) || writeLine(value).length < 50)) return value;
    return this.keep(constantName(field), value);
  }

  /** The name of a value at the top of the file. */
  keep(wanted: string, value: Value): Value {
    const key = JSON.stringify(value);
    const known = this.#all.get(key);
    if (known) return code(known.name);
    const name = this.#free(wanted);
    this.#all.set(key, { name, value });
    return code(name);
  }

  #free(wanted: string): string {
    const taken = new Set([...this.all.map(({ name }) => name), ...reserved, ...this.taken()]);
    if (!taken.has(wanted)) return wanted;
    for (let number = 2; ; number++) if (!taken.has(`${wanted}${number}`)) return `${wanted}${number}`;
  }
}
