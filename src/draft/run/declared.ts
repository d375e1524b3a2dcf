import type { DeclaredSeen } from './observed';

interface Options {
  readonly props?: readonly string[] | Readonly<Record<string, unknown>>;
  readonly extends?: Options;
  readonly mixins?: readonly Options[];
}

/** The props that a component of options declares, with those of what it is made of. */
export function declaredBy(component: unknown): readonly DeclaredSeen[] {
  const found = new Map<string, DeclaredSeen>();
  const read = (options: Options | undefined): void => {
    if (typeof options !== 'object') return;
    for (const base of [options.extends, ...(options.mixins ?? [])]) read(base);
    const { props = {} } = options;
    const all = Array.isArray(props)
      ? props.map((name) => [String(name), null] as const)
      : Object.entries(props);
    for (const [name, declared] of all) found.set(name, readOne(name, declared));
  };
  read(component as Options | undefined);
  return [...found.values()];
}

function readOne(name: string, declared: unknown): DeclaredSeen {
  const options = declared as { readonly type?: unknown; readonly required?: unknown } | null;
  const isOptions = typeof declared === 'object' && declared !== null && !Array.isArray(declared);
  const types = [isOptions ? options!.type : declared].flat();
  return {
    name,
    kinds: types.flatMap((one) => (typeof one === 'function' ? one.name : [])),
    isRequired: isOptions && options!.required === true,
  };
}
