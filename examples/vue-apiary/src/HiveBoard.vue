<script setup lang="ts">
import { ref } from 'vue';
import HiveCard from './HiveCard.vue';
import { useHives } from './useHives';

const props = defineProps<{ yard: string }>();
defineEmits<{ open: [hiveId: string] }>();
const search = ref('');
const { found, retry } = useHives(() => props.yard, search);
</script>

<template>
  <section class="board" aria-labelledby="board-title">
    <header>
      <h2 id="board-title">Hives in the {{ yard }} yard</h2>
      <label>
        Find a hive
        <input v-model="search" type="search" />
      </label>
    </header>
    <p v-if="found.state === 'loading'" role="status">Loading hives</p>
    <div v-else-if="found.state === 'failed'" role="alert">
      <p>The hives could not be loaded</p>
      <button type="button" @click="retry">Try again</button>
    </div>
    <p v-else-if="found.hives.length === 0" class="empty">
      {{ search ? `No hive is called “${search}”` : 'No hives in this yard yet' }}
    </p>
    <div v-else class="cards">
      <HiveCard v-for="hive in found.hives" :key="hive.id" :hive="hive" @open="$emit('open', $event)" />
    </div>
  </section>
</template>
