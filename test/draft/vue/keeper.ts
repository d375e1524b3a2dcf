import { inject, type InjectionKey, type Ref } from 'vue';

export interface Keeper {
  name: Ref<string>;
  rename(name: string): void;
}
export const KeeperKey: InjectionKey<Keeper> = Symbol('KeeperKey');

export function useKeeper(): Keeper {
  const keeper = inject(KeeperKey);
  if (!keeper) throw new Error('useKeeper must be used within a KeeperProvider');
  return keeper;
}
