import * as React from 'react';
import type { Plan } from '../stage/adapter';
import { bridge, type Fiber } from './bridge';
import { tags } from './fibers';
import { noteThrower } from './traces';

type AnyContext = React.Context<unknown>;

export type OnCaught = (error: unknown, componentStack: string) => void;

/**
 * The component type that marks where the subject begins. Nothing above it is stubbed or counted as a level.
 * Without wrappers and provided values one boundary does both jobs, which saves a component.
 */
export const anchorOf = ({ provide, wrap }: Plan): unknown =>
  provide.length + wrap.length > 0 ? SimulacraAnchor : SimulacraBoundary;

/** The subject inside of what the test provides and wraps around it. */
export function surround(plan: Plan, props: object, onCaught: OnCaught): React.ReactNode {
  const subject = React.createElement(plan.component as React.FC, props);
  if (anchorOf(plan) === SimulacraBoundary) return boundary(onCaught, subject);
  const [outermost] = plan.wrap;
  const provided = plan.provide.reduce<React.ReactNode>(
    (inside, { token, value }) => React.createElement((token as AnyContext).Provider, { value }, inside),
    React.createElement(SimulacraAnchor, { onCaught, wrap: plan.wrap }, subject),
  );
  const wrapped = [...plan.wrap].reverse().reduce<React.ReactNode>(wrapIn, provided);
  const caught = boundary(onCaught, wrapped);
  // React runs effects twice only if StrictMode is the outermost element of the root.
  return isStrictMode(outermost) ? React.createElement(React.StrictMode, null, caught) : caught;
}

const isStrictMode = (wrapper: unknown): boolean =>
  wrapper === React.StrictMode || (React.isValidElement(wrapper) && wrapper.type === React.StrictMode);

let template: React.ReactElement<BoundaryProps> | undefined;

// React captures a stack for each new element, but not for a clone.
const boundary = (onCaught: OnCaught, inside: React.ReactNode): React.ReactElement =>
  React.cloneElement((template ??= React.createElement(SimulacraBoundary)), { onCaught }, inside);

/** A wrapper is a component, a component with props, or an element that takes the subject in. */
function wrapIn(inside: React.ReactNode, wrapper: unknown): React.ReactNode {
  if (React.isValidElement(wrapper)) return React.cloneElement(wrapper, undefined, inside);
  const [component, props] = (Array.isArray(wrapper) ? wrapper : [wrapper]) as [React.ComponentType, object?];
  return React.createElement(component, props, inside);
}

interface BoundaryProps {
  readonly onCaught?: OnCaught;
  /** What the test has put around the subject. */
  readonly wrap?: Plan['wrap'];
  readonly children?: React.ReactNode;
}

interface BoundaryState {
  readonly caught?: { readonly error: unknown };
}

class SimulacraBoundary extends React.Component<BoundaryProps, BoundaryState> {
  override state: BoundaryState = {};

  static getDerivedStateFromError(error: unknown): BoundaryState {
    noteThrower(error);
    return { caught: { error } };
  }

  override componentDidCatch(error: unknown, info: React.ErrorInfo) {
    this.props.onCaught?.(error, info.componentStack ?? '');
  }

  override render() {
    return this.state.caught ? null : this.props.children;
  }
}

/**
 * Catches errors directly around the subject. Otherwise a router would replace a failing route with its own
 * error page. An error boundary that is listed in `wrap` still gets the error.
 */
class SimulacraAnchor extends SimulacraBoundary {
  override render() {
    const { caught } = this.state;
    if (caught && isBoundaryOf(this.props.wrap ?? [])) throw caught.error;
    return super.render();
  }
}

/** True where the next boundary above what is rendered now is one of those that were put there. */
function isBoundaryOf(wrap: Plan['wrap']): boolean {
  const isBoundary = ({ tag, type, stateNode }: Fiber) =>
    tag === tags.class &&
    ('getDerivedStateFromError' in (type as object) || 'componentDidCatch' in (stateNode as object));
  let at = bridge.internals?.getCurrentFiber?.()?.return ?? null;
  while (at && !isBoundary(at)) at = at.return;
  return at !== null && wrap.map(componentOf).includes(at.type);
}

const componentOf = (wrapper: unknown): unknown =>
  React.isValidElement(wrapper) ? wrapper.type : Array.isArray(wrapper) ? wrapper[0] : wrapper;
