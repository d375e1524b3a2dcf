import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Draft } from '../model';
import { type Known, referenceTo } from '../plan';
import type { FailureSeen } from '../run/observed';
import { code, text } from '../value';
import { providerOf } from './find';
import { addOptional } from './given';
import { type Mended, addWrapper, nodeNamed, writes } from './mended';
import { addPackage, addProvider, isByWrapper, withRequired } from './provide';

/** What threw lacked something: the first of what may help that was not tried. */
export function mendThrown(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const ways = [askedAround, askedByName, pluginFor, addPackage, stubThrower, addOptional];
  for (const way of ways) {
    const mended = way(known, draft, failure);
    if (mended && !tried.has(mended.done)) return { ...mended, isGuess: true };
  }
  return undefined;
}

const askedAround = (known: Known, draft: Draft, failure: FailureSeen): Mended | undefined =>
  failure.fields['around'] === undefined ? undefined : addProvider(known, draft, failure);

/** `useHives must be used within a HivesProvider`, `HiveItem must be used within HiveList` */

function askedByName(known: Known, draft: Draft, failure: FailureSeen): Mended | undefined {
  const { given } = draft;
  const message = failure.thrown?.message ?? String(failure.fields['threw'] ?? '');
  const inside =
    /\b(?:within|inside|below|under|wrapped (?:in|with)|child of|missing|in an?)\b(.*)/is.exec(
      message,
    )?.[1] ?? '';
  const names = [
    ...`${inside} ${/\b[A-Z]\w*Provider\b/.exec(message)?.[0] ?? ''}`.matchAll(/\b[A-Z]\w+/g),
  ].map(([name]) => name);
  for (const name of new Set(names)) {
    const own = providerOf(known, name);
    if (!own) continue;
    const wrapper = withRequired(known, own);
    if (!given.wrap.some((one) => writes(one).includes(name)))
      return addWrapper(given, wrapper, name, isByWrapper(draft, failure));
  }
  return undefined;
}

/** A plugin of the project's own that gives every component what this one reads of `this`. */
function pluginFor(known: Known, { given, framework }: Draft): Mended | undefined {
  if (framework !== 'vue') return undefined;
  const { project, graph } = known.survey;
  const files = new Set(
    graph.nodes.flatMap(({ file, unit }) => (file !== undefined && unit ? [join(known.from, file)] : [])),
  );
  const asked = new Set(
    [...files].flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/\$[a-z]\w+/gi)].map(([name]) => name),
    ),
  );
  for (const file of project.list()) {
    const source = readFileSync(file, 'utf8');
    const [, name = ''] = /globalProperties\.(\$\w+)\s*=/.exec(source) ?? [];
    if (!asked.has(name) || !/\binstall\b/.test(source)) continue;
    const local = `${name.charAt(1).toUpperCase()}${name.slice(2)}`;
    const wrapper = code(local, { name: 'default', local, from: file });
    if (/export default/.test(source) && !given.wrap.some((one) => writes(one) === local))
      return addWrapper(given, wrapper, `the plugin of ${name}`);
  }
  return undefined;
}

function stubThrower(known: Known, { given }: Draft, { fields }: FailureSeen): Mended | undefined {
  const { thrower, subject } = fields;
  if (
    typeof thrower !== 'string' ||
    thrower === subject ||
    thrower === 'Anonymous' ||
    !/^[A-Z]/.test(thrower)
  )
    return undefined;
  const node = nodeNamed(known, thrower, /^component$/);
  const reference = node ? referenceTo(known, node) : text(thrower, true);
  if (!reference || given.stub.some((one) => JSON.stringify(one) === JSON.stringify(reference)))
    return undefined;
  return { given: { ...given, stub: [...given.stub, reference] }, done: `stubbed ${thrower}` };
}
