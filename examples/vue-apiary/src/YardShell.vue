<script setup lang="ts">
import { provide, ref } from 'vue';
import HiveBoard from './HiveBoard.vue';
import SessionProvider from './SessionProvider.vue';
import { UnitsKey, type Units } from './units';
import YardGate from './YardGate.vue';

const yards = ['north', 'east', 'south'];
const yard = ref('north');
const units = ref<Units>('kilograms');
const opened = ref<string>();
provide(UnitsKey, units);

const capital = (name: string) => `${name[0]?.toUpperCase()}${name.slice(1)}`;
</script>

<!-- The page: the gate, the choice of yard and units, the board. -->
<template>
  <SessionProvider>
    <header class="shell">
      <h1>Brackenfold Apiary</h1>
      <nav aria-label="Yards">
        <button
          v-for="name in yards"
          :key="name"
          type="button"
          :aria-pressed="name === yard"
          @click="yard = name"
        >
          {{ capital(name) }}
        </button>
      </nav>
      <label>
        Units
        <select v-model="units">
          <option value="kilograms">Kilograms</option>
          <option value="pounds">Pounds</option>
        </select>
      </label>
    </header>
    <main>
      <YardGate>
        <HiveBoard :key="yard" :yard="yard" @open="opened = $event" />
        <p v-if="opened" role="status">Hive {{ opened }} is open</p>
      </YardGate>
    </main>
  </SessionProvider>
</template>
