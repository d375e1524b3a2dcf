import { channel, role, text } from 'simulacra';
import { states } from 'simulacra/vue';
import { alerts } from '../../shared/alerts';
import AlertTicker from './AlertTicker.vue';

const live = channel<string>();
const [swarm, frost] = alerts;

export default states(
  AlertTicker,
  { time: 'virtual', network: { 'GET /live/alerts': live } },
  {
    silent: { lacks: [role('region', 'Alerts')] },
    'telling of one': {
      after: async () => {
        for (const { text: words, kind, id } of alerts) await live.send(words, { event: kind, id });
      },
      shows: [text(swarm!.text)],
    },
    'telling of the next': {
      from: 'telling of one',
      after: (ticker) => ticker.time.advance('4s'),
      shows: [text(frost!.text)],
    },
    paused: {
      from: 'telling of one',
      after: (ticker) => ticker.click(role('button', 'Pause')),
      shows: [role('button', 'Pause', { pressed: true }), text(swarm!.text)],
      looksLike: ['telling of one'],
    },
  },
);
