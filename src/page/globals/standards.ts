import { realm } from '../../core/host';
import { supplyGlobal, type Page } from '../../core/replace';

/**
 * What every browser has and a simulated page may lack, though the process around it has it. Real
 * routers and clients need these as soon as they are loaded.
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
