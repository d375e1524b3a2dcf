import type { SimulacraError } from 'simulacra';
import { css, label, role, spy, text, type Subject } from 'simulacra';
import { isBrowser } from './real';
import type { Kit } from './specification';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */
type Any = any;

const smoker = role('button', 'Smoker');
const note = label('Note');
const shelf = role('region', 'Shelf');
const picture = (name: string) => new File(['…'], name, { type: 'image/png' });
const letter = new File(['…'], 'letter.txt', { type: 'text/plain' });

/** What a person does, and what the component tells of it. */
const done: Record<string, [act: (bench: Subject<Any>) => Promise<unknown>, told: string[]]> = {
  'a double click': [(bench) => bench.click(smoker, { times: 2 }), ['clicked', 'clicked', 'clicked twice']],
  'a click of the secondary button': [(bench) => bench.click(smoker, { button: 'secondary' }), ['menu']],
  'a click while a key is held': [
    (bench) => bench.click(smoker, { holding: 'Shift' }),
    ['clicked with Shift'],
  ],
  'a press that lasts': [(bench) => bench.click(smoker, { heldFor: '600ms' }), ['held by mouse', 'clicked']],
  'a press that is just too short': [(bench) => bench.click(smoker, { heldFor: 499 }), ['clicked']],
  'a finger that stays down': [
    (bench) => bench.click(smoker, { heldFor: 600, pointer: 'touch' }),
    ['held by touch', 'clicked'],
  ],
  'an element dragged to a place': [(bench) => bench.drag(text('Anemone'), shelf), ['dropped Anemone']],
  'an element dragged to where nothing takes it': [(bench) => bench.drag(text('Anemone'), note), []],
  'files dropped': [
    (bench) => bench.drop(shelf, picture('frame.png'), letter),
    ['dropped frame.png letter.txt'],
  ],
  'a file chosen by the button that asks for one': [
    (bench) => bench.choose(role('button', 'Add a photo'), picture('frame.png')),
    ['chose frame.png'],
  ],
  'the same file chosen again': [
    async (bench) => {
      await bench.choose(role('button', 'Add a photo'), picture('frame.png'));
      await bench.choose(role('button', 'Add a photo'), picture('brood.png'));
    },
    ['chose frame.png', 'chose brood.png'],
  ],
  'a date': [(bench) => bench.choose(label('Inspected'), '2031-05-04'), ['inspected 2031-05-04']],
  'a turn of the wheel': [
    async (bench) => {
      await bench.scroll(role('list', 'Hives'), { down: 120 });
      await bench.scroll(role('list', 'Hives'), { up: 50 });
    },
    ['scrolled to 120', 'scrolled to 70'],
  ],
  'a dialog answered by its form': [
    async (bench) => {
      await bench.click(role('button', 'Ask'));
      await bench.click(role('button', 'Yes'));
    },
    ['closed with yes'],
  ],
  'a dialog left by Escape': [
    async (bench) => {
      await bench.click(role('button', 'Ask'));
      expect(bench.has(smoker)).toBe(false);
      await bench.press('Escape');
      expect(bench.has(smoker)).toBe(true);
    },
    ['closed with '],
  ],
  'something moved with the pointer': [
    (bench) => bench.drag(role('slider', 'Entrance'), { right: 40 }),
    ['moved by 20', 'moved by 40'],
  ],
  'a form that is not complete': [
    async (bench) => {
      await bench.click(role('button', 'Send'));
      expect(bench.has(role('textbox', 'Colour', { focused: true }))).toBe(true);
      await bench.type(label('Colour'), 'blue');
      await bench.press('Enter');
    },
    ['sent'],
  ],
  'a text pasted': [(bench) => bench.paste(note, ' and smoke'), ['pasted']],
};

/** What a person writes into a field, and what is in it then. */
const written: Record<string, [write: (bench: Subject<Any>) => Promise<unknown>, note: string]> = {
  'behind what is there': [(bench) => bench.type(note, '!'), 'calm bees!'],
  'at a place': [(bench) => bench.type(note, 'very ', { at: 0 }), 'very calm bees'],
  'over a part': [(bench) => bench.type(note, 'angry', { over: 'calm' }), 'angry bees'],
  'over what was selected': [
    async (bench) => {
      await bench.mark(note, 'bees');
      await bench.press('x');
    },
    'calm x',
  ],
  'with the keys that move the caret': [
    async (bench) => {
      await bench.type(note, '');
      for (const key of ['Home', 'Control+ArrowRight', 's', 'Shift+End', 'Delete', 'Enter', 'b'])
        await bench.press(key);
    },
    'calms\nb',
  ],
  'an accent, composed': [(bench) => bench.compose(note, 'e', 'é'), 'calm beesé'],
  'an emoji, and taken back': [
    async (bench) => {
      await bench.type(note, '🐝👩‍🌾');
      await bench.press('Backspace');
    },
    'calm bees🐝',
  ],
  'and undone': [
    async (bench) => {
      await bench.type(note, '!?');
      await bench.press('Control+z');
    },
    'calm bees',
  ],
  'cut and pasted': [
    async (bench) => {
      await bench.mark(note, 'calm ');
      expect(await bench.cut(note)).toBe('calm ');
      await bench.press('End');
      await bench.paste(note);
    },
    'beescalm ',
  ],
  'copied from the page': [
    async (bench) => {
      await bench.mark(note, 'calm');
      expect(await bench.copy(text('Borage'))).toBe('Borage');
      await bench.mark(text('Borage'), 'ora');
      expect(await bench.copy(text('Borage'))).toBe('ora');
      await bench.paste(note);
    },
    'calm beesora',
  ],
};

/** What a person could not do, and words that are none: what is said. */
const refused: Record<string, [act: (bench: Subject<Any>) => Promise<unknown>, code: string, says: RegExp]> =
  {
    'a pointer that passes through': [
      (bench) => bench.click(role('button', 'Out of reach')),
      'SIM-ACT-HIDDEN',
      /pointer-events: none of <p>/,
    ],
    ...(isBrowser && {
      'a button under a veil': [
        async (bench: Subject<Any>) => {
          const veil = document.body.appendChild(document.createElement('div'));
          veil.style.cssText = 'position: fixed; inset: 0';
          await bench.click(smoker).finally(() => veil.remove());
        },
        'SIM-ACT-HIDDEN',
        /<div> lies over it/,
      ],
    }),
    'a file of another type': [
      (bench) => bench.choose(role('button', 'Add a photo'), letter),
      'SIM-ACT-FILE',
      /it accepts image\/\*, and letter\.txt is text\/plain/,
    ],
    'more files than one': [
      (bench) => bench.choose(role('button', 'Add a photo'), picture('a.png'), picture('b.png')),
      'SIM-ACT-FILE',
      /takes one file, and was given 2 files/,
    ],
    'a file where none can be chosen': [
      (bench) => bench.choose(smoker, picture('frame.png')),
      'SIM-ACT-FILE',
      /a click on it opens none/,
    ],
    'a drop where nothing takes it': [
      (bench) => bench.drop(note, picture('frame.png')),
      'SIM-ACT-DROP',
      /textbox "Note" takes no files/,
    ],
    'a date before the first': [
      (bench) => bench.choose(label('Inspected'), '2030-12-31'),
      'SIM-ACT-VALUE',
      /the least that can be picked is 2031-01-01/,
    ],
    'a date as nobody writes it': [
      (bench) => bench.choose(label('Inspected'), '4.5.2031'),
      'SIM-ACT-VALUE',
      /written like 2031-05-04/,
    ],
    'a place outside of a range': [
      (bench) => bench.type(label('Frames'), '11'),
      'SIM-ACT-VALUE',
      /most .* is 10/,
    ],
    'a text that is not there': [
      (bench) => bench.mark(note, 'angry'),
      'SIM-ACT-TEXT',
      /It shows "calm bees"/,
    ],
    'a button by another name': [
      (bench) => bench.click(smoker, { button: 'right' as 'secondary' }),
      'SIM-ACT-HOW',
      /\{ button: 'secondary' \}/,
    ],
    'an option by another name': [
      (bench) => bench.click(smoker, { delay: 600 } as object),
      'SIM-ACT-HOW',
      /\{ heldFor: … \}/,
    ],
    'a negative distance': [
      (bench) => bench.scroll(role('list', 'Hives'), { down: -4 }),
      'SIM-ACT-HOW',
      /a number of pixels from 0/,
    ],
    'a key that cannot be held': [
      (bench) => bench.click(smoker, { holding: 'Ctrl' }),
      'SIM-ACT-KEY',
      /holding: 'Control'/,
    ],
    'a key on what takes no focus': [
      (bench) => bench.press('Enter', text('Anemone')),
      'SIM-ACT-FOCUS',
      /paragraph "Anemone": neither it nor anything around it takes the focus/,
    ],
    'a drop of nothing': [(bench) => bench.drop(shelf), 'SIM-ACT-HOW', /given no files/],
  };

/** The chapter of the specification about what a person does at a page. */
export function handled({ isolate, listens, components: { Bench } }: Kit): void {
  const open = async () => {
    const told = spy();
    const bench = await isolate(Bench, { props: { [listens('told')]: told }, time: 'virtual' });
    return { bench, lines: () => told.calls.map(([line]) => line as string) };
  };

  describe('a person at the page', () => {
    it.each(Object.entries(done))('does %s', async (_, [act, told]) => {
      const { bench, lines } = await open();
      await act(bench);
      expect(lines()).toEqual(told);
    });

    it.each(Object.entries(written))('writes %s', async (_, [write, now]) => {
      const { bench } = await open();
      await write(bench);
      expect((bench.find(note) as HTMLTextAreaElement).value).toBe(now);
    });

    it.each(Object.entries(refused))('cannot do %s', async (_, [act, code, says]) => {
      const { bench, lines } = await open();
      const error = await act(bench).then(
        () => undefined,
        (thrown: unknown) => thrown,
      );
      expect((error as SimulacraError).message.replace(/\s+/g, ' ')).toMatch(says);
      expect((error as SimulacraError).code).toBe(code);
      // What asks for files has to be clicked before it is known whether it does.
      expect(lines().filter((line) => line !== 'clicked')).toEqual([]);
    });

    it('is over what the pointer is moved to, until it leaves', async () => {
      const { bench } = await open();
      await bench.hover(smoker);
      expect(bench).toShow(role('tooltip', 'Light it first'));
      await bench.hover(shelf);
      expect(bench).not.toShow(css('[role=tooltip]'));
      await bench.hover(smoker);
      await bench.leave();
      expect(bench).not.toShow(css('[role=tooltip]'));
      expect(bench.chronicle.of('left')).toHaveLength(1);
    });

    it('moves a range by keys and by a value', async () => {
      const { bench } = await open();
      await bench.press('ArrowRight', label('Frames'));
      expect(bench).toShow(role('status', '6'));
      await bench.choose(label('Frames'), '9');
      expect(bench).toShow(role('status', '9'));
    });
  });
}
