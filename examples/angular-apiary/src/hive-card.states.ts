import { signal } from '@angular/core';
import { cases, role, text } from 'simulacra';
import { states } from 'simulacra/angular';
import { hives } from '../../shared/hive';
import { HiveCard } from './hive-card';
import { UNITS } from './units';

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
      provide: [[UNITS, signal(units)]] as const,
      shows: [text('68.8 lb')],
    })),
  },
);
