import 'simulacra/jest';
import {
  createContext,
  forwardRef,
  useContext,
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
  version,
  type ReactNode,
} from 'react';
import { useSelector } from 'react-redux';
import { useNavigate } from 'react-router';
import { label, role } from 'simulacra';
import { isolate, isolateWith, stub } from 'simulacra/react';
import { HiveBoard } from '../../examples/react-apiary/src/HiveBoard';
import { HiveCard } from '../../examples/react-apiary/src/HiveCard';
import { SessionContext } from '../../examples/react-apiary/src/session';
import { YardGate } from '../../examples/react-apiary/src/YardGate';
import { Desk, Pad } from '../conformance/react';
import {
  FrostAlert,
  FrostFault,
  FrostNote,
  FrostOther,
  FrostParts,
  FrostSign,
  Weather,
} from './modules/react/frost';
import { Flow, FlowFrame, FlowPage, GuardedFlow, Queenless } from './modules/react/Flow';
import { SeasonContext } from './modules/react/season';
import { explainsEach } from './run';
import { at, mistakes, type Mistake } from './table';

const OpenButton = () => {
  const navigate = useNavigate();
  return <button onClick={() => void navigate('/hives/h1')}>Open</button>;
};

const TaskCount = () => <p>{useSelector((state: { tasks: string[] }) => state.tasks.length)} tasks</p>;

const Sick = () => {
  throw new TypeError('queen is undefined');
};
const Row = ({ children }: { children?: ReactNode }) => <div>{children}</div>;
const Tray = () => (
  <Row>
    <Sick />
  </Row>
);

const Retitled = () => {
  const [open, setOpen] = useState(false);
  return (
    <div>
      {open ? <strong>Inspections</strong> : <h2>Inspections</h2>}
      <button onClick={() => setOpen(true)}>Open</button>
    </div>
  );
};

const Scale = () => (
  <div>
    <p>
      Now <b>31.2</b> kg
    </p>
    <div aria-hidden="true">
      <button>Tare</button>
    </div>
    <button style={{ display: 'none' }}>Reset</button>
  </div>
);

const Loop = () => {
  const [n, setN] = useState(0);
  if (n < 1e6) void Promise.resolve().then(() => setN(n + 1));
  return <p>Turn</p>;
};

const Churn = () => {
  const [n, setN] = useState(0);
  useEffect(() => setN(n + 1));
  return <p>Turn</p>;
};

const Shelf = createContext<{ spacing: number } | null>(null);
const Frame = () => <li>{useContext(Shelf)!.spacing} mm</li>;
const Rack = ({ children }: { children?: ReactNode }) => (
  <Shelf.Provider value={{ spacing: 35 }}>
    <ul>{children}</ul>
  </Shelf.Provider>
);
const Box = () => (
  <Rack>
    <Frame />
  </Rack>
);
const Strip = ({ hive }: { hive: { kilograms: number } | null }) => {
  const shelf = useContext(Shelf);
  return (
    <p>
      {hive!.kilograms} kg, {shelf?.spacing ?? 35} mm
    </p>
  );
};
const Yards = () => (
  <>
    <label>
      Yard
      <select>
        <option>North</option>
      </select>
    </label>
    <label>
      Note <input />
    </label>
  </>
);
const thrown = (words: string): never => {
  throw new Error(words);
};
const Latch = () => thrown('`Latch` must be used within `Rack`');
const Hasp = () => thrown('Hasp must be used inside a RackContext.');
const Lid = forwardRef<{ lift(): void }>(function Lid(_, ref) {
  useImperativeHandle(ref, () => ({ lift() {} }));
  return <i />;
});
const Roof = () => {
  const lid = useRef<{ lift(): void }>(null);
  return (
    <>
      <Lid ref={lid} />
      <button onClick={() => lid.current!.lift()}>Lift</button>
    </>
  );
};

const Radio = () => <p>{new BroadcastChannel('yard').name}</p>;

const nobody = { keeper: null, signIn() {}, signOut() {} };

const own: Mistake[] = [
  { title: 'An effect that sets itself off', code: 'isolate(Churn)', make: () => isolate(Churn) },
  {
    title: 'A context that nobody provides',
    code: 'isolate(YardGate)',
    make: () => isolate(YardGate),
    facts: {
      fields: {
        home: { file: expect.stringMatching(/src\/session\.tsx$/) as string, name: 'SessionContext' },
        readAt: at('YardGate.tsx', 6),
        provider: 'SessionProvider',
      },
      thrown: { name: 'Error', at: at('session.tsx', 15) },
    },
  },
  {
    title: 'A context that nobody provides, and nobody checks',
    code: 'isolate(FrostAlert)',
    make: () => isolate(FrostAlert, { provide: [[SessionContext, nobody]] }),
  },
  {
    title: 'A context that nobody provides, read by a consumer',
    code: 'isolate(FrostNote)   // <Weather.Consumer>',
    make: () => isolate(FrostNote),
  },
  {
    title: 'A context that nobody provides, taken apart by a consumer',
    code: 'isolate(FrostParts)   // <Weather.Consumer>{({ frost }) => …}',
    make: () => isolate(FrostParts),
  },
  {
    title: 'A context that a consumer reads by the way',
    code: 'isolate(FrostOther, { props: { hive: null } })   // hive.name inside of <Weather.Consumer>',
    make: () => isolate(FrostOther, { props: { hive: null } }),
  },
  {
    title: 'A context that nobody provides, read by a class',
    code: 'isolate(FrostSign)   // static contextType = Weather',
    make: () => isolate(FrostSign),
  },
  {
    title: 'A context that a class reads by the way',
    code: 'isolate(FrostFault)   // static contextType = SessionContext, and throws a RangeError',
    make: () => isolate(FrostFault),
  },
  {
    title: 'A context without a name',
    code: 'isolate(FlowPage)   // useContext(SeasonContext) in its child Flow',
    make: () => isolate(FlowPage),
    rewritten: true,
    facts: {
      fields: { home: { name: 'SeasonContext' }, readAt: at('Flow.tsx', 4) },
      thrown: { name: 'TypeError', property: 'flow', at: at('Flow.tsx', 4) },
    },
  },
  {
    title: 'A context without a name whose hook names the provider',
    code: 'isolate(GuardedFlow)   // useSeason() in season.tsx',
    make: () => isolate(GuardedFlow),
    rewritten: true,
  },
  {
    title: 'A context that is read by the way',
    code: 'isolate(Queenless)   // reads SeasonContext, and throws a RangeError',
    make: () => isolate(Queenless),
    rewritten: true,
  },
  {
    title: 'A context that wrap needs, and provide gives',
    code: 'isolate(Flow, { wrap: [FlowFrame], provide: [[SeasonContext, season]] })',
    make: () => isolate(Flow, { wrap: [FlowFrame], provide: [[SeasonContext, { flow: 'lime' }]] }),
    rewritten: true,
  },
  {
    title: 'A hook that needs a router around it',
    code: 'isolate(OpenButton)   // calls useNavigate()',
    make: () => isolate(OpenButton),
    facts: { fields: { imports: "import { MemoryRouter } from 'react-router';" } },
  },
  {
    title: 'A hook that needs a store around it',
    code: 'isolate(TaskCount)   // calls useSelector()',
    make: () => isolate(TaskCount),
  },
  {
    title: 'An element in place of a component',
    code: 'isolate(<YardGate />)',
    make: () => (isolate as (of: unknown) => Promise<unknown>)(<YardGate />),
  },
  {
    title: 'An element in place of a stub',
    code: 'isolate(Roof, { stub: [<Lid />] })',
    make: () => isolate(Roof, { stub: [(<Lid />) as never] }),
  },
  {
    title: 'Typing into what is chosen from',
    code: "isolate(Yards)\nawait yards.type(label('Yard'), 'North');",
    make: async () => (await isolate(Yards)).type(label('Yard'), 'North'),
  },
  {
    title: 'Choosing in what is typed into',
    code: "isolate(Yards)\nawait yards.choose(label('Note'), 'calm');",
    make: async () => (await isolate(Yards)).choose(label('Note'), 'calm'),
  },
  {
    title: 'A value that was not given, beside a context that nobody provides',
    code: 'isolate(Strip, { props: { hive: null } })   // also reads a context, and does without',
    make: () => isolate(Strip, { props: { hive: null } }),
  },
  {
    title: 'A component that asks for another one around it',
    code: 'isolate(Latch)   // throws "must be used within `Rack`"',
    make: () => isolate(Latch),
  },
  {
    title: 'A component that asks for a context',
    code: 'isolate(Hasp)   // throws "must be used inside a RackContext"',
    make: () => isolate(Hasp),
  },
  {
    title: 'What a ref calls of a child beyond the depth',
    code: "isolate(Roof, { depth: 1 })\nawait roof.click(role('button', 'Lift'));",
    make: async () => (await isolate(Roof, { depth: 1 })).click(role('button', 'Lift')),
  },
];

explainsEach(
  `React ${version}`,
  [
    ...mistakes({
      isolate: isolate as never,
      isolateWith: isolateWith as never,
      stub,
      HiveBoard,
      HiveCard,
      anotherHiveCard: Object.assign(() => null, { displayName: 'HiveCard' }),
      YardGate,
      Session: SessionContext,
      nobody,
      imke: { ...nobody, keeper: 'Imke' },
      Weather,
      listens: 'onOpen',
      Scale,
      Retitled,
      Tray,
      Loop,
      shore: () => import('./modules/react/Shore'),
      Desk,
      Pad,
      Box,
      Rack,
      Radio,
    }),
    ...own,
  ],
  { file: 'mistakes', wordsOnly: version.startsWith('18') },
);
