import type { RouteRecordRaw } from 'vue-router';
import HiveBoard from './HiveBoard.vue';

/** Where the pages of a yard are; a hive's own page is loaded when somebody goes there. */
export const routes: RouteRecordRaw[] = [
  { path: '/', component: HiveBoard },
  { path: '/hives/:hiveId', component: () => import('./HiveDetail.vue') },
];
