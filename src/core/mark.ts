/**
 * The mark of what this library makes; undefined for everything else. Marks stand for classes, so that one copy
 * of this library understands what another has made.
 */
export const markOf = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && 'simulacra' in value ? value.simulacra : undefined;
