import axe from 'axe-core';
import { role, takeDown, text, type SimulacraError } from 'simulacra';
import type { Kit } from './specification';
import type { Play } from './time';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

const failureOf = async (work: () => Promise<unknown>): Promise<SimulacraError | undefined> => {
  try {
    await work();
    return undefined;
  } catch (error) {
    return error as SimulacraError;
  }
};
const said = (failure: SimulacraError | undefined) => failure?.message.replace(/\s+/g, ' ');

/** Whether everyone can use what is shown, stated once and run for every framework. */
export function accessible(kit: Kit): void {
  const { isolate, isolateWith, components } = kit;
  const { Live, Log } = components;
  const live = (play: Play, options: Any = {}) =>
    isolate(Live, { props: { play }, accessible: axe, ...options });
  /** Puts something beside what the component renders. */
  const put = (html: string) => () => {
    const output = document.querySelector('output')!;
    output.insertAdjacentHTML('afterend', html);
    return () => output.nextElementSibling?.remove();
  };
  const picture = { start: put('<img src="/photos/h1.png">') };

  describe('accessibility', () => {
    it.each([undefined, 'virtual'])(
      'fails where not everyone can use what is shown, in %s time',
      async (time) => {
        const failure = await failureOf(() => live(picture, { time }));
        expect(failure?.code).toBe('SIM-ACCESS');
        expect(said(failure)).toMatch(
          /Live shows what not everyone can use: Images must have alternative text.*<img src="\/photos\/h1\.png"> \(image-alt, WCAG 1\.1\.1\): .*alt attribute.*except: \['image-alt'\]/,
        );
        expect(failure?.fields).toMatchObject({
          subject: 'Live',
          violations: [
            { rule: 'image-alt', criteria: ['1.1.1'], elements: [{ html: '<img src="/photos/h1.png">' }] },
          ],
        });
      },
    );

    it('checks each state, and says which step led to it', async () => {
      const subject = await live({ press: put('<button style="width: 40px; height: 40px"></button>') });
      const failure = await failureOf(() => subject.click(role('button', 'Go')));
      expect(said(failure)).toMatch(
        /Buttons must have discernible text.*button-name, WCAG 4\.1\.2.*clicked button "Go"/,
      );
      await subject.atRest();
    });

    it('passes where everyone can', async () => {
      const log = await isolate(Log, { accessible: axe });
      await log.type(role('textbox', 'Note'), 'calm');
      expect(log).toShow(role('button', 'Log'));
      await takeDown();
      await live(picture, { accessible: { axe, except: ['image-alt'] } });
    });

    it('is a matter of a team, and of a test that does without', async () => {
      const isolateChecked = isolateWith({ accessible: axe });
      expect((await failureOf(() => isolateChecked(Live, { props: { play: picture } })))?.code).toBe(
        'SIM-ACCESS',
      );
      await isolateChecked(Live, { props: { play: picture }, accessible: false });
    });

    it('keeps the time and the requests of the subject out of it', async () => {
      const subject = await live(
        { start: (show) => void setTimeout(() => show('late'), 300) },
        { time: 'virtual' },
      );
      await subject.time.advance(300);
      expect(subject).toShow(text('late'));
      expect([subject.time.now, subject.requests.length]).toEqual([expect.any(Date), 0]);
    });

    it.each([
      ['no package', true, /option "accessible" was given true.*what the package axe-core exports/],
      ['a rule by a slip', { axe, except: ['image-alts'] }, /given "image-alts".*did you mean 'image-alt'/],
    ])('refuses %s', async (_, given, says) => {
      const failure = await failureOf(() => live({}, { accessible: given }));
      expect([failure?.code, said(failure)]).toEqual(['SIM-OPTION-VALUE', expect.stringMatching(says)]);
    });
  });
}
