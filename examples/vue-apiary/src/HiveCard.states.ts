import { cases, role, text } from 'simulacra';
import { states } from 'simulacra/vue';
import { ref } from 'vue';
import { hives } from '../../shared/hive';
import HiveCard from './HiveCard.vue';
import { UnitsKey } from './units';

const [anemone, , clover] = hives;

export default states(
  HiveCard,
  {},
  {
    'with tasks': {
      props: { hive: anemone! },
      shows: [role('list', 'Tasks for Anemone'), text('31.2 kg')],
    },
    'with nothing to do': {
      props: { hive: clover! },
      shows: [role('heading', 'Clover')],
      lacks: [role('list')],
    },
    ...cases('weighed in {}', ['pounds'] as const, (units) => ({
      props: { hive: anemone! },
      provide: [[UnitsKey, ref(units)]] as const,
      shows: [text('68.8 lb')],
    })),
  },
);
