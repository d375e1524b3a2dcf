export { fromHar, type PlayOptions } from './play';
export { toHar } from './write';
export type { Har, HarEntry, HarField } from './format';
