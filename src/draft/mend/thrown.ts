import type { Draft } from '../model';
import { type Known, referenceTo } from '../plan';
import type { FailureSeen } from '../run/observed';
import { text } from '../value';
import { addNamed, addOptional, dropText, elementInside } from './given';
import { type Mended, addStub, nodeNamed } from './mended';
import { addForm } from './forms';
import { addFeature } from './page';
import { addParent, addParentNamed } from './parents';
import { addPlugin } from './plugins';
import { addPackage, addProvider } from './provide';

/** What threw lacked something: the first of what may help that was not tried. */
export function mendThrown(
  known: Known,
  draft: Draft,
  failure: FailureSeen,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const ways = [
    addFeature,
    addForm,
    askedAround,
    addParentNamed,
    addPlugin,
    addPackage,
    addParent,
    elementInside,
    dropText,
    stubThrower,
    addNamed,
    addOptional,
  ];
  for (const way of ways)
    for (const mended of [way(known, draft, failure)].flat())
      if (mended && !tried.has(mended.done)) return { ...mended, isGuess: true };
  return undefined;
}

const askedAround = (known: Known, draft: Draft, failure: FailureSeen): Mended | undefined =>
  failure.fields['around'] === undefined ? undefined : addProvider(known, draft, failure);

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
  return reference && addStub(given, reference, `stubbed ${thrower}`);
}
