import { realm } from '../core/host';

/**
 * What every browser has and a simulated page may lack, though the process around it has it. Real
 * routers and clients need these as soon as they are loaded, so they are supplied for good.
 */
const names = [
  'TextEncoder',
  'TextDecoder',
  'ReadableStream',
  'WritableStream',
  'TransformStream',
  'structuredClone',
] as const;

const page = globalThis as unknown as Record<string, unknown>;
for (const name of names) {
  if (name in page || !(name in realm)) continue;
  Object.defineProperty(page, name, {
    configurable: true,
    enumerable: false,
    get: () => realm[name],
    set: (value: unknown) => Object.defineProperty(page, name, { value, configurable: true, writable: true }),
  });
}
