/** @jsxImportSource vue */
import 'simulacra/jest';
import { VueQueryPlugin, QueryClient, useQuery } from '@tanstack/vue-query';
import { createPinia, defineStore } from 'pinia';
import type { SimulacraError } from 'simulacra';
import { css, fail, hold, label, part, record, role, takeDown, text, type Locator } from 'simulacra';
import { isolate, type Component } from 'simulacra/vue';
import {
  createApp,
  defineAsyncComponent,
  defineComponent,
  getCurrentInstance,
  h,
  inject,
  nextTick,
  onErrorCaptured,
  provide,
  computed,
  ref,
  shallowRef,
  Suspense,
  version,
  watch,
  type App,
  type FunctionalComponent,
  type VNode,
} from 'vue';
import { createMemoryHistory, createRouter, RouterView, useRoute } from 'vue-router';
import { hives } from '../../examples/shared/hive';
import Ledger from './Ledger.vue';
import Shelf from './Shelf.vue';
import { vueKit } from './vue-kit';
import { conform } from './specification';
import * as components from './vue';

const { Board, Card, GateSign, Patient, Weight } = components;

conform(vueKit);

const failure = async (work: Promise<unknown>): Promise<SimulacraError> =>
  work.then(
    () => expect('nothing').toBe('thrown') as never,
    (error: SimulacraError) => error,
  );

describe(`Vue ${version}, its own ways`, () => {
  const refuseToRun = (): (() => null) => {
    throw new Error('the child was rendered');
  };
  const Child = defineComponent({
    name: 'Child',
    props: { hiveId: String, marked: Boolean },
    emits: ['open'],
    setup: refuseToRun,
  });
  const Nameless = { props: ['hiveId'], setup: refuseToRun };
  const Later = defineAsyncComponent(() => Promise.reject(new Error('the child was loaded')));
  const parent = (template: string, more: object = {}): Component =>
    defineComponent({ name: 'Parent', template, ...more });
  const Endless = defineComponent({
    name: 'Endless',
    props: { hiveId: String },
    template: '<Endless hive-id="h3" />',
  });
  const globally = { install: (app: App) => void app.component('GlobalChild', Child) };

  it.each<[string, Component, Component | string, object?]>([
    ['of a render function', defineComponent({ render: () => h(Child, { hiveId: 'h3' }) }), Child],
    ['of JSX', defineComponent({ render: () => <Child hiveId="h3" /> }), Child],
    ['of a function', (() => h(Child, { hiveId: 'h3' })) as FunctionalComponent, Child],
    ['in a template', parent('<child hive-id="h3" />', { components: { Child } }), Child],
    ['by its own name', parent('<Kid hive-id="h3" />', { components: { Kid: Child } }), 'Child'],
    [
      'by the name it is registered by',
      parent('<Kid hive-id="h3" />', { components: { Kid: Nameless } }),
      'Kid',
    ],
    [
      'that is dynamic',
      parent('<component :is="Child" hive-id="h3" />', { setup: () => ({ Child }) }),
      Child,
    ],
    ['that is loaded later', parent('<Later hive-id="h3" />', { components: { Later } }), Later],
    ['that is loaded later, by name', parent('<Later hive-id="h3" />', { components: { Later } }), 'Later'],
    ['inside of itself', Endless, Endless, { props: { hiveId: 'h2' } }],
    ['that is global', parent('<global-child hive-id="h3" />'), Child, { wrap: [globally] }],
    ['that is registered nowhere', parent('<lost-child hive-id="h3" />'), 'LostChild'],
    [
      "inside of Vue's own components",
      parent(
        '<Suspense><KeepAlive><Child hive-id="h3" /></KeepAlive></Suspense><Teleport to="body"><Child hive-id="h3" /></Teleport>',
        { components: { Child } },
      ),
      Child,
    ],
  ])('stubs a child %s', async (_, Parent, target, options = {}) => {
    const subject = await isolate(Parent, { stub: [target], ...options });
    const stubs = subject.findAll(part(target));
    expect(stubs.length).toBeGreaterThan(0);
    for (const element of stubs) expect(element.getAttribute('data-props')).toMatch(/hive-?id="h3"/i);
    expect(subject.chronicle.of('logged')).toEqual([]);
  });

  it('stubs a child that was made by a listener', async () => {
    const Modal = defineComponent({
      name: 'Modal',
      setup() {
        const shown = shallowRef<VNode>();
        const show = () => (shown.value = h(Child, { hiveId: 'h3' }));
        return () => [h('button', { onClick: show }), shown.value];
      },
    });
    const modal = await isolate(Modal, { stub: [Child] });
    await modal.click(role('button'));
    expect(modal.part(Child).props).toEqual([{ hiveId: 'h3', marked: false }]);
    expect(modal.outline()).toBe('Modal\n  button\n  Child  hiveId="h3" marked={false}');
  });

  it('casts what a stub is given as the child would', async () => {
    const subject = await isolate(parent('<Child marked />', { components: { Child } }), { stub: [Child] });
    expect(subject.part(Child).props).toEqual([{ marked: true }]);
  });

  it('renders single-file components: props, models, slots, events, directives, class names', async () => {
    const note = ref('calm');
    const ledger = await isolate(Ledger, {
      props: { kilograms: 31.2, crowded: true, note },
      slots: { head: ({ half }: { half: number }) => `half ${half}`, default: GateSign },
      stub: [Weight, 'v-shout'],
    });
    expect(ledger.find(css('section')).textContent).toMatch(/^half 15.6.*crowded/);
    expect(ledger.find(css('section')).className).toBe('ledger');
    expect(ledger).not.toShow(css('[title=shouted]'));
    expect(ledger).toShow(part('v-shout'), { times: 2 });
    await ledger.clear(label('Note'));
    await ledger.type(label('Note'), 'wild');
    expect(note.value).toBe('wild');
    expect(ledger.outputs['update:note']!.at(-1)).toEqual(['wild']);
    note.value = 'calm again';
    await ledger.atRest();
    expect((ledger.find(label('Note')) as HTMLInputElement).value).toBe('calm again');
    await ledger.click(role('button', 'Weigh'));
    expect(ledger.outputs.weighed).toEqual([[31.2, 'noon']]);
  });

  it('points at the line of a single-file component', async () => {
    const boom = () => {
      throw new RangeError('39.5 degrees');
    };
    const error = await failure(isolate(Ledger, { slots: { default: boom } }));
    expect((error.cause as Error).stack).toMatch(/Ledger\.vue:19:5/);
  });

  it('is the root of its application, and follows refs also where they are given later', async () => {
    const Label = defineComponent({
      props: ['kilograms'],
      setup: () => ({ isRoot: getCurrentInstance()!.parent === null }),
      template: '<p>{{ kilograms }} kg {{ isRoot }}</p>',
    });
    const label = await isolate(Label, { props: { kilograms: 31 } });
    expect(label).toShow(text('31 kg true'));
    const kilograms = ref(32);
    await label.update({ kilograms });
    expect(label).toShow(text('32 kg true'));
    kilograms.value = 33;
    await label.atRest();
    expect(label).toShow(text('33 kg true'));
    await label.update({ kilograms: 34 });
    kilograms.value = 35;
    await label.atRest();
    expect(label).toShow(text('34 kg true'));
    expect(label.chronicle.of('rendered').length).toBe(4);
  });

  it('renders options of a single-file component', async () => {
    const shelf = await isolate(Shelf, { props: { frames: 9 } });
    await shelf.click(role('button', 'Toggle'));
    expect(shelf).toShow(text('9 kg'));
    expect(shelf.outline()).toBe('Shelf  frames={9}\n  button "Toggle"\n  Weight  kilograms={9}\n    "9 kg"');
  });

  it('leaves directives of others alone, and puts back what it replaced', async () => {
    const vFocus = { mounted: (element: HTMLElement) => element.focus() };
    const Field = parent('<input v-focus aria-label="Field" />', { directives: { focus: vFocus } });
    const real = await isolate(Field);
    expect(document.activeElement).toBe(real.find(label('Field')));
    (document.activeElement as HTMLElement).blur();
    const [stubbed] = await Promise.all([isolate(Field, { stub: [vFocus] }), isolate(Field)]);
    expect(document.activeElement).not.toBe(stubbed.find(label('Field')));
    expect(document.activeElement).not.toBe(document.body);
    await takeDown();
    const again = await isolate(Field);
    expect(document.activeElement).toBe(again.find(label('Field')));
  });

  it('refuses a prop of the wrong type, and a slot that is not there', async () => {
    const Frame = parent('<p>{{ weight }}<slot name="footer" /></p>', { props: { weight: Number } });
    const given = async (options: object) => {
      await isolate(Frame, options);
      await takeDown();
    };
    await expect(given({ props: { weight: 'heavy' } })).rejects.toThrow(
      /SIM-PROP-TYPE[^]*"weight"[^]*Expected Number, got String/,
    );
    const frame = await isolate(Frame, { props: { weight: 3 } });
    await expect(frame.update({ weight: 'heavy' })).rejects.toThrow('SIM-PROP-TYPE');
    await takeDown();
    await expect(given({ slots: { foter: 'x' } })).rejects.toThrow(
      /SIM-SLOT-UNKNOWN[^]*slots: { footer: … }/,
    );
    await expect(given({ slots: { beside: 'x' } })).rejects.toThrow(/SIM-SLOT-UNUSED[^]*footer/);
    await given({ slots: { footer: 'x' } });
  });

  it('stubs one directive in two subjects, each for itself', async () => {
    const vMark = { mounted: (element: HTMLElement) => element.setAttribute('data-marked', '') };
    const Field = parent('<i v-mark="3" />', { directives: { mark: vMark } });
    const first = await isolate(Field, { stub: [vMark] });
    const second = await isolate(Field, { stub: [vMark] });
    const third = await isolate(Field);
    expect(
      [first, second, third].map((one) => one.container.querySelectorAll('[data-marked]').length),
    ).toEqual([0, 0, 1]);
    expect([first, second].map((one) => one.part(vMark).props)).toEqual([[{ value: 3 }], [{ value: 3 }]]);
    await first.takeDown();
    expect((await isolate(Field)).container.querySelectorAll('[data-marked]').length).toBe(1);
  });

  it('provides global properties, and plugins with options', async () => {
    const plugin = { install: (app: App, word: string) => void app.provide('word', word) };
    const Sign = parent('<p>{{ $format(2) }} {{ word }}</p>', { inject: ['word'] });
    const sign = await isolate(Sign, {
      provide: [['$format', (n: number) => `${n} kg`]],
      wrap: [[plugin, 'Gate']],
    });
    expect(sign).toShow(text('2 kg Gate'));
  });

  it('does not wait for transitions', async () => {
    const Fade = parent(
      '<button @click="on = !on">Fade</button><Transition name="fade"><p v-if="on">here</p></Transition><TransitionGroup><i v-for="n in on ? 2 : 0" :key="n" /></TransitionGroup>',
      { data: () => ({ on: true }) },
    );
    const fade = await isolate(Fade);
    await fade.click(role('button', 'Fade'));
    expect(fade).not.toShow(text('here'));
    expect(fade).not.toShow(css('i'));
  });

  it('sees what a Teleport puts elsewhere, and what a KeepAlive keeps', async () => {
    const Tab = parent('<p role="dialog" aria-label="Tab">{{ n }}</p>', {
      data: () => ({ n: Math.random() }),
    });
    const Tabs = parent(
      '<button @click="on = !on">Turn</button><Teleport to="body"><KeepAlive><Tab v-if="on" /></KeepAlive></Teleport>',
      { components: { Tab }, data: () => ({ on: true }) },
    );
    const tabs = await isolate(Tabs);
    const before = tabs.find(role('dialog', 'Tab')).textContent;
    await tabs.click(role('button', 'Turn'));
    expect(tabs).not.toShow(role('dialog'));
    await tabs.click(role('button', 'Turn'));
    expect(tabs.find(role('dialog', 'Tab')).textContent).toBe(before);
  });

  it('waits with a setup that waits, and shows the fallback meanwhile', async () => {
    const Slow = defineComponent({
      name: 'Slow',
      async setup() {
        const name = (await (await fetch('/api/name')).json()) as string;
        return () => h('p', name);
      },
    });
    const answer = hold<string>();
    const network = { 'GET /api/name': answer };
    const alone = await isolate(Slow, { network });
    expect(alone.container.textContent).toBe('');
    const Page = parent(
      '<Suspense><Slow /><template #fallback><p role="status">Waiting</p></template></Suspense>',
      {
        components: { Slow },
      },
    );
    const page = await isolate(Page, { network });
    expect(page).toShow(role('status', 'Waiting'));
    await answer.release('Anemone');
    expect(alone).toShow(text('Anemone'));
    expect(page).toShow(text('Anemone'));
    expect(page.chronicle.of('logged')).toEqual([]);
    const bare = parent('<Slow />', { components: { Slow } });
    expect((await failure(isolate(bare, { network }))).code).toBe('SIM-SUSPENSE-MISSING');
    expect(await isolate(bare, { network: { 'GET /api/name': 'Borage' }, wrap: [Suspense] })).toShow(
      text('Borage'),
    );
  });

  const boom = (): never => {
    throw new RangeError('39.5 degrees');
  };
  it.each<[string, object, string, RegExp]>([
    [
      'setup',
      { setup: boom },
      'SIM-RENDER-THREW',
      /Sick, inside Parent, threw in its setup: RangeError: 39.5/,
    ],
    ['rendering', { render: boom }, 'SIM-RENDER-THREW', /threw while rendering[^]*in Sick\n {4}in Parent/],
    ['mounted', { render: () => null, mounted: boom }, 'SIM-RENDER-THREW', /threw in a mounted hook/],
    [
      'a watcher',
      { props: ['n'], setup: (props: { n: number }) => (watch(() => props.n, boom), () => null) },
      'SIM-RENDER-THREW',
      /threw in a watcher callback/,
    ],
    ['a listener', { render: () => h('b', { onClick: boom }, 'x') }, 'SIM-HANDLER-THREW', /clicked/],
  ])('explains what is thrown in %s', async (_, options, code, words) => {
    const Sick = defineComponent({ name: 'Sick', ...options });
    const Parent = defineComponent({
      name: 'Parent',
      props: ['n'],
      render() {
        return h(Sick, { n: this.n as number });
      },
    });
    const error = await failure(
      isolate(Parent, { props: { n: 1 } }).then(async (subject) => {
        if (subject.has(css('b'))) await subject.click(css('b'));
        await subject.update({ n: 2 });
      }),
    );
    expect([error.code, error.message]).toEqual([code, expect.stringMatching(words)]);
    expect(error.cause).toBeInstanceOf(RangeError);
  });

  it('leaves an error alone that a component catches', async () => {
    const Safe = defineComponent({
      setup: () => {
        const caught = ref('');
        onErrorCaptured((error) => ((caught.value = error.message), false));
        return () => (caught.value ? h('p', caught.value) : h(Patient, { ill: true }));
      },
    });
    expect(await isolate(Safe)).toShow(text('39.5 degrees'));
  });

  it('lists what was read and not provided, also where a default did', async () => {
    const Reader = defineComponent({
      name: 'Reader',
      setup: () => () => h('p', inject('units', 'kilograms')),
    });
    const reader = await isolate(Reader);
    expect(reader).toShow(text('kilograms'));
    expect(reader.chronicle.of('read').map(({ what, from }) => [what, from])).toEqual([['units', 'Reader']]);
  });

  it('leaves other applications alone', async () => {
    const board = await isolate(Board, {
      props: { yard: 'north' },
      stub: [Card],
      network: { 'GET /api/hives': hives },
    });
    const place = document.body.appendChild(document.createElement('div'));
    const app = createApp(Card, { hive: hives[0] });
    app.mount(place);
    await nextTick();
    expect(place.querySelector('article')?.getAttribute('aria-label')).toBe('Anemone');
    expect(board).toShow(part(Card), { times: 3 });
    app.unmount();
    place.remove();
  });
});

describe('real packages around a Vue component', () => {
  const shows = async (subject: Promise<{ has(locator: Locator): boolean }>, words: string) =>
    expect((await subject).has(text(words))).toBe(true);

  it('has vue-router in memory', async () => {
    const Detail = defineComponent({
      setup: () => {
        const route = useRoute();
        return () => h('p', `Hive ${String(route.params['hiveId'])}`);
      },
    });
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [{ path: '/hives/:hiveId', component: Detail }],
    });
    await router.push('/hives/h7');
    await shows(isolate(Detail, { wrap: [router] }), 'Hive h7');
    const page = await isolate(RouterView, { wrap: [router], stub: [Detail] });
    expect(page).toShow(part(Detail));
    expect((await failure(isolate(Detail))).message).toContain('wrap: [router]');
  });

  it('has pinia', async () => {
    const useTasks = defineStore('tasks', {
      state: () => ({ open: 3 }),
      actions: {
        done() {
          this.open--;
        },
      },
    });
    const Tasks = defineComponent({
      setup: () => {
        const tasks = useTasks();
        return () => h('button', { onClick: tasks.done }, `${tasks.open} tasks`);
      },
    });
    expect((await failure(isolate(Tasks))).message).toContain('wrap: [pinia]');
    const tasks = await isolate(Tasks, { wrap: [createPinia()] });
    await tasks.click(role('button'));
    expect(tasks).toShow(text('2 tasks'));
  });

  it('has a client that fetches data', async () => {
    const List = defineComponent({
      setup: () => {
        const { data, isError } = useQuery({
          queryKey: ['hives'],
          queryFn: async () => (await fetch('/api/hives')).json() as Promise<typeof hives>,
          retry: false,
        });
        return () =>
          h('p', isError.value ? 'failed' : (data.value?.map(({ name }) => name).join() ?? 'loading'));
      },
    });
    const around = () => ({ wrap: [[VueQueryPlugin, { queryClient: new QueryClient() }] as const] });
    const answer = hold<typeof hives>();
    const list = await isolate(List, { ...around(), network: { 'GET /api/hives': answer } });
    expect(list).toShow(text('loading'));
    await answer.release(hives);
    await list.appears(text('Anemone,Borage,Clover'));
    const failed = await isolate(List, { ...around(), network: { 'GET /api/hives': fail() } });
    await failed.appears(text('failed'));
  });

  it('takes the name of a stub as templates write it, too', async () => {
    const Lid = defineComponent({ name: 'RoofLid', template: '<p>lid</p>' });
    const Roof = defineComponent({ name: 'Roof', components: { Lid }, template: '<lid />' });
    for (const written of ['roof-lid', 'RoofLid']) {
      const roof = await isolate(Roof, { stub: [written] });
      expect(roof).not.toShow(text('lid'));
      expect(roof).toShow(part(written));
      expect(roof).toShow(part(Lid));
    }
  });

  it('hears a click on the way up while the clock stands still', async () => {
    const heard: string[] = [];
    const Nested = defineComponent({
      setup: () => ({ heard: (who: string) => void heard.push(who) }),
      template: `<section @click="heard('section')"><button @click="heard('button')">Go</button></section>`,
    });
    const nested = await isolate(Nested, { time: 'virtual' });
    await nested.click(role('button'));
    expect(heard).toEqual(['button', 'section']);
    await takeDown();
    const real = await isolate(Nested);
    await new Promise((resolve) => setTimeout(resolve, 5));
    await real.click(role('button'));
    expect(heard).toEqual(['button', 'section', 'button', 'section']);
  });

  it('does not call what a component provides itself missing', async () => {
    const Yard = defineComponent({
      setup() {
        provide('yard', 'north');
        const yard = inject<string>('yard');
        return () => h('p', yard ?? (null as unknown as { name: string }).name);
      },
    });
    await expect(isolate(Yard)).rejects.toMatchObject({ code: 'SIM-RENDER-THREW' });
  });

  it('records refs, computed values and reactive objects', async () => {
    const weight = ref(31.2);
    const heavy = record(computed(() => weight.value > 35));
    const weights = record(weight);
    weight.value = 36;
    weight.value = 34;
    expect([weights.values, heavy.values]).toEqual([
      [31.2, 36, 34],
      [false, true, false],
    ]);
    await takeDown();
    weight.value = 40;
    expect(weights.values).toHaveLength(3);
  });
});
