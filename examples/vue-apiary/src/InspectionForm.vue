<script setup lang="ts">
import { ref } from 'vue';
import { doubtOf, Refused } from '../../shared/inspection';
import { useInspections } from './inspections';
import NotePad from './NotePad.vue';

const props = defineProps<{ hiveId: string }>();
const inspections = useInspections();
const varroa = ref('');
const note = ref('');
const state = ref<'open' | 'saving' | 'saved'>('open');
const refused = ref<string>();

async function submit() {
  refused.value = doubtOf(varroa.value);
  if (refused.value) return;
  state.value = 'saving';
  try {
    await inspections.log({ hiveId: props.hiveId, varroa: Number(varroa.value), note: note.value });
    state.value = 'saved';
  } catch (error) {
    state.value = 'open';
    refused.value = error instanceof Refused ? error.message : 'It could not be logged';
  }
}
</script>

<!-- Logs what a keeper has seen in a hive. -->
<template>
  <form class="inspection" aria-label="Inspection" @submit.prevent="submit">
    <label>
      Varroa per 100 bees
      <input v-model="varroa" inputmode="numeric" />
    </label>
    <NotePad :text="note" @write="note = $event" />
    <button type="submit" :disabled="state === 'saving'">
      {{ state === 'saving' ? 'Logging' : 'Log inspection' }}
    </button>
    <p v-if="state === 'saved'" role="status">The inspection is logged</p>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </form>
</template>
