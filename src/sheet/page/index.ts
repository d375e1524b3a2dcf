/* The page of a sheet: it runs in a browser, from a file or as it is served while states are being worked on. */
import { make } from '../../page/make';
import { countSheet, type Scheme, type Sheet, type SheetComponent } from '../model';
import { choice, localTheme, setTheme, themeWord } from './controls';
import { Enlarged } from './enlarged';
import { idOf, type Chosen, type Shown } from './shown';
import { makeTile } from './tile';

/** Where states can be tried, by project; there only while they are watched. */
const live = document.querySelector('#live')?.textContent;
const isLive = live !== undefined;

const read = (): Sheet => JSON.parse(document.querySelector('#sheet')!.textContent!) as Sheet;

class SheetPage {
  #sheet = read();
  readonly #screens = screensOf(this.#sheet);
  readonly #chosen: { width: number; scheme: Scheme; words: string; only: string } = {
    ...{ width: this.#screens.widths[0] ?? 0, scheme: this.#screens.schemes[0] ?? 'light' },
    ...{ words: '', only: 'all' },
  };
  readonly #main = make('main');
  readonly #counts = make('div', { className: 'counts', ariaLive: 'polite' });
  readonly #search = make('input', {
    type: 'search',
    placeholder: 'Find a component or a state',
    ariaLabel: 'Find a component or a state',
  });
  readonly #enlarged = new Enlarged({
    chosen: () => this.#chosen,
    onChosen: (chosen) => this.#choose(chosen),
    screens: this.#screens,
    listed: () => this.#listed(),
    placesToTry: live ? (JSON.parse(live) as Record<string, string>) : {},
  });

  start(): void {
    setTheme(localTheme.get());
    document.body.append(this.#head(), this.#main, this.#enlarged.element);
    this.#search.addEventListener('input', () => {
      this.#chosen.words = this.#search.value;
      this.#draw();
    });
    addEventListener('keydown', (event) => {
      if (event.key !== '/' || event.target instanceof HTMLInputElement || this.#enlarged.element.open)
        return;
      event.preventDefault();
      this.#search.focus();
    });
    addEventListener('hashchange', () => this.#openAddressed());
    this.#draw();
    this.#openAddressed();
    if (isLive) this.#follow();
  }

  /** Shows what is drawn anew while files are being saved. */
  #follow(): void {
    new EventSource('/events').onmessage = ({ data }) => {
      const { component, gone } = JSON.parse(data as string) as { component?: SheetComponent; gone?: string };
      const file = component?.file ?? gone;
      if (file === undefined) return;
      const others = this.#sheet.components.filter((one) => one.file !== file);
      const components = [...others, ...(component ? [component] : [])];
      components.sort((a, b) => (a.file < b.file ? -1 : 1));
      this.#sheet = { ...this.#sheet, components };
      this.#refresh();
    };
  }

  #isRefreshing = false;

  // What comes in one frame is drawn once.
  #refresh(): void {
    if (this.#isRefreshing) return;
    this.#isRefreshing = true;
    requestAnimationFrame(() => {
      this.#isRefreshing = false;
      const { widths, schemes } = screensOf(this.#sheet);
      if (this.#screens.widths.length === 0 && widths.length > 0) {
        this.#screens.widths.push(...widths);
        this.#screens.schemes.push(...schemes);
        this.#choose({ width: widths[0]!, scheme: schemes[0]! });
      }
      this.#draw();
      const { shown } = this.#enlarged;
      const again = shown && this.#all().find((one) => idOf(one) === idOf(shown));
      if (again && this.#enlarged.element.open) this.#enlarged.update(again);
    });
  }

  #openAddressed(): void {
    const id = decodeURIComponent(location.hash.slice(1));
    const shown = this.#all().find((one) => idOf(one) === id);
    if (shown) this.#enlarged.open(shown);
    else this.#enlarged.close();
  }

  #choose(chosen: Partial<Chosen>): void {
    Object.assign(this.#chosen, chosen);
    for (const [name, value] of Object.entries(chosen))
      for (const input of document.querySelectorAll<HTMLInputElement>(`.head [name="${name}"]`))
        input.checked = input.value === String(value);
    this.#draw();
  }

  #all(): Shown[] {
    return this.#sheet.components.flatMap((component) =>
      component.states.map((state) => ({ component, state })),
    );
  }

  /** What is to be seen now. */
  #listed(): Shown[] {
    const { words, only } = this.#chosen;
    const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
    return this.#all().filter(({ component, state }) => {
      const told = `${component.file} ${component.component} ${state.name}`.toLowerCase();
      if (!wanted.every((word) => told.includes(word))) return false;
      const { wrong, changed, isNew, problems } = countSheet({
        components: [{ ...component, failures: [], states: [state] }],
      });
      if (only === 'wrong') return wrong + changed + isNew > 0;
      return only !== 'problems' || problems > 0;
    });
  }

  #head(): HTMLElement {
    const { made, shard, milliseconds } = this.#sheet;
    const time = new Date(made).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
    const took = milliseconds > 0 ? ` in ${(milliseconds / 1000).toFixed(1)} s` : '';
    const about = make('p', { className: 'made' }, `Drawn ${time}${took}${shard ? `, part ${shard}` : ''}`);
    const theme = make('button', { className: 'plain', type: 'button', textContent: themeWord() });
    theme.addEventListener('click', () => {
      const other = document.documentElement.dataset['theme'] === 'dark' ? 'light' : 'dark';
      setTheme(other);
      localTheme.keep(other);
      theme.textContent = themeWord();
    });
    const { widths, schemes } = this.#screens;
    const choices = [
      choice(
        'width',
        'Width of the page',
        widths.map((width) => [String(width), `${width} px`]),
      ),
      choice(
        'scheme',
        'Colours of the page',
        schemes.map((scheme) => [scheme, scheme]),
      ),
      choice('only', 'Which states', [
        ['all', 'all'],
        ['wrong', 'not as it should be'],
        ['problems', 'hard to access'],
      ]),
    ];
    for (const one of choices)
      one.addEventListener('change', (event) => {
        const { name, value } = event.target as HTMLInputElement;
        this.#choose({ [name]: name === 'width' ? Number(value) : value });
      });
    const tools = make(
      'div',
      { className: 'tools' },
      this.#search,
      ...choices.filter((one) => one.dataset['of'] !== '1'),
      theme,
    );
    return make(
      'header',
      { className: 'head' },
      make('div', { className: 'first' }, make('h1', { textContent: 'States' }), this.#counts, about),
      tools,
    );
  }

  #draw(): void {
    const listed = this.#listed();
    this.#drawCounts(listed.length);
    const byProject = new Map<string, Map<SheetComponent, Shown[]>>();
    const isSought = this.#chosen.words !== '' || this.#chosen.only !== 'all';
    for (const component of this.#sheet.components) {
      const own = listed.filter((one) => one.component === component);
      const isWrong =
        component.failures.length > 0 && this.#chosen.words === '' && this.#chosen.only !== 'problems';
      if (own.length === 0 && (isSought ? !isWrong : component.states.length > 0)) continue;
      const project = byProject.get(component.project) ?? new Map<SheetComponent, Shown[]>();
      byProject.set(component.project, project.set(component, own));
    }
    this.#main.replaceChildren(
      ...[...byProject].map(([name, components]) =>
        make(
          'section',
          { className: 'project' },
          ...(byProject.size > 1 || name !== '' ? [make('h2', { textContent: name || 'This project' })] : []),
          ...[...components].map(([component, shown]) => this.#drawComponent(component, shown)),
        ),
      ),
    );
    if (byProject.size === 0)
      this.#main.append(make('p', { className: 'empty', textContent: 'No state is like that.' }));
  }

  #drawComponent(component: SheetComponent, shown: readonly Shown[]): HTMLElement {
    const { pairs, states, file, project, failures } = component;
    const own = project && file.startsWith(`${project}/`) ? file.slice(project.length + 1) : file;
    const apart = pairs.compared > 0 ? [make('span', {}, wordPairs(component))] : [];
    const about = make(
      'div',
      { className: 'about' },
      make('span', {}, own),
      make('span', {}, `${states.length} ${states.length === 1 ? 'state' : 'states'}`),
      ...apart,
    );
    const tiles = make(
      'ul',
      { className: 'tiles' },
      ...shown.map((one) => make('li', {}, makeTile(one, this.#chosen))),
    );
    return make(
      'article',
      { className: 'component' },
      make('div', {}, make('h3', { textContent: component.component }), about),
      tiles,
      ...failures.map(({ message }) =>
        make('div', { className: 'failures' }, make('pre', { className: 'trouble', textContent: message })),
      ),
    );
  }

  #drawCounts(listed: number): void {
    const { states, components, wrong, changed, isNew, problems, failures } = countSheet(this.#sheet);
    const say = (n: number, one: string, many: string, className = '') =>
      make('span', { className }, make('b', { textContent: String(n) }), ` ${n === 1 ? one : many}`);
    this.#counts.replaceChildren(
      say(states, 'state', 'states'),
      say(components, 'component', 'components'),
      ...(wrong + failures > 0
        ? [say(wrong + failures, 'wrong', 'wrong', 'bad')]
        : [make('span', { className: 'good' }, 'all verified')]),
      ...(changed > 0 ? [say(changed, 'changed', 'changed', 'changed')] : []),
      ...(isNew > 0 ? [say(isNew, 'not accepted yet', 'not accepted yet', 'changed')] : []),
      ...(problems > 0 ? [say(problems, 'hard to access', 'hard to access')] : []),
      ...(listed < states ? [say(listed, 'shown here', 'shown here')] : []),
    );
  }
}

function wordPairs({ pairs: { compared, apart }, failures }: SheetComponent): string {
  if (apart === compared) return 'all told apart';
  const isMeant = !failures.some(({ code }) => code === 'SIM-STATE-ALIKE');
  return `${apart} of ${compared} pairs told apart${isMeant ? ', the others meant alike' : ''}`;
}

function screensOf({ components }: Sheet) {
  const views = components.flatMap(({ states }) => states.flatMap((state) => state.views));
  return {
    widths: [...new Set(views.map(({ width }) => width))].sort((a, b) => a - b),
    schemes: [...new Set(views.map(({ scheme }) => scheme))].sort().reverse(),
  };
}

new SheetPage().start();
