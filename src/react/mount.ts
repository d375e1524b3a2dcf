import { asCode } from '../core/print';
import * as React from 'react';
import { isSpy } from '../core/spy';
import type { Mounted, Plan } from '../stage/adapter';
import { BareReads, wordDefault } from '../stage/bare-reads';
import { explainThrown } from '../stage/thrown';
import { settle } from './act';
import { bareRead, listenToReads, noteReads, readUnheard } from './contexts';
import { bridge, type Fiber } from './bridge';
import { giveBack, spoil, takeRoot } from './roots';
import { rootOf } from './work';
import { containerOf } from './fibers';
import { watchPlace } from './navigation';
import { resolveIn } from './resolver';
import { nameOfContext } from './origins';
import { anchorOf, surround } from './surround';
import { forgetThrowers, throwerOf, traceOf } from './traces';
import { readInstances, readTree } from './tree';

/** Renders a subject as React does in an application, inside a boundary that keeps what is thrown. */
export function mount(plan: Plan): Mounted {
  const { container, chronicle } = plan;
  const bareReads = new BareReads(chronicle);
  const anchor = anchorOf(plan);
  const onCaught = (error: unknown, componentStack: string) => {
    spoil(container);
    const thrower = throwerOf(error);
    const unheard = thrower && readUnheard(thrower);
    if (unheard) bareReads.note(bareRead(unheard, thrower, anchor));
    const provided = plan.provide.map(({ token }) => ({ token, name: nameOfContext(token) }));
    plan.onThrown(
      explainThrown(error, {
        subject: plan.name,
        ...traceOf(error, componentStack),
        bareReads: bareReads.all,
        provided,
        chronicle,
        thing: 'context',
        wrapperOf,
        importOf,
        asWrapper: (component) => `<${component} />`,
        providerOf: (name) => `<${name}.Provider value={…} />`,
        emptyStub: (name) => `stub(${asCode(name)}, () => null)`,
      }),
    );
  };
  const rootFiber = (): Fiber | null => rootOf(container)?.current ?? null;
  const notePlace = watchPlace(rootFiber, chronicle);
  const stops = [
    resolveIn(plan, anchor),
    listenToReads((context, fiber, provider) => {
      if (containerOf(fiber) !== container) return;
      if (provider) return markRead(plan, context, provider);
      const read = bareRead(context, fiber, anchor);
      bareReads.note(read, () => wordDefault(read));
    }),
    listenToCommits(container, () => {
      notePlace();
      noteReads(rootFiber(), plan.provide);
      plan.onRendered();
    }),
  ];
  silenceBoundaryReport(plan);
  const root = takeRoot(plan);
  let props = plan.props;
  const render = () => root.render(withoutStacks(() => surround(plan, props, onCaught)));
  return {
    start: () => settle(render),
    // Only a spy records its calls; a plain function does not.
    outputs: () =>
      Object.fromEntries(
        Object.entries(props).flatMap(([name, value]) => (isSpy(value) ? [[name, value.calls]] : [])),
      ),
    update(next) {
      props = { ...props, ...next };
      render();
    },
    unmount() {
      return settle(() => giveBack(container, plan)).finally(() => {
        stops.reverse().forEach((stop) => stop());
        if (bridge.live.size === 0) forgetThrowers();
      });
    },
    // An effect that sets state each time keeps React in one and the same flush.
    giveUp: () => root.render(null),
    tree: () => readTree(rootFiber(), anchor, plan.name),
    instancesOf: (fits) => readInstances(rootFiber(), anchor, fits),
  };
}

/** React captures a stack for each element. For the elements around a subject nobody needs it. */
function withoutStacks<T>(work: () => T): T {
  const { stackTraceLimit } = Error;
  Error.stackTraceLimit = 0;
  try {
    return work();
  } finally {
    Error.stackTraceLimit = stackTraceLimit;
  }
}

function listenToCommits(container: Element, listen: () => void): () => void {
  bridge.committed.set(container, listen);
  return () => bridge.committed.delete(container);
}

function markRead({ provide }: Plan, context: unknown, provider: Fiber): void {
  const value = provider.memoizedProps?.['value'];
  for (const one of provide) if (one.token === context && one.value === value) one.used = true;
}

// In React 18 this is the only way to keep the report of a caught error off the console.
function silenceBoundaryReport({ environment }: Plan): void {
  if (React.version.startsWith('18'))
    environment.silenced.push({ level: 'error', pattern: /^The above error occurred in/ });
}

function importOf(library: string): string | undefined {
  const component = /<(\w+)/.exec(wrapperOf(library))?.[1];
  return (component && component !== 'Provider') || /redux/.test(library)
    ? `import { ${component} } from '${library}';`
    : undefined;
}

const wrapperOf = (library: string): string => {
  if (!/^@?[a-z]/.test(library)) return '';
  if (/router/.test(library)) return '<MemoryRouter />';
  if (/redux/.test(library)) return '<Provider store={store} />';
  return /query/.test(library) ? '<QueryClientProvider client={client} />' : '<Provider … />';
};
