import { make } from '../../page/make';
import { styles } from './styles';

/** What waits for an answer, and how to give it. */
export interface WaitingShown {
  readonly asked: string;
  readonly offers: readonly { readonly name: string; readonly value: unknown }[];
  release(value: unknown): void;
  fail(): void;
}

interface PanelShown {
  readonly title: string;
  readonly waiting: readonly WaitingShown[];
  readonly chronicle: string;
}

/** What a person does to a state from outside of it. It stands beside the page's body, under a root of its own. */
export class Panel {
  readonly element = make('div');
  readonly #title = make('strong');
  readonly #props = make('div', { className: 'props' });
  readonly #waiting = make('div', { className: 'waiting' });
  readonly #trouble = make('pre', { className: 'trouble', role: 'alert' });
  readonly #chronicle = make('pre');

  constructor() {
    const root = this.element.attachShadow({ mode: 'open' });
    const happened = make('details', {}, make('summary', { textContent: 'What happened' }), this.#chronicle);
    root.append(
      make('style', { textContent: styles }),
      make(
        'section',
        { ariaLabel: 'State' },
        this.#title,
        this.#waiting,
        this.#props,
        this.#trouble,
        happened,
      ),
    );
  }

  tell(trouble: string): void {
    this.#trouble.textContent = trouble;
  }

  show({ title, waiting, chronicle }: PanelShown): void {
    this.#title.textContent = title;
    this.#chronicle.textContent = chronicle;
    // Drawn anew only where it is other than before, so that a button keeps the focus.
    const asked = waiting.map((one) => one.asked).join('\n');
    if (asked === this.#waiting.dataset['asked']) return;
    this.#waiting.dataset['asked'] = asked;
    this.#waiting.replaceChildren(...waiting.map(makeWaiting));
  }

  /** @param change is called with the props that have another value now */
  showProps(
    props: Readonly<Record<string, unknown>>,
    change: (changed: Record<string, unknown>) => void,
  ): void {
    const rows = Object.entries(props).map(([name, value]) =>
      makeProp(name, value, change, (text) => this.tell(text)),
    );
    this.#props.replaceChildren(...rows);
  }
}

const button = (word: string, work: () => void) => {
  const made = make('button', { type: 'button', textContent: word });
  made.addEventListener('click', work);
  return made;
};

function makeWaiting({ asked, offers, release, fail }: WaitingShown): HTMLElement {
  const own = make('input', {
    type: 'text',
    placeholder: 'or JSON',
    ariaLabel: `Answer of ${asked}, as JSON`,
  });
  const give = () => {
    try {
      release(own.value.trim() === '' ? undefined : JSON.parse(own.value));
    } catch {
      own.setCustomValidity('This is no JSON.');
      own.reportValidity();
    }
  };
  own.addEventListener('input', () => own.setCustomValidity(''));
  return make(
    'div',
    { className: 'row' },
    make('span', {}, 'Waits for ', make('code', { textContent: asked })),
    ...offers.map(({ name, value }) => button(`Answer as in “${name}”`, () => release(value))),
    own,
    button('Answer', give),
    button('Fail', fail),
  );
}

function makeProp(
  name: string,
  value: unknown,
  change: (changed: Record<string, unknown>) => void,
  tell: (text: string) => void,
): HTMLElement {
  const label = make('label', {}, make('code', { textContent: name }), ' ');
  const row = make('div', { className: 'row' }, label);
  if (typeof value === 'boolean') {
    const box = make('input', { type: 'checkbox', checked: value });
    box.addEventListener('change', () => change({ [name]: box.checked }));
    label.append(box);
  } else if (typeof value === 'string' || typeof value === 'number') {
    const field = make('input', {
      type: typeof value === 'number' ? 'number' : 'text',
      value: String(value),
    });
    field.addEventListener('input', () =>
      change({ [name]: typeof value === 'number' ? field.valueAsNumber : field.value }),
    );
    label.append(field);
  } else if (isData(value)) {
    const text = JSON.stringify(value, null, 2);
    const field = make('textarea', {
      value: text,
      rows: Math.min(8, text.split('\n').length),
      spellcheck: false,
    });
    field.addEventListener('input', () => {
      try {
        change({ [name]: JSON.parse(field.value) });
      } catch {
        tell(`What is written for "${name}" is no JSON yet.`);
      }
    });
    label.append(field);
  } else
    label.append(
      make('span', {
        className: 'fixed',
        textContent: typeof value === 'function' ? 'a function' : 'no plain data',
      }),
    );
  return row;
}

/** True for what JSON holds as it is. */
function isData(value: unknown): boolean {
  if (value === null || ['string', 'number', 'boolean'].includes(typeof value)) return true;
  if (Array.isArray(value)) return value.every(isData);
  return (
    typeof value === 'object' &&
    Object.getPrototypeOf(value) === Object.prototype &&
    Object.values(value as object).every((one) => one === undefined || isData(one))
  );
}
