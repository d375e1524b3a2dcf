import 'simulacra/jest';
import { hold, label, role, swap, text } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { hives, type Hive } from '../../examples/shared/hive';

// recipe: vue-router
import { defineComponent, h } from 'vue';
import { createMemoryHistory, createRouter, RouterLink, useRoute } from 'vue-router';

const HivePage = defineComponent(() => {
  const { params } = useRoute();
  return () => h('p', [`Hive ${String(params['hiveId'])} `, h(RouterLink, { to: '/' }, () => 'Back')]);
});

test('a page is given its address, and where it leads can be asserted', async () => {
  const empty = { render: () => null };
  const routes = ['/', '/hives/:hiveId'].map((path) => ({ path, component: empty }));
  const router = createRouter({ history: createMemoryHistory(), routes });
  await router.push('/hives/h7');
  const page = await isolate(HivePage, { wrap: [router] });
  expect(page).toShow(text(/Hive h7/));
  await page.click(role('link', 'Back'));
  expect(page.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
// end

// recipe: pinia
import { createPinia, defineStore, setActivePinia } from 'pinia';

const useYard = defineStore('yard', {
  state: () => ({ opened: [] as string[] }),
  actions: {
    open(hiveId: string) {
      this.opened.push(hiveId);
    },
  },
});
const OpenHives = defineComponent(() => {
  const yard = useYard();
  return () => h('button', { onClick: () => yard.open('h3') }, `${yard.opened.length} open`);
});

test('a component works on a real store that begins where the test says', async () => {
  const pinia = createPinia();
  setActivePinia(pinia);
  useYard().$patch({ opened: ['h1'] });
  const open = await isolate(OpenHives, { wrap: [pinia] });
  await open.click(role('button', '1 open'));
  expect(open).toShow(role('button', '2 open'));
  expect(useYard().opened).toEqual(['h1', 'h3']);
});
// end

// recipe: a Vue component library
import PrimeVue from 'primevue/config';
import InputText from 'primevue/inputtext';
import ProgressBar from 'primevue/progressbar';

const Stores = defineComponent(() => () => [
  h('label', ['Frames of stores', h(InputText, { modelValue: '4' })]),
  h(ProgressBar, { value: 40, 'aria-label': 'Stores' }),
]);

test('a component is drawn with the library around it', async () => {
  const stores = await isolate(Stores, { wrap: [[PrimeVue, { unstyled: true }]] });
  expect(stores.find(label('Frames of stores'))).toHaveProperty('value', '4');
  expect(stores).toShow(role('progressbar', 'Stores'));
});

test('the components of the library can be stubbed like any other', async () => {
  const stores = await isolate(Stores, { wrap: [[PrimeVue, { unstyled: true }]], stub: [ProgressBar] });
  expect(stores.part(ProgressBar).props).toMatchObject([{ value: 40 }]);
});
// end

// recipe: TanStack Query for Vue
import { QueryClient, useQuery, VueQueryPlugin } from '@tanstack/vue-query';

const HiveNames = defineComponent(() => {
  const { data, isPending } = useQuery({
    queryKey: ['hives'],
    queryFn: async (): Promise<Hive[]> => (await (await fetch('/api/hives')).json()) as Hive[],
  });
  return () => h('p', isPending.value ? 'Loading' : data.value?.map(({ name }) => name).join(', '));
});

test('a query is loading, then shows what the network answered', async () => {
  const answer = hold<Hive[]>();
  const queryClient = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const names = await isolate(HiveNames, {
    wrap: [[VueQueryPlugin, { queryClient }]],
    network: { 'GET /api/hives': answer },
  });
  expect(names).toShow(text('Loading'));
  await answer.release(hives);
  expect(names).toShow(text('Anemone, Borage, Clover'));
});

test('or the client itself is swapped', async () => {
  const { ref } = await import('vue');
  const answered = { data: ref([hives[0]]), isPending: ref(false) };
  const names = await isolate(HiveNames, {
    swap: [swap(() => import('@tanstack/vue-query'), { useQuery: () => answered as never })],
  });
  expect(names).toShow(text('Anemone'));
});
// end
