import { supplyFeatures } from '../../src/page/globals/features';
import { whyHidden } from '../../src/page/hidden';
import { nameOf } from '../../src/page/names';
import { roleOf } from '../../src/page/roles';
import { stateNames, stateOf } from '../../src/page/states';

/** Gives a simulated page what the library gives one. */
export const prepare = () => supplyFeatures(globalThis as never);

/** What the library reads of an element. */
export const read = (element: Element) => ({
  role: roleOf(element) ?? '',
  name: nameOf(element),
  isHidden: whyHidden(element, true) !== undefined,
  ...Object.fromEntries(stateNames.map((key) => [key, stateOf(element, key)])),
});
