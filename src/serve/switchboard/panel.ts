/* The switchboard: a page of its own, or a button in the corner of one. It runs in a browser. */
import { make } from '../../page/make';
import { controlPath } from './path';

interface Shown {
  readonly states: readonly string[];
  readonly routes: readonly { readonly route: string; readonly state: string; readonly waiting: number }[];
  readonly kept: number;
  readonly told: readonly {
    readonly asked: string;
    readonly status: number;
    readonly milliseconds: number;
    readonly problem?: string;
  }[];
}

const send = (path: string, method: string, body?: object) =>
  fetch(controlPath + path, {
    method,
    ...(body && { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  });

const styles = `
:host { font: 14px/1.4 system-ui, sans-serif; color: #2b2416; color-scheme: light; }
:host([folded]) { position: fixed; right: 12px; bottom: 12px; z-index: 2147483000; }
.board { background: #fffdf7; }
:host(:not([folded])) .board { max-width: 960px; margin: 24px auto; padding: 0 16px; }
:host([folded]) .board { display: none; position: absolute; right: 0; bottom: 44px; width: min(720px, 92vw);
  max-height: 76vh; overflow: auto; padding: 12px 16px 16px; border: 1px solid #cfc4a4; border-radius: 10px;
  box-shadow: 0 8px 30px rgb(43 36 22 / 25%); }
:host([open]) .board { display: block; }
h1 { font-size: 18px; margin: 4px 0 2px; }
h2 { font-size: 14px; margin: 16px 0 4px; }
p { margin: 2px 0 10px; color: #5c5238; }
button { font: inherit; padding: 5px 12px; border: 1px solid #b9ab82; border-radius: 7px; background: #fff; color: inherit; cursor: pointer; }
button:hover { background: #f6efdc; }
button:focus-visible, input:focus-visible { outline: 2px solid #8a5a00; outline-offset: 1px; }
.opener { box-shadow: 0 2px 8px rgb(43 36 22 / 25%); }
.opener.changed { background: #8a5a00; color: #fff; border-color: #8a5a00; }
.bar { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; margin-bottom: 10px; }
.bar input[type=search] { flex: 1 1 160px; min-width: 0; font: inherit; padding: 5px 10px; border: 1px solid #b9ab82; border-radius: 7px; }
table { border-collapse: collapse; width: 100%; }
td, th { text-align: left; padding: 5px 8px 5px 0; border-top: 1px solid #ece4cd; vertical-align: middle; font-weight: normal; }
th code, td code { font: 13px ui-monospace, monospace; overflow-wrap: anywhere; }
.method { display: inline-block; min-width: 62px; font-weight: 600; }
.waits { color: #8a5a00; font-weight: 600; margin-left: 8px; }
fieldset { border: 0; margin: 0; padding: 0; display: inline-flex; white-space: nowrap; }
label { display: inline-block; cursor: pointer; }
fieldset input { position: absolute; opacity: 0; }
fieldset span { display: block; padding: 3px 9px; border: 1px solid #cfc4a4; margin-left: -1px; background: #fff; }
fieldset input:checked + span { background: #2b2416; color: #fff; border-color: #2b2416; }
fieldset input:focus-visible + span { outline: 2px solid #8a5a00; outline-offset: 1px; }
td.state { text-align: right; padding-right: 0; }
.log { margin: 0; padding: 0; list-style: none; font: 12.5px/1.6 ui-monospace, monospace; max-height: 200px; overflow: auto; }
.log li { overflow-wrap: anywhere; }
.bad { color: #9b1c1c; }
.left { color: #6d6350; }
.every { display: inline-flex; align-items: center; gap: 8px; }
.away { color: #9b1c1c; font-weight: 600; }
@media (max-width: 640px) { td.state { text-align: left; } tr { display: block; padding: 4px 0; } td, th { display: block; border: 0; } tr { border-top: 1px solid #ece4cd; } }
`;

class Switchboard extends HTMLElement {
  #shown: Shown | undefined;
  #filter = '';
  #source: EventSource | undefined;
  readonly #rows = make('tbody');
  readonly #log = make('ol', { className: 'log' });
  readonly #about = make('p', { ariaLive: 'polite' });
  readonly #all = make('span');
  readonly #opener = make('button', { className: 'opener', type: 'button', textContent: 'States' });

  connectedCallback(): void {
    const root = this.shadowRoot ?? this.attachShadow({ mode: 'open' });
    const search = make('input', { type: 'search', placeholder: 'Find a route', ariaLabel: 'Find a route' });
    search.oninput = () => {
      this.#filter = search.value.toLowerCase();
      this.#draw();
    };
    const reset = make('button', { type: 'button', textContent: 'Forget what was sent' });
    reset.onclick = () => void send('reset', 'POST');
    const board = make(
      'section',
      { className: 'board', ariaLabel: 'Switchboard' },
      make('h1', { textContent: 'Switchboard' }),
      this.#about,
      make(
        'div',
        { className: 'bar' },
        search,
        reset,
        make('span', { className: 'every' }, 'All', this.#all),
      ),
      make('table', {}, this.#rows),
      make('h2', { textContent: 'Asked last' }),
      this.#log,
    );
    root.replaceChildren(make('style', { textContent: styles }), board);
    if (this.hasAttribute('folded')) {
      root.append(this.#opener);
      this.#opener.ariaExpanded = 'false';
      this.#opener.onclick = () => {
        this.#opener.ariaExpanded = String(this.toggleAttribute('open'));
        this.#listen();
      };
      root.addEventListener('keydown', (event) => {
        if ((event as KeyboardEvent).key !== 'Escape' || !this.hasAttribute('open')) return;
        this.#opener.click();
        this.#opener.focus();
      });
      void fetch(`${controlPath}routes`)
        .then((response) => response.json())
        .then(
          (shown) => this.#show(shown as Shown),
          () => undefined,
        );
    } else this.#listen();
  }

  disconnectedCallback(): void {
    this.#source?.close();
  }

  // A page keeps few connections to one server: a board that nobody sees has none.
  #listen(): void {
    this.#source?.close();
    if (this.hasAttribute('folded') && !this.hasAttribute('open')) return;
    this.#source = new EventSource(`${controlPath}events`);
    this.#source.onmessage = ({ data }) => this.#show(JSON.parse(String(data)) as Shown);
    this.#source.onerror = () =>
      this.#about.replaceChildren(
        make('span', { className: 'away', textContent: 'The backend does not answer' }),
      );
  }

  #show(shown: Shown): void {
    this.#shown = shown;
    this.#draw();
  }

  #draw(): void {
    const shown = this.#shown;
    if (!shown) return;
    const { routes, states, kept, told } = shown;
    const changed = routes.filter(({ state }) => state !== 'data').length;
    this.#opener.textContent = changed > 0 ? `States: ${changed} switched` : 'States';
    this.#opener.classList.toggle('changed', changed > 0);
    this.#about.textContent = `${routes.length} routes; ${kept === 0 ? 'nothing kept of what was sent' : `${kept} kept of what was sent`}`;
    const of = new Set(routes.map(({ state }) => state));
    const common = of.size === 1 ? routes[0]?.state : undefined;
    const shownRows = routes.filter(({ route }) => route.toLowerCase().includes(this.#filter)).slice(0, 200);
    const root = this.shadowRoot!;
    const focused = (root.activeElement as HTMLInputElement | null)?.name;
    this.#all.replaceChildren(this.#choose('all routes', states, common));
    this.#rows.replaceChildren(...shownRows.map((one) => this.#row(one, states)));
    if (focused)
      root.querySelector<HTMLInputElement>(`input[name="${CSS.escape(focused)}"]:checked`)?.focus();
    this.#log.replaceChildren(
      ...[...told].reverse().map(({ asked, status, milliseconds, problem }) =>
        make('li', {
          className: problem || status >= 500 ? 'bad' : status === 0 ? 'left' : '',
          textContent: `${status || 'left'}  ${asked}  ${Math.round(milliseconds)} ms${problem ? `  ${problem.split('\n')[0]}` : ''}`,
        }),
      ),
    );
  }

  #row({ route, state, waiting }: Shown['routes'][number], states: readonly string[]): HTMLElement {
    const at = route.indexOf(' ');
    const name = make(
      'code',
      {},
      make('span', { className: 'method', textContent: route.slice(0, at) }),
      route.slice(at + 1),
    );
    const head = make('th', { scope: 'row' }, name);
    if (waiting > 0) head.append(make('span', { className: 'waits', textContent: `${waiting} waiting` }));
    return make(
      'tr',
      {},
      head,
      make('td', { className: 'state' }, this.#choose(route, states, state, route)),
    );
  }

  #choose(name: string, states: readonly string[], chosen?: string, route?: string): HTMLFieldSetElement {
    const field = make('fieldset', { ariaLabel: `State of ${name}` });
    for (const state of states) {
      const isChosen = chosen?.split(' ')[0] === state;
      const input = make('input', {
        type: 'radio',
        name: `state of ${name}`,
        value: state,
        checked: isChosen,
      });
      input.onchange = () => void send('routes', 'PUT', { state, ...(route !== undefined && { route }) });
      field.append(make('label', {}, input, make('span', { textContent: isChosen ? chosen! : state })));
    }
    return field;
  }
}

if (!customElements.get('simulacra-switchboard')) customElements.define('simulacra-switchboard', Switchboard);
