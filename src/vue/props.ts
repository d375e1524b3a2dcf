import type { Declared } from '../stage/declared';
import * as Vue from 'vue';
import { refuse } from '../stage/errors';
import { declared, nameOf, unwrap, type Definition } from './kinds';

interface PropOptions {
  readonly required?: boolean;
}

/** Vue takes what it does not know for an attribute, and only warns of what is missing. */
export function propsOf(component: unknown): Declared {
  const options = declared(unwrap(component) as Definition, 'props') as Record<string, PropOptions | null>;
  const props = Object.keys(options);
  const emits = Object.keys(declared(unwrap(component) as Definition, 'emits'));
  const listeners = emits.map((name) => `on${name[0]?.toUpperCase()}${name.slice(1)}`);
  return {
    known: [...props, ...listeners],
    required: props.filter((name) => options[name]?.required),
    isClosed: false,
  };
}

/** @throws SIM-OPTION-VALUE for an element in `wrap` */
export function refuseOptions(options: { readonly wrap?: readonly unknown[] }, calledAt: Error): void {
  const element = options.wrap?.find((one) => Vue.isVNode(one));
  if (element === undefined) return;
  const wanted = 'plugins and components, outermost first; one of them is an element: give its component';
  refuse('SIM-OPTION-VALUE', { option: 'wrap', value: element, wanted }, { calledAt });
}

/** The component an element was made of by `h()`. */
export const madeOf = (value: unknown): string | undefined =>
  Vue.isVNode(value) ? nameOf(value.type) : undefined;

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
