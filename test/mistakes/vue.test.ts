import 'simulacra/jest';
import { role, spy } from 'simulacra';
import { createPinia, defineStore, setActivePinia } from 'pinia';
import { isolate, isolateWith, stub, type Component } from 'simulacra/vue';
import { defineComponent, h, inject, ref, version, watch, type InjectionKey } from 'vue';
import { createMemoryHistory, createRouter, RouterView, useRoute } from 'vue-router';
import HiveBoard from '../../examples/vue-apiary/src/HiveBoard.vue';
import HiveCard from '../../examples/vue-apiary/src/HiveCard.vue';
import { SessionKey } from '../../examples/vue-apiary/src/session';
import YardGate from '../../examples/vue-apiary/src/YardGate.vue';
import { hives } from '../../examples/shared/hive';
import { Desk, Pad } from '../conformance/vue';
import { explainsEach } from './run';
import { at, mistakes, type Mistake } from './table';

const component = (name: string, options: object): Component => defineComponent({ name, ...options });

const Scale = component('Scale', {
  template: `<div><p>Now <b>31.2</b> kg</p><div aria-hidden="true"><button>Tare</button></div><button style="display: none">Reset</button></div>`,
});
const Retitled = component('Retitled', {
  data: () => ({ open: false }),
  template: `<div><strong v-if="open">Inspections</strong><h2 v-else>Inspections</h2><button @click="open = true">Open</button></div>`,
});
const Sick = component('Sick', {
  render() {
    throw new TypeError('queen is undefined');
  },
});
const Row = component('Row', { template: '<div><slot /></div>' });
const Tray = component('Tray', { components: { Row, Sick }, template: '<Row><Sick /></Row>' });
const Loop = component('Loop', {
  data: () => ({ n: 0 }),
  updated(this: { n: number }) {
    void Promise.resolve().then(() => this.n++);
  },
  mounted(this: { n: number }) {
    this.n++;
  },
  template: '<p :data-turn="n">Turn</p>',
});
const churning = () => {
  const [mites, treatments] = [ref(0), ref(0)];
  watch(mites, () => treatments.value++);
  watch(treatments, () => mites.value++);
  return { mites };
};
const Churn = component('Churn', {
  setup() {
    const { mites } = churning();
    mites.value++;
    return { mites };
  },
  template: '<p>Turn</p>',
});
const ChurnOnClick = component('Churn', {
  setup: churning,
  template: '<button @click="mites++">Turn</button>',
});
const Frame = component('Frame', {
  inject: ['spacing'],
  template: '<li>{{ spacing.value }} mm</li>',
});
const Rack = component('Rack', {
  provide: { spacing: { value: 35 } },
  template: '<ul><slot /></ul>',
});
const Box = component('Box', { components: { Rack, Frame }, template: '<Rack><Frame /><Frame /></Rack>' });
const Radio = component('Radio', { setup: () => ({ name: new BroadcastChannel('yard').name }) });
const Season: InjectionKey<{ flow: string }> = Symbol('Season');
const useSeasons = defineStore('seasons', () => ({ flow: inject(Season)!.flow }));
const routed = (page: Component) => {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/', component: page as never }],
  });
  return router.push('/').then(() => router);
};
const useTasks = defineStore('tasks', { state: () => ({ open: 3 }) });
const yard = { yard: 'north' };
const nobody = { keeper: ref(null), signIn() {}, signOut() {} };

const NameField = component('NameField', {
  props: { modelValue: String },
  emits: ['update:modelValue'],
  template: '<slot />',
});

const own: Mistake[] = [
  { title: 'Watchers that set each other off', code: 'isolate(Churn)', make: () => isolate(Churn) },
  {
    title: 'Watchers that set each other off, beside another subject',
    code: "churn.click(role('button', 'Turn'))",
    make: async () => {
      const churn = await isolate(ChurnOnClick);
      await isolate(HiveCard, { props: { hive: hives[0]! } });
      await churn.click(role('button', 'Turn'));
    },
  },
  {
    title: 'An element that cannot be made',
    code: "isolate(Comb)   // h('wax comb')",
    make: () => isolate(component('Comb', { render: () => h('wax comb') })),
  },
  {
    title: 'An injection that nobody provides',
    code: 'isolate(YardGate)',
    make: () => isolate(YardGate),
    facts: {
      fields: {
        home: { file: expect.stringMatching(/src\/session\.ts$/) as string, name: 'SessionKey' },
        readAt: at('YardGate.vue', 5),
      },
      thrown: { name: 'Error', at: at('session.ts', 14) },
    },
  },
  {
    title: 'A required prop that is not given',
    code: 'isolate(HiveBoard)',
    make: () => isolate(HiveBoard, {} as never),
  },
  {
    title: 'A prop that is a letter off',
    code: "isolate(HiveBoard, { props: { yrad: 'north' } })",
    make: () => isolate(HiveBoard, { props: { yrad: 'north' } as never }),
  },
  {
    title: 'A component that is registered nowhere',
    code: 'isolate(Shelf)   // <hive-crad /> in its template',
    make: () =>
      isolate(component('Shelf', { components: { HiveCard }, template: '<hive-crad :hive="1" />' })),
  },
  {
    title: 'A component that is registered as undefined',
    code: "isolate(Shelf)   // import HiveCard from './HiveCard.vue', which imports Shelf.vue itself",
    make: () =>
      isolate(
        component('Shelf', {
          components: { HiveCard: undefined },
          template: '<HiveCard :hive="1" />',
        } as never),
      ),
  },
  {
    title: 'A component of a plugin that is not there',
    code: 'isolate(Links)   // <RouterLink /> in its template',
    make: () => isolate(component('Links', { template: '<RouterLink to="/">Board</RouterLink>' })),
  },
  {
    title: 'A directive that is registered nowhere',
    code: 'isolate(Field)   // v-focus in its template',
    make: () => isolate(component('Field', { template: '<input v-focus>' })),
  },
  {
    title: 'A route without a router',
    code: 'isolate(HiveDetail)   // calls useRoute()',
    make: () =>
      isolate(component('HiveDetail', { setup: () => ({ id: useRoute().params }), template: '{{ id }}' })),
  },
  {
    title: 'A listener in another spelling',
    code: 'isolate(NameField, { props: { onUpdateModelValue: spy() } })',
    make: () => isolate(NameField, { props: { onUpdateModelValue: spy() } as never }),
  },
  {
    title: 'An element in wrap',
    code: "isolate(NameField, { wrap: [h('div')] })",
    make: () => isolate(NameField, { wrap: [h('div') as never] }),
  },
  {
    title: 'An element in place of a component',
    code: 'isolate(h(NameField))',
    make: () => (isolate as (of: unknown) => Promise<unknown>)(h(NameField as never)),
  },
  {
    title: 'Markup as the text of a slot',
    code: "isolate(NameField, { slots: { default: '<p>North</p>' } })",
    make: () => isolate(NameField, { slots: { default: '<p>North</p>' } }),
  },
  {
    title: 'An injection whose default is null',
    code: 'isolate(Flow)   // const { flow } = inject(Season, null)!',
    make: () =>
      isolate(
        component('Flow', {
          setup() {
            const { flow } = inject(Season, null)!;
            return () => h('p', flow);
          },
        }),
      ),
  },
  {
    title: 'An injection whose default is null, where null is provided',
    code: 'isolate(Flow, { provide: [[Season, null]] })',
    make: () =>
      isolate(
        component('Flow', {
          setup() {
            inject('units', 'kg');
            const { flow } = inject(Season, null)!;
            return () => h('p', flow);
          },
        }),
        { provide: [[Season, null as never]] },
      ),
  },
  {
    title: 'An injection that has a default',
    code: "isolate(Flow)   // inject(Season, 'lime'), and throws a RangeError",
    make: () =>
      isolate(
        component('Flow', {
          setup() {
            inject(Season, { flow: 'lime' });
            throw new RangeError('a hive of 90,000 bees');
          },
        }),
      ),
  },
  {
    title: 'A page inside of a router view that throws',
    code: 'isolate(Shell, { wrap: [router] })   // <RouterView />, which leads to HivePage',
    make: async () =>
      isolate(component('Shell', { components: { RouterView }, template: '<RouterView />' }), {
        wrap: [await routed(component('HivePage', { setup: () => ({ name: inject(Season)!.flow }) }))],
      }),
  },
  {
    title: 'A store that injects what nobody provides',
    code: 'isolate(FlowSign, { wrap: [createPinia()] })   // useSeasons() calls inject(Season)',
    make: () =>
      isolate(component('FlowSign', { setup: () => ({ seasons: useSeasons() }), template: '<p />' }), {
        wrap: [createPinia()],
      }).finally(() => setActivePinia(undefined)),
  },
  {
    title: 'A store without its plugin',
    code: 'isolate(TaskCount)   // calls useTasks()',
    make: () =>
      isolate(component('TaskCount', { setup: () => ({ tasks: useTasks() }), template: '{{ tasks.open }}' })),
  },
  {
    title: 'A child whose setup waits, and nobody waits for it',
    code: 'isolate(Page)   // its child has an async setup()',
    make: () =>
      isolate(
        component('Page', {
          render: () => h(defineComponent({ name: 'Slow', setup: async () => () => h('p') })),
        }),
      ),
  },
  {
    title: 'An output that is never declared',
    code: 'board.outputs.opend',
    make: async () => {
      const board = await isolate(HiveBoard, { props: yard, network: { 'GET /api/hives': hives } });
      return (board.outputs as Record<string, unknown>)['opend'];
    },
  },
];

explainsEach(
  `Vue ${version}`,
  [
    ...mistakes({
      isolate: isolate as never,
      isolateWith: isolateWith as never,
      stub,
      HiveBoard,
      HiveCard,
      anotherHiveCard: component('HiveCard', { render: () => null }),
      YardGate,
      Session: SessionKey,
      nobody,
      imke: { ...nobody, keeper: ref('Imke') },
      Weather: Symbol('Weather') as InjectionKey<null>,
      listens: 'onOpen',
      Scale,
      Retitled,
      Tray,
      Loop,
      shore: () => import('./modules/vue/Shore'),
      Desk,
      Pad,
      Box,
      Rack,
      Radio,
    }),
    ...own,
  ],
  { file: 'mistakes-vue', others: 'mistakes' },
);
