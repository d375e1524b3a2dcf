import { channel, label, role, swap, text } from 'simulacra';
import { startAt, states } from 'simulacra/angular';
import { provideRouter } from '@angular/router';
import { hives } from '../../shared/hive';
import { routes } from './routes';

export default states(
  () => import('./yard-shell'),
  {
    wrap: [provideRouter(routes), startAt('/')],
    // The scales open a socket as soon as they are loaded, four imports below the page.
    swap: [swap(() => import('../../shared/scales'), { listenToScale: () => () => undefined })],
    network: {
      'GET /live/alerts': channel(),
      'QUERY InFlower': { plants: [] },
      'GET /api/hives?yard=north': hives,
      'GET /api/hives/:hiveId': hives[1],
    },
  },
  {
    'at the gate': { shows: [role('form', 'Sign in')], lacks: [role('article')] },
    'at the board': {
      after: async (shell) => {
        await shell.type(label('Keeper'), 'Imke');
        await shell.press('Enter');
      },
      shows: [text('27.8 kg').inside(role('article', 'Borage'))],
      counts: [[role('article'), 3]],
    },
    'at a hive': {
      from: 'at the board',
      after: (shell) => shell.click(role('button', 'Open Borage')),
      shows: [role('heading', 'Borage'), role('form', 'Inspection')],
    },
    'in pounds': {
      from: 'at the board',
      after: (shell) => shell.choose(label('Units'), 'Pounds'),
      shows: [text('61.3 lb').inside(role('article', 'Borage'))],
    },
  },
);
