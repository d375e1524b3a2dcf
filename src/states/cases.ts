import { refuse } from './errors';

/**
 * Makes states of a table: one for each row, to be spread among the others.
 *
 * @param name how each is called, with fields of its row: `'{name} weighs {weight} kg'`; an item that is no object
 * is `{}` itself
 * @param rows the table
 * @param declare what a state declares, for a row
 * @throws SIM-STATE-TWICE where two rows get one name
 * @example
 * const card = states(HiveCard, {}, {
 *   ...cases('{name}', hives, (hive) => ({ props: { hive }, shows: [role('heading', hive.name)] })),
 * });
 * expect(Object.keys(card)).toEqual(['Anemone', 'Borage', 'Clover']);
 */
export function cases<Row, D>(
  name: string,
  rows: readonly Row[],
  declare: (row: Row, at: number) => D,
): Record<string, D> {
  const named = rows.map((row, at) => [nameOf(name, row), declare(row, at)] as const);
  const twice = named.map(([one]) => one).filter((one, at, all) => all.indexOf(one) !== at);
  if (twice.length > 0) refuse('SIM-STATE-TWICE', { pattern: name, names: [...new Set(twice)] });
  return Object.fromEntries(named);
}

const nameOf = (name: string, row: unknown): string =>
  name.replace(/\{([\w.]*)\}/g, (_, path: string) =>
    String(
      path === ''
        ? row
        : path
            .split('.')
            .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], row),
    ),
  );
