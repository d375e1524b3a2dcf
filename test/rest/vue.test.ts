import 'simulacra/jest';
import { isolate } from 'simulacra/vue';
import {
  defineAsyncComponent,
  defineComponent,
  h,
  nextTick,
  onMounted,
  onUpdated,
  ref,
  version,
  watch,
  watchEffect,
} from 'vue';
import { comesToRest, microtasks, type Case } from './runs';

const shown = '<button v-if="go" @click="go">Go</button><output>{{ state }}</output>';

const Ticks = defineComponent({
  setup() {
    const state = ref('before');
    const go = async () => {
      state.value = 'before';
      for (let n = 0; n < 5; n++) await nextTick();
      state.value = 'done';
    };
    return { state, go };
  },
  template: shown,
});

const Flushed = defineComponent({
  setup() {
    const count = ref(0);
    const state = ref('before');
    watch(count, (now) => (now < 4 ? void count.value++ : (state.value = 'done')), { flush: 'post' });
    onMounted(() => count.value++);
    return { state, go: undefined };
  },
  template: shown,
});

const Effects = defineComponent({
  setup() {
    const count = ref(0);
    const state = ref('before');
    watchEffect(() => {
      if (count.value < 5) void microtasks(count.value).then(() => count.value++);
      else state.value = 'done';
    });
    return { state, go: undefined };
  },
  template: shown,
});

const Updated = defineComponent({
  setup() {
    const count = ref(0);
    onMounted(() => count.value++);
    onUpdated(() => {
      if (count.value < 4) count.value++;
    });
    return { count };
  },
  template: '<output>{{ count === 4 ? "done" : count }}</output>',
});

const Fetching = defineComponent({
  async setup() {
    const first = (await (await fetch('/api/first')).json()) as string;
    const state = await (await fetch(`/api/${first}`)).text();
    return { state, go: undefined };
  },
  template: shown,
});

const Timers = defineComponent({
  setup() {
    const count = ref(0);
    const again = () => {
      if (++count.value < 3) setTimeout(again, 0);
    };
    onMounted(() => setTimeout(again, 0));
    return { count };
  },
  template: '<output>{{ count === 3 ? "done" : count }}</output>',
});

const Later = defineComponent({
  setup() {
    const Loaded = defineAsyncComponent(
      () =>
        new Promise<never>((resolve) => setTimeout(() => resolve((() => h('output', 'done')) as never), 1)),
    );
    return () => h(Loaded);
  },
});

const network = { 'GET /api/first': '"second"'.slice(1, -1), 'GET /api/second': () => new Response('done') };
const cases: Case[] = [
  ['nextTick in a row', Ticks],
  ['a watcher with flush post that changes what it watches', Flushed],
  ['effects over promises', Effects],
  ['updates that update', Updated],
  ['requests in a row in a setup that waits', Fetching, { network }],
  ['timers of 0 ms in a row', Timers],
  ['a child that is loaded', Later],
];

comesToRest(`Vue ${version}`, isolate as never, cases);
