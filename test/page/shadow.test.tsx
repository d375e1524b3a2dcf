import 'simulacra/jest';
import { css, label, role, testId, text, type Locator } from 'simulacra';
import { isolate } from 'simulacra/react';

describe('what is in a shadow root', () => {
  const Card = () => {
    const ref = (host: HTMLElement | null) => {
      if (!host || host.shadowRoot) return;
      host.attachShadow({ mode: 'open' }).innerHTML =
        '<h3>Anemone</h3><label>Note <input data-testid="note"></label><section><slot></slot></section><p hidden>Away</p>';
    };
    return (
      <div ref={ref}>
        <button data-testid="open">Open</button>
      </div>
    );
  };
  it.each<[Locator, number]>([
    [role('heading', 'Anemone', { level: 3 }), 1],
    [label('Note'), 1],
    [text('Anemone'), 1],
    [testId('note'), 1],
    [role('button', 'Open'), 1],
    ...[text('Open'), role('button', 'Open'), testId('open'), css('button')].map(
      (locator) => [locator.inside(css('section')), 1] as [Locator, number],
    ),
    [role('button', 'Open').inside(css('section')), 1],
    [text('Away'), 0],
  ])('%j', async (locator, times) => {
    expect(await isolate(Card)).toShow(locator, { times });
  });
});

it('finds once what a slot of a shadow root in a shadow root takes up', async () => {
  const Frame = () => {
    const ref = (host: HTMLElement | null) => {
      if (!host || host.shadowRoot) return;
      const root = host.attachShadow({ mode: 'open' });
      root.innerHTML = '<div><button data-testid="open">Open</button></div>';
      root.firstElementChild!.attachShadow({ mode: 'open' }).innerHTML = '<p><slot></slot></p>';
    };
    return <div ref={ref} />;
  };
  const frame = await isolate(Frame);
  for (const locator of [role('button', 'Open'), text('Open'), testId('open')]) {
    expect(frame).toShow(locator, { times: 1 });
    expect(frame).toShow(locator.inside(css('p')), { times: 1 });
  }
});
