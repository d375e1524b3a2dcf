import { files, isAsked } from '../core/files';
import { siteIn } from '../core/origin';
import { declarationOf } from '../states/place';
import type { StateSet } from '../states/sets';
import { explain } from '../states/errors';
import type { Runner } from './runner';

/* Accepted looks: the outline of each state, in a text beside the file that declares them. */

/** The looks of a component's states, by name, as they are kept: each after a line `[name]`. */
function readLooks(text: string): Map<string, string> {
  const [, ...parts] = text.split(/^\[(.+)\]$/m);
  const looks = new Map<string, string>();
  for (let at = 0; at + 1 < parts.length; at += 2) looks.set(parts[at]!, parts[at + 1]!.trim());
  return looks;
}

const printLooks = (component: string, looks: ReadonlyMap<string, string>): string =>
  `${[
    `What ${component} looks like in each of its states. ACCEPT_LOOKS=1 writes it anew.`,
    ...[...looks].map(([name, look]) => `[${name}]\n${look}`),
  ].join('\n\n')}\n`;

/** The text beside the file that declares the states. */
function pathOf({ component, declaredAt }: StateSet): string {
  const { file = component } = siteIn(declaredAt) ?? {};
  const base = /^(.*)\.states\.[cm]?[jt]sx?$/.exec(file)?.[1];
  // States that stand in another file, a test for example, have a text of their component.
  return `${base ?? file.replace(/[^\\/]*$/, component)}.looks.txt`;
}

const isAccepting = () => isAsked('ACCEPT_LOOKS');

/**
 * Whether looks are compared. Where there are no files, they are not.
 *
 * @param isWanted undefined to do so only where some were accepted
 */
export const hasLooks = (set: StateSet, isWanted: boolean | undefined): boolean =>
  files() !== undefined && (isWanted ?? (isAccepting() || files()!.existsSync(pathOf(set))));

/**
 * Compares how a state looks with what was accepted, or accepts it.
 *
 * @throws SIM-LOOK-NEW, SIM-LOOK-CHANGED
 */
export function compareLooks(
  set: StateSet,
  name: string,
  outline: string,
  expect: NonNullable<Runner['expect']>,
): void {
  const { component, states, declaredAt } = set;
  const path = pathOf(set);
  const all = files()!;
  const looks = all.existsSync(path) ? readLooks(all.readFileSync(path, 'utf8')) : new Map<string, string>();
  const accepted = looks.get(name);
  if (accepted === outline) return;
  if (isAccepting()) {
    looks.set(name, outline);
    const kept = states.map((one) => [one.name, looks.get(one.name)] as const);
    const known = kept.filter((one): one is readonly [string, string] => one[1] !== undefined);
    all.writeFileSync(path, printLooks(component, new Map(known)));
    return;
  }
  const at = path.split(/[\\/]/).at(-1)!;
  const fields = { component, state: name, file: at };
  const calledAt = declarationOf(name, declaredAt);
  if (accepted === undefined) throw explain('SIM-LOOK-NEW', { ...fields, outline }, { calledAt });
  throw explain(
    'SIM-LOOK-CHANGED',
    { ...fields, changes: changesOf(accepted, outline, expect) },
    { calledAt },
  );
}

/** Both texts, line by line, with what went and what came, as the runner compares them. */
function changesOf(before: string, after: string, expect: NonNullable<Runner['expect']>): string {
  try {
    expect(after).toBe(before);
    return '';
  } catch (difference) {
    // eslint-disable-next-line no-control-regex -- colours
    const [, ...rest] = (difference as Error).message.replace(/\u001b\[\d+m/g, '').split(/\n\n/);
    return rest.join('\n\n');
  }
}
