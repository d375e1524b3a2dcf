import { realm } from '../../core/host';
import { supplyGlobal, type Page } from '../../core/replace';

/**
 * Features that every browser has and that the process has, but that a simulated page may hide. Routers and
 * clients need them while they load.
 */
const names = [
  'TextEncoder',
  'TextDecoder',
  'ReadableStream',
  'WritableStream',
  'TransformStream',
  'structuredClone',
] as const;

/** Supplies the standards a page lacks, permanently. */
export function supplyStandards(page: Page): void {
  for (const name of names) {
    if (!(name in page) && name in realm) supplyGlobal(page, name, () => realm[name], false);
  }
}
