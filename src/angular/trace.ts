import { isError } from '../core/is-error';
/**
 * The component whose code a stack leads through first: a template is a function named after its component,
 * a hook a method of it.
 */
export function throwerIn(error: unknown): string | undefined {
  const stack = isError(error) ? (error.stack ?? '') : '';
  const found =
    /at (?:Object\.)?_?(\w+?)_(?:\w+_)?Template\b|at _?(\w+)\.ng[A-Z]\w+|at new _?([A-Z]\w+)/.exec(stack) ??
    [];
  return found[1] ?? found[2] ?? found[3];
}
