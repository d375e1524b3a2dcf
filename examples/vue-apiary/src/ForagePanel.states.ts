import { cases, fail, hold, label, role, text } from 'simulacra';
import { states } from 'simulacra/vue';
import { plants } from '../../shared/forage';
import ForagePanel from './ForagePanel.vue';

const [clover, lime] = plants;
const failures = [
  { of: 'the server', answer: fail(503) },
  { of: 'the operation', answer: new Error('The bees are asleep') },
  { of: 'the connection', answer: fail() },
];

export default states(
  ForagePanel,
  {},
  {
    loading: { network: { 'QUERY InFlower': hold() }, shows: [role('status', 'Looking around')] },
    ...cases('failure of {of}', failures, ({ answer }) => ({
      network: { 'QUERY InFlower': answer },
      shows: [role('button', 'Ask again')],
      looksLike: failures.map(({ of }) => `failure of ${of}`),
    })),
    nothing: {
      network: { 'QUERY InFlower': { plants: [] } },
      shows: [text('Nothing is in flower that near')],
    },
    'in flower': {
      network: { 'QUERY InFlower?within=1500': { plants: [clover, lime] } },
      counts: [[role('listitem'), 2]],
    },
    nearer: {
      network: {
        'QUERY InFlower?within=1500': { plants: [clover, lime] },
        'QUERY InFlower?within=500': { plants: [clover] },
      },
      after: (panel) => panel.choose(label('Within'), '500 m'),
      counts: [[role('listitem'), 1]],
      everyArrival: true,
    },
  },
);
