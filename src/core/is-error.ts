/** True for an error, also one of another realm: a page's own in a runner, or the runner's in a page. */
export const isError = (value: unknown): value is Error =>
  value instanceof Error || Object.prototype.toString.call(value) === '[object Error]';
