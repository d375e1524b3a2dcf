import type { Routes } from '@angular/router';

/** Where the pages of a yard are; a hive's own page is loaded when somebody goes there. */
export const routes: Routes = [
  { path: '', children: [] },
  {
    path: 'hives/:hiveId',
    loadComponent: () => import('./hive-detail').then(({ HiveDetail }) => HiveDetail),
  },
];
