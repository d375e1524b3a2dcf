import 'simulacra/jest';
import { isolate } from 'simulacra/react';
import {
  lazy,
  Suspense,
  use,
  useActionState,
  useDeferredValue,
  useEffect,
  useOptimistic,
  useState,
  useTransition,
  version,
} from 'react';
import { createRoot } from 'react-dom/client';
import { useFormStatus } from 'react-dom';
import { comesToRest, microtasks, type Case } from './runs';

const Status = () => <>{useFormStatus().pending ? 'sending' : 'Go'}</>;

function Action() {
  const [state, act, isPending] = useActionState(async () => {
    await microtasks(3);
    return 'done';
  }, 'before');
  return (
    <form action={act}>
      <button>
        <Status />
      </button>
      <output>{isPending ? 'pending' : state}</output>
    </form>
  );
}

function Transition() {
  const [isPending, start] = useTransition();
  const [state, setState] = useState('before');
  const go = () =>
    start(async () => {
      await microtasks(3);
      start(() => setState('done'));
    });
  return (
    <>
      <button onClick={go}>Go</button>
      <output>{isPending ? 'pending' : state}</output>
    </>
  );
}

function Optimistic() {
  const [state, setState] = useState('before');
  const [shown, setShown] = useOptimistic(state);
  const [, start] = useTransition();
  const go = () =>
    start(async () => {
      setShown('hoped for');
      await microtasks(2);
      setState('done');
    });
  return (
    <>
      <button onClick={go}>Go</button>
      <output>{shown}</output>
    </>
  );
}

function Deferred() {
  const [state, setState] = useState('before');
  const deferred = useDeferredValue(state, 'first');
  return (
    <>
      <button onClick={() => setState('done')}>Go</button>
      <output>{deferred}</output>
    </>
  );
}

function Reading() {
  const [promise] = useState(() => microtasks(4).then(() => 'done'));
  return (
    <Suspense fallback={<output>waiting</output>}>
      <Read promise={promise} />
    </Suspense>
  );
}
const Read = ({ promise }: { promise: Promise<string> }) => <output>{use(promise)}</output>;

function Effects() {
  const [step, setStep] = useState(0);
  useEffect(() => {
    if (step < 5) void microtasks(step).then(() => setStep(step + 1));
  }, [step]);
  return <output>{step === 5 ? 'done' : step}</output>;
}

function Timers() {
  const [step, setStep] = useState(0);
  useEffect(() => {
    if (step < 3) setTimeout(() => setStep(step + 1), 0);
  }, [step]);
  return <output>{step === 3 ? 'done' : step}</output>;
}

function Fetching() {
  const [state, setState] = useState('before');
  useEffect(() => {
    void (async () => {
      const first = (await (await fetch('/api/first')).json()) as string;
      const second = await (await fetch(`/api/${first}`)).blob();
      setState(await second.text());
    })();
  }, []);
  return <output>{state}</output>;
}

function Elsewhere() {
  const [host] = useState(() => document.createElement('div'));
  const [isThere, setThere] = useState(false);
  useEffect(() => {
    const root = createRoot(host);
    root.render(<i ref={() => setThere(true)} />);
    return () => void Promise.resolve().then(() => root.unmount());
  }, [host]);
  return <output>{isThere ? 'done' : 'before'}</output>;
}

// As a runner of standard modules loads a file: some turns of the event loop later.
const file = () =>
  new Promise<{ default: () => React.ReactNode }>((resolve) =>
    setTimeout(() => resolve({ default: () => <output>done</output> }), 1),
  );
function Lazy() {
  const [Loaded] = useState(() => lazy(file));
  return (
    <Suspense fallback={<output>loading</output>}>
      <Loaded />
    </Suspense>
  );
}

const network = { 'GET /api/first': '"second"'.slice(1, -1), 'GET /api/second': () => new Response('done') };
const cases: Case[] = [
  ['effects that set state', Effects],
  ['timers of 0 ms in a row', Timers],
  ['requests in a row, with bodies of each kind', Fetching, { network }],
  ['a root of its own', Elsewhere],
  ['a lazy child', Lazy],
];
const since19: Case[] = [
  ['a form action', Action],
  ['a transition with an async function', Transition],
  ['an optimistic value', Optimistic],
  ['a deferred value', Deferred],
  ['a promise that is read', Reading],
];

comesToRest(`React ${version}`, isolate as never, [...cases, ...(version.startsWith('18') ? [] : since19)]);
