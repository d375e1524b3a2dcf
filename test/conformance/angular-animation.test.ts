import './animating-page';
import 'simulacra/jest';
import { role, text } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { Fading, version } from './fading';

describe(`Angular ${version}, its own ways`, () => {
  it('waits for no animation', async () => {
    const fading = await isolate(Fading);
    await fading.click(role('button', 'Leave'));
    expect(fading).not.toShow(text('here'));
  });
});
