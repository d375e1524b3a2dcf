import type { Declared } from '../stage/declared';
import { declared, unwrap, type Definition } from './kinds';

interface PropOptions {
  readonly required?: boolean;
}

/** Vue takes what it does not know for an attribute, and only warns of what is missing. */
export function propsOf(component: unknown): Declared {
  const options = declared(unwrap(component) as Definition, 'props') as Record<string, PropOptions | null>;
  const known = Object.keys(options);
  return { known, required: known.filter((name) => options[name]?.required), isClosed: false };
}

/** Vue says nothing of a slot that a component does not have; one that was never rendered is complained of at the end. */
export const slotsOf = (component: unknown): Declared => ({
  known: slotsIn(unwrap(component) as Definition),
  isClosed: false,
});

/** The slots a component names in its template or its code, as far as they can be read. */
export function slotsIn({ template, render, setup }: Definition): string[] {
  const text = [template, render, setup].map(String).join('\n');
  const named = [
    ...text.matchAll(/renderSlot\)?\([^,]*,\s*["']([\w-]+)["']/g),
    ...text.matchAll(/<slot\b[^>]*?\sname="([\w-]+)"/g),
    ...text.matchAll(/slots\??\.(\w+)/g),
  ].map(([, name]) => name!);
  return [...new Set([...named, ...(/<slot(?![^>]*\sname=)/.test(text) ? ['default'] : [])])];
}
