import * as Vue from 'vue';

/** The outermost element a vnode has rendered, also where a Teleport has put it. */
export function elementIn(vnode: Vue.VNode): Element | undefined {
  const { type, component, suspense, children, el, anchor } = vnode;
  if (suspense) return suspense.activeBranch ? elementIn(suspense.activeBranch) : undefined;
  if (component) return component.subTree && elementIn(component.subTree);
  if (typeof type === 'string') return el as Element;
  // Static markup has no vnodes.
  if (type === Vue.Static)
    for (let at = el as Node | null; at; at = at === anchor ? null : at.nextSibling)
      if (at.nodeType === 1) return at as Element;
  for (const child of Array.isArray(children) ? children : []) {
    const found = Vue.isVNode(child) && elementIn(child);
    if (found) return found;
  }
  return undefined;
}
