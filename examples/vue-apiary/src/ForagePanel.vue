<script setup lang="ts">
import { cacheExchange, Client, fetchExchange, provideClient, useQuery } from '@urql/vue';
import { ref } from 'vue';
import { amounts, distances, inFlower, type Plant } from '../../shared/forage';

const within = ref(distances[1]!);
provideClient(
  new Client({ url: '/graphql', exchanges: [cacheExchange, fetchExchange], preferGetMethod: false }),
);
const { data, error, fetching, executeQuery } = useQuery<{ plants: Plant[] }>({
  query: inFlower,
  variables: () => ({ within: within.value }),
});
const askAgain = () => void executeQuery({ requestPolicy: 'network-only' });
</script>

<!-- What is in flower, as far as the keeper wants to know. -->
<template>
  <section class="forage" aria-labelledby="forage-title">
    <header>
      <h2 id="forage-title">In flower</h2>
      <label>
        Within
        <select v-model="within">
          <option v-for="metres in distances" :key="metres" :value="metres">{{ metres }} m</option>
        </select>
      </label>
    </header>
    <p v-if="fetching" role="status">Looking around</p>
    <div v-else-if="error" role="alert">
      <p>Nobody knows what is in flower</p>
      <button type="button" @click="askAgain">Ask again</button>
    </div>
    <p v-else-if="data?.plants.length === 0" class="empty">Nothing is in flower that near</p>
    <ul v-else>
      <li v-for="plant in data?.plants" :key="plant.id">
        <strong>{{ plant.name }}</strong>: {{ amounts[plant.amount] }}, {{ plant.distance }} m, until
        {{ plant.flowers.until }}
      </li>
    </ul>
  </section>
</template>
