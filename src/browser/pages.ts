import type { Browser } from 'puppeteer-core';
import type { ServedProject } from './project';
import { Slot } from './slot';

interface HowManyPages {
  /** How many pages at once. */
  readonly pages: number;
  readonly isOver: () => boolean;
}

/** What runs long grows: after so many things a page is made anew. */
const longest = 90;

/** Does several things on pages, several of them at once. Each page does one after the other. */
export async function onPages<T>(
  browser: Browser,
  all: readonly T[],
  { pages, isOver }: HowManyPages,
  work: (one: T, slot: Slot, at: number) => Promise<unknown>,
): Promise<void> {
  let next = 0;
  const workOn = async () => {
    const slot = new Slot(browser);
    try {
      for (let count = 1; next < all.length && !isOver(); count++) {
        const at = next++;
        if (count % longest === 0) await slot.close();
        await work(all[at]!, slot, at);
      }
    } finally {
      await slot.close();
    }
  };
  await Promise.all(Array.from({ length: Math.max(1, Math.min(pages, all.length)) }, workOn));
}

const attempts = 4;

/** Does something on a page. A package that is prepared late makes the page load another copy of it: it is begun anew then. */
export async function withPackages<T>(
  { prepared }: ServedProject,
  work: (isFirst: boolean) => Promise<T>,
): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const before = prepared();
    const done = await work(attempt === 1);
    if (attempt === attempts || prepared() === before) return done;
  }
}
