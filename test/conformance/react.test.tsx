import 'simulacra/jest';
import { isolate, stub, type Wrapper } from 'simulacra/react';
import {
  Component,
  createRef,
  forwardRef,
  Fragment,
  lazy,
  memo,
  StrictMode,
  Suspense,
  use,
  useEffect,
  useState,
  version,
  type ComponentType,
  type ReactNode,
} from 'react';
import { createPortal } from 'react-dom';
import { hold, label, part, role, text } from 'simulacra';
import { hives } from '../../examples/shared/hive';
import * as components from './react';
import { reactKit } from './react-kit';
import { conform } from './specification';

const { Board, Card } = components;

conform(reactKit);

describe(`React ${version}, its own ways`, () => {
  const explode = () => {
    throw new Error('the child was rendered');
  };
  class Classic extends Component<{ hiveId: string }> {
    static defaultProps = { hiveId: 'h1' };
    override render = explode;
  }
  const Plain = Object.assign(() => explode(), { displayName: 'Plain' }) as unknown as ComponentType<{
    hiveId: string;
  }>;
  const Memo = memo(Plain);
  const Compared = memo(Plain, () => false);
  const Lazy = lazy<ComponentType<{ hiveId: string }>>(() =>
    Promise.reject(new Error('the child was loaded')),
  );
  const placed = (Inner: ComponentType<{ hiveId: string }>) => {
    const Placed = (props: { hiveId: string }) => <Inner {...props} />;
    return Placed;
  };
  const Wrapped = placed(Plain);

  it.each([
    ['class', Classic],
    ['function', Plain],
    ['memo', Memo],
    ['memo with a comparison', Compared],
    ['lazy', Lazy],
    ['wrapped', Wrapped],
  ] as [string, ComponentType<{ hiveId: string }>][])(
    'stubs a %s component, however it is exported',
    async (_, Child) => {
      const Parent = () => {
        const [hive, setHive] = useState(3);
        return (
          <StrictMode>
            <Suspense fallback="waiting">
              <Child hiveId={`h${hive}`} />
            </Suspense>
            <button onClick={() => setHive(7)}>Next</button>
          </StrictMode>
        );
      };
      const parent = await isolate(Parent, { stub: [Child] });
      expect(parent.part(Child).props).toEqual([{ hiveId: 'h3' }]);
      await parent.click(role('button', 'Next'));
      expect(parent.part(Child).props).toEqual([{ hiveId: 'h7' }]);
      expect(parent.find(part(Child)).getAttribute('data-props')).toBe('hiveId="h7"');
    },
  );

  it('keeps a table a table and a list a list', async () => {
    const Row = ({ name }: { name: string }) => (
      <tr>
        <td>{name}</td>
      </tr>
    );
    const Table = () => (
      <table>
        <tbody>
          <Row name="Anemone" />
          <Row name="Borage" />
        </tbody>
      </table>
    );
    const table = await isolate(Table, { depth: 1 });
    expect(table).toShow(role('row'), { times: 2 });
    expect(table.chronicle.of('logged')).toEqual([]);
  });

  it('sees what a portal puts elsewhere on the page', async () => {
    const Dialog = () => createPortal(<div role="dialog" aria-label="Inspection" />, document.body);
    const dialog = await isolate(Dialog);
    expect(dialog).toShow(role('dialog', 'Inspection'));
  });

  it('takes a component for what its parent names, a forwardRef for one', async () => {
    const Field = forwardRef<HTMLInputElement, { name: string }>((props, ref) => (
      <input ref={ref} aria-label={props.name} />
    ));
    Field.displayName = 'Field';
    const Quiet = memo(forwardRef<HTMLElement>((_, ref) => <i ref={ref}>quiet</i>));
    const Form = forwardRef<HTMLFormElement>((_, ref) => (
      <form ref={ref} aria-label="Inspection">
        <Field name="Varroa" />
        <Quiet />
      </form>
    ));
    const real = await isolate(Form, { depth: 1, keep: [Field, Quiet] });
    expect(real).toShow(role('form', 'Inspection'));
    expect(real).toShow(label('Varroa'));
    expect(real).toShow(text('quiet'));
    expect(real.part(Field).props).toEqual([{ name: 'Varroa' }]);
    await real.takeDown();
    const stubbed = await isolate(Form, { depth: 1 });
    expect(stubbed).toShow(role('form', 'Inspection'));
    expect(stubbed.part(Field).props).toEqual([{ name: 'Varroa' }]);
    expect(stubbed.part(Quiet).props).toHaveLength(1);
    expect(String(stubbed.outline())).not.toMatch(/Stub|Anonymous:/);
  });

  it('sees what a portal puts into an element that was there before, from the second test on too', async () => {
    const overlay = document.body.appendChild(document.createElement('div'));
    const Tip = () => createPortal(<p>Frost tonight</p>, overlay);
    const Page = () => (
      <main>
        <Tip />
      </main>
    );
    for (const time of [1, 2]) {
      const page = await isolate(Page);
      expect([time, page.findAll(text('Frost tonight')).length]).toEqual([time, 1]);
      expect(page.find(part(Tip))).toBe(overlay.firstChild);
      await page.takeDown();
    }
    overlay.remove();
  });

  it('runs effects twice in strict mode where a root of its own does', async () => {
    const told: string[] = [];
    const Told = () => {
      useEffect(() => {
        told.push('effect');
        return () => void told.push('clean-up');
      }, []);
      return null;
    };
    const Inside = () => (
      <StrictMode>
        <Told />
      </StrictMode>
    );
    const { createRoot } = await import('react-dom/client');
    const bare = async (element: ReactNode) => {
      const root = createRoot(document.createElement('div'));
      root.render(element);
      await new Promise((resolve) => setTimeout(resolve, 50));
      const was = told.splice(0).join();
      root.unmount();
      await new Promise((resolve) => setTimeout(resolve, 50));
      told.length = 0;
      return was;
    };
    const ours = async (component: ComponentType, wrap: readonly Wrapper[]) => {
      const subject = await isolate(component, { wrap });
      const was = told.splice(0).join();
      await subject.takeDown();
      told.length = 0;
      return was;
    };
    const strict = await bare(<Inside />);
    expect(strict).toBe(await ours(Inside, []));
    for (const wrapper of [StrictMode as unknown as ComponentType, <StrictMode key="strict" />])
      expect(await ours(Told, [wrapper])).toBe('effect,clean-up,effect');
    expect(await bare(<StrictMode children={<Told />} />)).toBe('effect,clean-up,effect');
    expect(await ours(Told, [Fragment as unknown as ComponentType])).toBe('effect');
  });

  it('pairs each real child with its own element', async () => {
    const Maybe = ({ shown }: { shown: boolean }) => (shown ? <p>shown</p> : null);
    const parent = await isolate(() => [<Maybe key="a" shown={false} />, <Maybe key="b" shown />]);
    expect(parent.part(Maybe).props).toEqual([{ shown: false }, { shown: true }]);
    expect(parent.part(Maybe).at(0).element).toBeUndefined();
    expect(parent.part(Maybe).at(1).element?.textContent).toBe('shown');
  });

  it('leaves a third root and a later one alone', async () => {
    await isolate(Board, { props: { yard: 'north' }, stub: [Card], network: { 'GET /api/hives': hives } });
    const card = await isolate(Card, { props: { hive: hives[0]! } });
    expect(card).toShow(role('article', 'Anemone'));
    expect(card).toShow(text('31.2 kg'));
  });

  it('needs no ceremony after an await, and warns of nothing', async () => {
    const Late = () => {
      const [word, setWord] = useState('early');
      useEffect(() => void setTimeout(() => setWord('late'), 300), []);
      return <p>{word}</p>;
    };
    const late = await isolate(Late);
    expect(late).toShow(text('early'));
    await late.appears(text('late'));
    await late.vanishes(text('early'));
    expect(late.chronicle.of('logged')).toEqual([]);
  });

  it('reaches a class stub through a ref', async () => {
    const ref = createRef<Classic & { open(): void }>();
    const Parent = () => <Classic ref={ref as never} />;
    const parent = await isolate(Parent, { stub: [stub(Classic, { handle: ['open'] })] });
    ref.current?.open();
    expect(parent.part(Classic).handle['open']!.calls).toEqual([[]]);
    expect(parent.part(Classic).props).toEqual([{ hiveId: 'h1' }]);
  });

  // React has `use` since 19.
  const itUses = typeof use === 'function' ? it : () => undefined;
  itUses('shows the fallback of a promise that is used', async () => {
    const answer = hold<string>();
    const asking = fetchText();
    function fetchText() {
      let asked: Promise<string> | undefined;
      return () => (asked ??= fetch('/api/hives/h1').then((response) => response.json() as Promise<string>));
    }
    const Name = () => <p>{use(asking())}</p>;
    const name = await isolate(
      () => (
        <Suspense fallback={<p role="status">Waiting</p>}>
          <Name />
        </Suspense>
      ),
      { network: { 'GET /api/hives/:id': answer } },
    );
    expect(name).toShow(role('status', 'Waiting'));
    await answer.release('Anemone');
    expect(name).toShow(text('Anemone'));
    expect(name).not.toShow(role('status'));
  });
});
