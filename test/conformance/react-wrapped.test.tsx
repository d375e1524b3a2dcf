import 'simulacra/jest';
import { Component, useEffect, version, type ReactNode } from 'react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { role, text } from 'simulacra';
import { isolate } from 'simulacra/react';

const Routed = ({ children }: { children?: ReactNode }) => (
  <RouterProvider router={createMemoryRouter([{ path: '/', element: children }])} />
);

/** Shows something else in place of what threw. */
class Fallback extends Component<{ children?: ReactNode }> {
  override state = { broken: false };
  static getDerivedStateFromError = () => ({ broken: true });
  override render() {
    return this.state.broken ? <p>The yard could not be shown</p> : this.props.children;
  }
}
const Providers = ({ children }: { children?: ReactNode }) => <Fallback>{children}</Fallback>;

const Sick = (): ReactNode => {
  throw new TypeError('queen is undefined');
};
const Yard = () => (
  <section>
    <Sick />
  </section>
);
const Frost = () => {
  useEffect(() => {
    throw new TypeError('no gauge');
  }, []);
  return <p>Frost</p>;
};

describe(`what throws inside of other boundaries (React ${version})`, () => {
  it.each([
    ["a router's own error page", Routed],
    ["a boundary inside of a team's providers", Providers],
    ['an element that takes the subject in', <Providers key="" />],
  ])('is told in place of %s', async (_, wrapper) => {
    await expect(isolate(Yard, { wrap: [wrapper] })).rejects.toThrow(
      'Sick, inside Yard, threw while rendering',
    );
    await expect(isolate(Frost, { wrap: [wrapper] })).rejects.toThrow('no gauge');
  });

  it.each([
    ['a component', Fallback],
    ['an element', <Fallback key="" />],
    ['a component with props', [Fallback, {}] as const],
  ])('is left to a boundary in wrap: %s', async (_, wrapper) => {
    const yard = await isolate(Yard, { wrap: [wrapper as never] });
    expect(yard).toShow(text('The yard could not be shown'));
    const frost = await isolate(Frost, { wrap: [wrapper as never] });
    expect(frost).toShow(text('The yard could not be shown'));
  });

  it('is told when it comes later, too', async () => {
    const Gate = ({ open = true }) => (open ? <h1>North yard</h1> : <Sick />);
    const gate = await isolate(Gate, { wrap: [Routed] });
    expect(gate).toShow(role('heading', 'North yard'));
    await expect(gate.update({ open: false })).rejects.toThrow('queen is undefined');
  });
});
