import { make } from '../../page/make';
import type { Comparison, Scheme, View } from '../model';
import { addressOf, idOf, viewOf, type Chosen, type Shown } from './shown';

interface Around {
  chosen(): Chosen;
  onChosen(chosen: Partial<Chosen>): void;
  readonly screens: { readonly widths: readonly number[]; readonly schemes: readonly Scheme[] };
  /** What can be gone through with the arrow keys. */
  listed(): readonly Shown[];
  /** The addresses of the projects where a state can be tried. */
  readonly placesToTry: Readonly<Record<string, string>>;
}

/** One state at its full size, with all that is known of it. */
export class Enlarged {
  readonly element = make('dialog');
  readonly #around: Around;
  #shown: Shown | undefined;
  #isTried = false;

  constructor(around: Around) {
    this.#around = around;
    this.element.addEventListener('close', () => this.#leave());
    this.element.addEventListener('click', (event) => {
      if (event.target === this.element) this.element.close();
    });
    this.element.addEventListener('keydown', (event) => {
      const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      if (step === undefined || event.target instanceof HTMLInputElement) return;
      event.preventDefault();
      this.#step(step);
    });
  }

  get shown(): Shown | undefined {
    return this.#shown;
  }

  /** Shows the state as it was drawn anew. What is being tried goes on. */
  update(shown: Shown): void {
    this.#shown = shown;
    if (!this.#isTried) this.#draw();
  }

  open(shown: Shown): void {
    if (this.#shown?.state !== shown.state) this.#isTried = false;
    this.#shown = shown;
    this.#draw();
    this.#tellLookedAt();
    if (!this.element.open) this.element.showModal();
  }

  close(): void {
    if (this.element.open) this.element.close();
  }

  #leave(): void {
    if (location.hash) history.replaceState(null, '', location.pathname + location.search);
  }

  // What somebody looks at is drawn first when a file is saved.
  #tellLookedAt(): void {
    if (Object.keys(this.#around.placesToTry).length === 0) return;
    const { component, state } = this.#shown!;
    const { width, scheme } = viewOf(state, this.#around.chosen()) ?? this.#around.chosen();
    const body = JSON.stringify({ file: component.file, state: state.name, width, scheme });
    void fetch('/looking', { method: 'POST', body }).catch(() => undefined);
  }

  #step(step: number): void {
    const listed = this.#around.listed();
    const at = listed.findIndex(({ state }) => state === this.#shown?.state);
    const next = listed[(at + step + listed.length) % listed.length];
    if (!next) return;
    history.replaceState(null, '', `#${encodeURIComponent(idOf(next))}`);
    this.open(next);
  }

  #draw(): void {
    const shown = this.#shown!;
    const { component, state } = shown;
    const view = viewOf(state, this.#around.chosen());
    const close = make('button', { className: 'plain', type: 'button', textContent: 'Close' });
    close.addEventListener('click', () => this.element.close());
    const step = (by: number, word: string) => {
      const button = make('button', { className: 'plain', type: 'button', textContent: word });
      button.addEventListener('click', () => this.#step(by));
      return button;
    };
    const place = `${component.file}${state.line === undefined ? '' : `:${state.line}`}`;
    this.element.ariaLabel = `${component.component}: ${state.name}`;
    this.element.replaceChildren(
      make(
        'div',
        { className: 'bar' },
        make('h2', {}, `${component.component} · ${state.name} `, make('small', { textContent: place })),
        ...this.#screens(shown),
        ...this.#trying(shown, view),
        step(-1, '← Before'),
        step(1, 'Next →'),
        close,
      ),
      make('div', { className: 'inside' }, this.#makeLook(shown, view), makeFacts(shown, view)),
    );
  }

  #addressToTry({ component, state }: Shown): string | undefined {
    const place = this.#around.placesToTry[component.project];
    const asked = new URLSearchParams({ file: component.file, state: state.name });
    return place && `${place}?${asked.toString()}`;
  }

  #trying(shown: Shown, view: View | undefined): HTMLElement[] {
    const address = this.#addressToTry(shown);
    if (address === undefined || !view) return [];
    const button = make('button', {
      ...{ className: 'plain', type: 'button' },
      textContent: this.#isTried ? 'See the picture' : 'Try it',
    });
    button.addEventListener('click', () => {
      this.#isTried = !this.#isTried;
      this.#draw();
    });
    const alone = { className: 'plain', href: address, target: '_blank', textContent: 'Try it alone' };
    return [button, make('a', alone)];
  }

  #makeLook(shown: Shown, view: View | undefined): HTMLElement {
    const address = this.#addressToTry(shown);
    if (!this.#isTried || address === undefined || !view) return makeLook(view);
    const frame = make('iframe', {
      src: address,
      title: `${shown.component.component}: ${shown.state.name}`,
    });
    frame.width = String(view.width);
    frame.height = '640';
    return make('div', { className: 'look' }, frame);
  }

  #screens({ state }: Shown): HTMLElement[] {
    if (state.views.length < 2) return [];
    const chosen = viewOf(state, this.#around.chosen());
    const set = make('fieldset', { className: 'choice', ariaLabel: 'Screen' });
    for (const { width, scheme } of state.views) {
      const radio = make('input', {
        type: 'radio',
        name: 'screen',
        checked: chosen?.width === width && chosen.scheme === scheme,
      });
      radio.addEventListener('change', () => {
        this.#around.onChosen({ width, scheme });
        this.#draw();
        this.#tellLookedAt();
        this.element.querySelector<HTMLInputElement>('[name=screen]:checked')?.focus();
      });
      set.append(make('label', {}, radio, make('span', {}, `${width} ${scheme}`)));
    }
    return [set];
  }
}

function makeLook(view: View | undefined): HTMLElement {
  const figure = (file: string, caption: string) =>
    make(
      'figure',
      {},
      make('figcaption', { textContent: caption }),
      make('img', { src: addressOf(file), alt: caption }),
    );
  const look = make('div', { className: 'look', tabIndex: 0, ariaLabel: 'Pictures', role: 'region' });
  if (view?.picture) look.append(figure(view.picture, `${view.width} pixels wide, ${view.scheme}`));
  else look.append(make('p', { textContent: 'It did not come about, so there is no picture.' }));
  const { accepted, difference } = view?.comparison ?? {};
  if (accepted) look.append(figure(accepted, 'as it was accepted'));
  if (difference) look.append(figure(difference, 'where they differ'));
  return look;
}

function makeFacts({ component, state }: Shown, view: View | undefined): HTMLElement {
  const part = (title: string, ...inside: Node[]) =>
    make('section', {}, make('h3', { textContent: title }), ...inside);
  const text = (words: string, className = '') => make('pre', { className, textContent: words });
  const facts = make('div', {
    className: 'facts',
    tabIndex: 0,
    ariaLabel: 'What is known of it',
    role: 'region',
  });
  if (view?.failure) facts.append(part('What is wrong', text(view.failure.message, 'trouble')));
  if (view?.comparison && view.comparison.outcome !== 'same')
    facts.append(part('Compared', text(wordComparison(view.comparison))));
  if (view?.problems && view.problems.length > 0) {
    const list = view.problems.map(({ rule, impact, help, places }) =>
      make(
        'li',
        {},
        `${help} (${rule}, ${impact}) `,
        ...places.map((place) => make('code', { textContent: place })),
      ),
    );
    facts.append(part('Hard to access', make('ul', {}, ...list)));
  } else if (view?.problems)
    facts.append(part('Access', make('p', { textContent: 'axe-core found no problem.' })));
  if (state.declares.length > 0) facts.append(part('What it declares', text(state.declares.join('\n'))));
  if (state.outline) facts.append(part('Outline', text(state.outline)));
  if (state.chronicle)
    facts.append(part('What happened', scrolling(text(state.chronicle, 'wide'), 'What happened')));
  const address = new URL(`#${encodeURIComponent(idOf({ component, state }))}`, location.href);
  facts.append(
    part('Link to it', make('a', { href: address.href, textContent: idOf({ component, state }) })),
  );
  return facts;
}

/** What may be wider than its place can be scrolled by keyboard. */
const scrolling = (element: HTMLElement, label: string) =>
  Object.assign(element, { tabIndex: 0, role: 'region', ariaLabel: label });

const wordComparison = ({ outcome, part }: Comparison): string =>
  outcome === 'new'
    ? 'Nobody has accepted a picture of it yet.'
    : `${Number((part * 100).toPrecision(2))} % of its picture is other than was accepted.`;
