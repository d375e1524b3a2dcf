import { fail, hold, inTurn, label, part, role, text } from 'simulacra';
import { states, type Subject } from 'simulacra/angular';
import { hives } from '../../shared/hive';
import { HiveBoard } from './hive-board';
import { HiveCard } from './hive-card';

const search = (words: string) => async (board: Subject) => {
  await board.type(label('Find a hive'), words);
  await board.time.advance('200ms');
};

export default states(
  HiveBoard,
  { props: { yard: 'north' }, stub: [HiveCard] },
  {
    loading: { network: { 'GET /api/hives': hold() }, shows: [role('status', 'Loading hives')] },
    failed: { network: { 'GET /api/hives': fail(503) }, shows: [role('button', 'Try again')] },
    offline: { network: { 'GET /api/hives': fail() }, shows: [role('alert')], looksLike: ['failed'] },
    empty: { network: { 'GET /api/hives': [] }, shows: [text('No hives in this yard yet')] },
    loaded: { network: { 'GET /api/hives': hives }, counts: [[part(HiveCard), 3]] },
    retried: {
      from: 'failed',
      network: { 'GET /api/hives': inTurn(fail(503), hives) },
      after: (board) => board.click(role('button', 'Try again')),
      counts: [[part(HiveCard), 3]],
      looksLike: ['loaded'],
    },
    searched: {
      time: 'virtual',
      network: { 'GET /api/hives?q=bor': [hives[1]], 'GET /api/hives': hives },
      after: search('bor'),
      counts: [[part(HiveCard), 1]],
      everyArrival: true,
    },
    'searched in vain': {
      time: 'virtual',
      network: { 'GET /api/hives?q=:q': [], 'GET /api/hives': hives },
      after: search('zinnia'),
      shows: [text('No hive is called “zinnia”')],
      everyArrival: true,
    },
  },
);
