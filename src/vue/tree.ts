import * as Vue from 'vue';
import type { Instance, TreeNode } from '../stage/adapter';
import { readDom } from '../stage/read-dom';
import { elementIn } from './element-in';
import { isAsyncWrapper, isBuiltIn, isLater, listenersIn, nameOf } from './kinds';
import { isStubComponent } from './stub-component';

/** What a vnode has rendered, as the outline prints it. */
export function readNode(vnode: Vue.VNode): TreeNode[] {
  const { type, component, suspense, children, el } = vnode;
  if (suspense) return suspense.activeBranch ? readNode(suspense.activeBranch) : [];
  if (component) return readComponent(component);
  if (type === Vue.Text) return [{ kind: 'text', text: String(children) }];
  if (type === Vue.Comment) return [];
  // Static markup and `v-html` have no vnodes.
  if (type === Vue.Static) return el ? readDom(el as Node) : [];
  if (typeof type !== 'string') return Array.isArray(children) ? readAll(children) : [];
  const element = el as Element;
  const inside = Array.isArray(children)
    ? readAll(children)
    : [...element.childNodes].flatMap((child) => readDom(child));
  return [{ kind: 'element', element, children: inside }];
}

const readAll = (children: Vue.VNodeArrayChildren): TreeNode[] =>
  children.flatMap((child) => (Vue.isVNode(child) ? readNode(child) : []));

function readComponent(instance: Vue.ComponentInternalInstance): TreeNode[] {
  const { type, props, attrs, subTree } = instance;
  const children = subTree ? readNode(subTree) : [];
  if (isBuiltIn(type) || isAsyncWrapper(type) || isLater(type)) return children;
  return [
    {
      kind: 'component',
      name: nameOf(type) ?? 'Anonymous',
      stub: isStubComponent(type),
      props: { ...props, ...attrs },
      children,
    },
  ];
}

/** Every instance of a component that fits a vnode has rendered, outermost first. */
export function readInstances(vnode: Vue.VNode, fits: (component: unknown) => boolean): Instance[] {
  const found: Instance[] = [];
  visit(vnode, (instance) => {
    const { type, props, attrs, subTree } = instance;
    if (fits(type) && !isAsyncWrapper(type))
      found.push({
        props: { ...props, ...attrs },
        element: elementIn(subTree),
        heard: listenersIn(instance.vnode.props),
      });
  });
  return found;
}

function visit(vnode: Vue.VNode, look: (instance: Vue.ComponentInternalInstance) => void): void {
  const { component, suspense, children } = vnode;
  if (suspense) return suspense.activeBranch ? visit(suspense.activeBranch, look) : undefined;
  if (component) {
    look(component);
    if (component.subTree) visit(component.subTree, look);
    return;
  }
  if (Array.isArray(children)) for (const child of children) if (Vue.isVNode(child)) visit(child, look);
}
