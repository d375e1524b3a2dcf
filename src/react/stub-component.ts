import * as React from 'react';
import { drop } from '../core/drop';
import { isVoid, stubAttributes, tagIn } from '../stage/stub-markup';
import type { StubInstance, StubRecord } from '../stage/stubs';
import { bridge, type Fiber } from './bridge';
import { hostsOf, isHost } from './fibers';
import { kindOf, type Kind } from './kinds';

/** True for a component made here: React asks about those too, and they stay what they are. */
export const isStubComponent = (type: unknown): boolean => bridge.stubs.has(type as object);

type Props = Record<string, unknown> & { children?: React.ReactNode };
type Rendering = (props: Props) => React.ReactNode;

/** The component that is rendered in place of another; of the same kind, since React has it fixed. */
export function makeStubComponent(record: StubRecord, original: unknown): unknown {
  const kind = kindOf(original);
  const component = kind === 'class' ? makeClass(record) : makeFunction(record, kind, original);
  Object.assign(component, {
    displayName: record.name,
    ...((original as { defaultProps?: object }).defaultProps && {
      defaultProps: (original as { defaultProps?: object }).defaultProps,
    }),
  });
  bridge.stubs.add(component as object);
  return component;
}

// A ref may expect an element or a handle, and we do not know which. A stub that the test lists can be given
// a handle.
function makeFunction(record: StubRecord, kind: Kind | undefined, original: unknown): object {
  const mayReachElement = !record.listed && record.how.handle === undefined && !hasHandle(original);
  const Stub = (props: Props, ref?: React.Ref<object>) => {
    const instance = React.useRef<StubInstance>(null);
    const fiber = bridge.internals?.getCurrentFiber?.() ?? null;
    React.useLayoutEffect(() => {
      const mine = ((instance as React.MutableRefObject<StubInstance | null>).current ??= enter(
        record,
        fiber,
      ));
      return () => leave(record, mine, instance);
    }, []);
    React.useLayoutEffect(() => give(record, instance.current, props));
    // Since React 19 a ref is an ordinary prop. Before, only a forwardRef receives one.
    const reach = () => {
      const element = mayReachElement ? elementOf(fiber) : undefined;
      return element ? record.reachElement(element) : record.reach();
    };
    React.useImperativeHandle((ref ?? (props['ref'] as React.Ref<object>)) || undefined, reach, []);
    return renderStub(record, props, fiber);
  };
  return kind === 'forwardRef'
    ? React.forwardRef(Stub as React.ForwardRefRenderFunction<object>)
    : (props: Props) => Stub(props);
}

const hasHandle = (original: unknown): boolean =>
  /useImperativeHandle/.test(String((original as { render?: unknown }).render ?? original));

function makeClass(record: StubRecord): object {
  return class extends React.Component<Props> {
    #instance: StubInstance | undefined;

    constructor(props: Props) {
      super(props);
      Object.assign(this, record.handle);
    }

    override componentDidMount() {
      const { _reactInternals: fiber } = this as unknown as { _reactInternals: Fiber };
      this.#instance = enter(record, fiber);
      give(record, this.#instance, this.props);
    }

    override componentDidUpdate() {
      give(record, this.#instance ?? null, this.props);
    }

    override componentWillUnmount() {
      if (this.#instance) leave(record, this.#instance, { current: null });
    }

    override render() {
      return renderStub(record, this.props, bridge.internals?.getCurrentFiber?.() ?? null);
    }
  };
}

function enter(record: StubRecord, fiber: Fiber | null): StubInstance {
  const instance: StubInstance = { props: {}, element: () => elementOf(fiber) };
  record.instances.push(instance);
  return instance;
}

// React keeps two fibers for an instance. Either may be the current one.
const elementOf = (fiber: Fiber | null): Element | undefined =>
  [fiber, fiber?.alternate ?? null]
    .flatMap((node) => (node ? hostsOf(node) : []))
    .find((element) => element.isConnected);

function leave(record: StubRecord, instance: StubInstance, ref: { current: StubInstance | null }): void {
  drop(record.instances, instance);
  ref.current = null;
}

function give(record: StubRecord, instance: StubInstance | null, props: Props): void {
  if (instance) instance.props = props;
  record.given.push(props);
}

function renderStub(record: StubRecord, props: Props, fiber: Fiber | null): React.ReactNode {
  const { render } = record.how;
  if (typeof render === 'function') return (render as Rendering)(props);
  if (render !== undefined) return render as React.ReactNode;
  const attributes = stubAttributes(record.name, props);
  const tag = tagInside(fiber);
  const { children } = props;
  const isLeftOut = typeof children === 'function' || isVoid(tag);
  return React.createElement(tag, attributes, isLeftOut ? undefined : children);
}

function tagInside(fiber: Fiber | null): string {
  for (let at = fiber?.return ?? null; at; at = at.return) if (isHost(at)) return tagIn(at.type as string);
  return tagIn(undefined);
}
