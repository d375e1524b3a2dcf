import { defineStore } from 'pinia';
import { getJson, type Hive } from './hives';

export const useYard = defineStore('yard', {
  state: () => ({ hives: [] as Hive[], isLoading: false, problem: '' }),
  actions: {
    async load() {
      this.isLoading = true;
      try {
        this.hives = await getJson<Hive[]>('/api/hives');
      } catch {
        this.problem = 'The yard does not answer';
      }
      this.isLoading = false;
    },
  },
});
