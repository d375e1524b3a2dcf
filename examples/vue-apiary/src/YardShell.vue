<script setup lang="ts">
import { provide, ref } from 'vue';
import { RouterView, useRouter } from 'vue-router';
import AlertTicker from './AlertTicker.vue';
import ForagePanel from './ForagePanel.vue';
import SessionProvider from './SessionProvider.vue';
import { UnitsKey, type Units } from './units';
import YardGate from './YardGate.vue';

const yards = ['north', 'east', 'south'];
const yard = ref('north');
const units = ref<Units>('kilograms');
const router = useRouter();
provide(UnitsKey, units);

const open = (hiveId: string) => void router.push(`/hives/${hiveId}`);
const show = (name: string) => {
  yard.value = name;
  void router.push('/');
};
const capital = (name: string) => `${name[0]?.toUpperCase()}${name.slice(1)}`;
</script>

<!-- The page: the gate, the choice of yard and units, the board or one hive. -->
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
          @click="show(name)"
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
    <AlertTicker />
    <main>
      <YardGate>
        <RouterView :key="yard" :yard="yard" @open="open" />
        <ForagePanel />
      </YardGate>
    </main>
  </SessionProvider>
</template>
