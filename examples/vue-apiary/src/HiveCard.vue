<script setup lang="ts">
import type { Hive } from '../../shared/hive';
import { useWeight } from './units';

defineProps<{ hive: Hive }>();
defineEmits<{ open: [hiveId: string] }>();
const weight = useWeight();
</script>

<template>
  <article class="card" :aria-labelledby="`name-${hive.id}`" :style="{ borderTopColor: hive.colour }">
    <h3 :id="`name-${hive.id}`">{{ hive.name }}</h3>
    <dl>
      <dt>Weight</dt>
      <dd>{{ weight(hive.weight) }}</dd>
      <dt>Queen</dt>
      <dd>{{ hive.queen.year }}{{ hive.queen.marked ? ', marked' : ', not marked' }}</dd>
      <dt>Frames</dt>
      <dd>{{ hive.brood }} brood, {{ hive.stores }} stores</dd>
      <dt>Varroa</dt>
      <dd :class="{ warn: hive.varroa > 3 }">{{ hive.varroa }} per 100 bees</dd>
      <dt>Inspected</dt>
      <dd>
        <time :datetime="hive.lastInspection">{{ hive.lastInspection }}</time>
      </dd>
    </dl>
    <ul v-if="hive.tasks.length > 0" class="tasks" :aria-label="`Tasks for ${hive.name}`">
      <li v-for="task in hive.tasks" :key="task">{{ task }}</li>
    </ul>
    <button type="button" @click="$emit('open', hive.id)">Open {{ hive.name }}</button>
  </article>
</template>
