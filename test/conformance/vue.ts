import {
  defineComponent,
  h,
  inject,
  onMounted,
  onUnmounted,
  ref,
  shallowRef,
  watch,
  type FunctionalComponent,
  type InjectionKey,
  type PropType,
} from 'vue';
import type { Hive } from '../../examples/shared/hive';
import type { Play } from './time';

/* The components of the specification, as a Vue engineer writes them. */

export const Keeper: InjectionKey<string> = Symbol('Keeper');

export const Weight = defineComponent({
  name: 'Weight',
  props: { kilograms: { type: Number, required: true } },
  template: '<p>{{ kilograms }} kg</p>',
});

export const Card = defineComponent({
  name: 'Card',
  components: { Weight },
  props: { hive: { type: Object as PropType<Hive>, required: true } },
  emits: { open: (_id: string) => true },
  template: `
    <article :aria-label="hive.name">
      <h3>{{ hive.name }}</h3>
      <Weight :kilograms="hive.weight" />
      <slot />
      <button @click="$emit('open', hive.id)">Open</button>
    </article>`,
});

type Found = { state: 'loading' } | { state: 'failed' } | { state: 'loaded'; hives: Hive[] };

export const Board = defineComponent({
  name: 'Board',
  components: { Card },
  props: { yard: { type: String, required: true } },
  emits: { open: (_id: string) => true },
  setup(props, { emit }) {
    const found = shallowRef<Found>({ state: 'loading' });
    const opened = ref('');
    let question = 0;
    const load = () => {
      const mine = ++question;
      const tell = (answer: Found) => mine === question && (found.value = answer);
      found.value = { state: 'loading' };
      fetch(`/api/hives?yard=${props.yard}`)
        .then((response) =>
          response.ok ? (response.json() as Promise<Hive[]>) : Promise.reject(new Error('not ok')),
        )
        .then((hives) => tell({ state: 'loaded', hives }))
        .catch(() => tell({ state: 'failed' }));
    };
    watch(() => props.yard, load, { immediate: true });
    const open = (id: string) => {
      opened.value = id;
      emit('open', id);
    };
    return { found, opened, load, open };
  },
  template: `
    <section aria-label="Hives">
      <p v-if="found.state === 'loading'" role="status">Loading hives</p>
      <div v-else-if="found.state === 'failed'" role="alert">
        The hives could not be loaded
        <button @click="load">Try again</button>
      </div>
      <p v-else-if="found.hives.length === 0">No hives</p>
      <template v-else>
        <Card v-for="hive in found.hives" :key="hive.id" :hive="hive" @open="open">
          <p>Tasks: {{ hive.tasks.length }}</p>
        </Card>
      </template>
      <p v-if="opened">Opened {{ opened }}</p>
    </section>`,
});

export const Greeting = defineComponent({
  name: 'Greeting',
  setup() {
    const keeper = inject(Keeper);
    if (keeper === undefined) throw new Error('Greeting needs a keeper');
    return { keeper };
  },
  template: '<p>Good day, {{ keeper }}</p>',
});

export const Pad = defineComponent({
  name: 'Pad',
  setup(_, { expose }) {
    const area = ref<HTMLTextAreaElement>();
    expose({ focus: () => area.value?.focus() });
    return { area };
  },
  template: '<textarea ref="area" aria-label="Pad" />',
});

export const Desk = defineComponent({
  name: 'Desk',
  components: { Pad },
  setup() {
    const pad = ref<{ focus(): void }>();
    return { pad, write: () => pad.value?.focus() };
  },
  template: '<button @click="write">Write</button><Pad ref="pad" />',
});

export const Patient = defineComponent({
  name: 'Patient',
  props: { ill: Boolean },
  render() {
    if (this.ill) throw new RangeError('39.5 degrees');
    return h('p', 'Well');
  },
});

export const Ward = defineComponent({
  name: 'Ward',
  props: { ill: Boolean },
  render() {
    return h('div', [h(Patient, { ill: this.ill })]);
  },
});

export const Log = defineComponent({
  name: 'Log',
  emits: { log: (_entry: object) => true },
  setup: () => ({ entry: ref({ note: '', varroa: '', yard: 'north', marked: false, mood: 'calm' }) }),
  template: `
    <form @submit.prevent="$emit('log', { ...entry, varroa: String(entry.varroa) })">
      <h2>Log</h2>
      <label>Note <input v-model="entry.note"></label>
      <label for="varroa">Varroa</label>
      <input id="varroa" v-model="entry.varroa" type="number">
      <label>Yard
        <select v-model="entry.yard">
          <option value="north">North</option>
          <option value="east">East</option>
        </select>
      </label>
      <label><input v-model="entry.marked" type="checkbox"> Marked</label>
      <label v-for="mood in ['calm', 'angry']" :key="mood">
        <input v-model="entry.mood" type="radio" name="mood" :value="mood"> {{ mood === 'calm' ? 'Calm' : 'Angry' }}
      </label>
      <button :disabled="entry.note === ''">Log</button>
    </form>`,
});

export const YardOpen: FunctionalComponent = (_, { slots }) =>
  h('div', [h('p', 'Yard open'), slots['default']?.()]);
export const GateSign: FunctionalComponent<{ sign?: string }> = (props, { slots }) =>
  h('div', [h('p', props.sign), slots['default']?.()]);
GateSign.props = ['sign'];

export const Unread: InjectionKey<string> = Symbol('Unread');

export const Runner = defineComponent({
  name: 'Runner',
  props: { work: { type: Function as PropType<() => unknown>, required: true } },
  setup(props) {
    const outcome = ref('');
    const run = async () => {
      try {
        outcome.value = String(await props.work());
      } catch (error) {
        outcome.value = `caught: ${(error as Error).message}`;
      }
    };
    onMounted(() => void run());
    return { outcome, run };
  },
  template: '<button @click="run">Run</button><p>{{ outcome }}</p>',
});

export const Live = defineComponent({
  name: 'Live',
  props: { play: { type: Object as PropType<Play>, required: true } },
  setup(props) {
    const shown = ref('');
    const show = (text: string) => void (shown.value = text);
    let stop: void | (() => void);
    onMounted(() => (stop = props.play.start?.(show)));
    onUnmounted(() => stop?.());
    return { shown, press: () => props.play.press?.(show) };
  },
  template: '<button @click="press">Go</button><output>{{ shown }}</output>',
});
