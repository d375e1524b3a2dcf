/** A body or a message as a test compares it: parsed where it is JSON, else as it was given. */
export function parsed(given: unknown): unknown {
  if (typeof given !== 'string') return given;
  try {
    return JSON.parse(given) as unknown;
  } catch {
    return given;
  }
}
