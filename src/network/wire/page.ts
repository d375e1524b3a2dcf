import type { Page } from '../../core/replace';

/** The page whose classes these extend, read when the first of them is asked for. */
export const page = ((globalThis as { window?: unknown }).window ?? globalThis) as Page;

export const Target = page['EventTarget'] as typeof EventTarget;
