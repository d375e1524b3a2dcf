import { role, standIn, stream } from 'simulacra';
import { states } from 'simulacra/angular';
import { PhotoDrop } from './photo-drop';
import { Photos } from './photos';

const progress = stream<number>();
const frame = new File(['…'], 'frame.png', { type: 'image/png' });
const letter = new File(['…'], 'letter.txt', { type: 'text/plain' });
const choose = role('button', 'Choose a photo');

export default states(
  PhotoDrop,
  {
    props: { hiveId: 'h1' },
    provide: [[Photos, standIn(Photos, { send: progress })]],
  },
  {
    waiting: { shows: [choose], lacks: [role('progressbar'), role('status'), role('alert')] },
    'no picture': {
      after: (drop) => drop.drop(role('region', 'Photos'), letter),
      shows: [role('alert', 'letter.txt is no picture')],
    },
    sending: {
      after: async (drop) => {
        await drop.choose(choose, frame);
        await progress.emit(0.4);
      },
      shows: [role('progressbar', 'Sending frame.png')],
    },
    kept: { from: 'sending', after: () => progress.end(), shows: [role('status', 'frame.png is kept')] },
    lost: {
      from: 'sending',
      after: () => progress.fail('The line is down'),
      shows: [role('alert', 'frame.png could not be sent')],
    },
  },
);
