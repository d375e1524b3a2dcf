import type { Sheet } from './model';
import type { DrawOptions } from './options';
import { Studio } from './studio';

/**
 * Brings about every declared state of some files in a browser, and takes a picture of each.
 *
 * @throws what keeps all of them from being drawn: no browser, a configuration that cannot be loaded
 */
export async function drawSheet(options: DrawOptions): Promise<Sheet> {
  const begun = performance.now();
  const studio = await Studio.open(options);
  try {
    const components = await studio.drawAll();
    const milliseconds = Math.round(performance.now() - begun);
    const made = new Date().toISOString();
    return { simulacra: 'sheet', version: 1, made, milliseconds, shard: options.shard, components };
  } finally {
    await studio.close();
  }
}
