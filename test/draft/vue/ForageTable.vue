<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { getJson } from './hives';

interface Plant {
  name: string;
  metres: number;
}
const { data, error, isPending } = useQuery({
  queryKey: ['plants'],
  queryFn: () => getJson<Plant[]>('/api/plants'),
});
</script>

<template>
  <p v-if="isPending" role="status">Looking around</p>
  <p v-else-if="error" role="alert">Nobody knows what is in flower</p>
  <table v-else aria-label="In flower">
    <tbody>
      <tr v-for="plant in data" :key="plant.name">
        <th scope="row">{{ plant.name }}</th>
        <td>{{ plant.metres }} m</td>
      </tr>
    </tbody>
  </table>
</template>
