import type { Page } from '../../core/replace';
import { blobFeatures } from './blobs';
import { documentFeatures } from './document';
import { elementFeatures } from './elements';
import { makeEventClasses } from './events';
import { makeMatchMedia } from './media';
import { makeObservers } from './observers';
import { mediaFeatures } from './playing';
import { makeSurroundings } from './surroundings';
import { tagAs } from '../../core/tag';
import { makeWindowFeatures } from './window';

const windows = new WeakMap<Page, Record<string, unknown>>();

/** Makes what a page lacks. @param place what it belongs to: nothing for the window, `Element.prototype` */
export function makeFeature(page: Page, place: string, name: string): PropertyDescriptor {
  const made = place === '' ? featuresOf(page) : placed(page)[place]!;
  const feature = made[name];
  return typeof feature === 'object' && feature !== null && ('get' in feature || 'set' in feature)
    ? (feature as PropertyDescriptor)
    : { value: feature };
}

const placed = (page: Page): Readonly<Record<string, Readonly<Record<string, unknown>>>> => ({
  ...elementFeatures,
  ...documentFeatures,
  'Blob.prototype': blobFeatures,
  'HTMLMediaElement.prototype': mediaFeatures,
  'Navigator.prototype': featuresOf(page)['navigator'] as Record<string, unknown>,
});

// A process may have a document as a global, and not all that belongs to its window.
const windowOf = (page: Page) =>
  ((page['document'] as Document).defaultView ?? page) as unknown as typeof globalThis;

function featuresOf(page: Page): Record<string, unknown> {
  let found = windows.get(page);
  if (!found) {
    found = {
      ...makeObservers(page),
      ...makeWindowFeatures(page),
      ...makeEventClasses(windowOf(page)),
      ...makeSurroundings(windowOf(page)),
      matchMedia: makeMatchMedia(page),
    };
    for (const [name, made] of Object.entries(found))
      if (typeof made === 'function' && /^[A-Z]/.test(name)) tagAs(made, name);
    windows.set(page, found);
  }
  return found;
}
