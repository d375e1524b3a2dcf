import 'simulacra/jest';
import { useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { isolate } from 'simulacra/react';
import { css, label, role, takeDown, text, type Locator } from 'simulacra';

const page = (html: string) => isolate(() => <div dangerouslySetInnerHTML={{ __html: html }} />);

describe('what a person perceives', () => {
  it.each<[string, string, Locator, number]>([
    [
      'what is visible inside of what is not',
      '<p style="visibility:hidden"><b style="visibility:visible">Hive</b></p>',
      text('Hive'),
      1,
    ],
    [
      'what is not, inside of what is',
      '<p style="visibility:visible"><b style="visibility:hidden">Hive</b></p>',
      text('Hive'),
      0,
    ],
    [
      'nothing of what is not displayed',
      '<p style="display:none"><b style="visibility:visible">Hive</b></p>',
      text('Hive'),
      0,
    ],
    [
      'the same by a style sheet',
      '<style>p{visibility:hidden} b{visibility:visible}</style><p><b>Hive</b></p>',
      text('Hive'),
      1,
    ],
    ['words with a line break between them', '<p>Hive<br>12</p>', text('Hive 12'), 1],
    ['words in lines of their own', '<section>Hive<p>12</p></section>', text('Hive 12'), 1],
    ['and not as one word', '<section>Hive<p>12</p></section>', text('Hive12'), 0],
    ['words in cells', '<table><tr><td>Hive</td><td>12</td></tr></table>', text('Hive 12'), 1],
    ['words without space between them', '<p>Hive<b>12</b></p>', text('Hive12'), 1],
  ])('%s', async (_, html, locator, times) => {
    expect((await page(html)).findAll(locator).length).toBe(times);
  });
});

describe('a state that is asked for', () => {
  const menu =
    '<button>Plain</button><button aria-expanded="false">Shut</button><button aria-expanded="true">Open</button>';
  it.each<[string, Locator, string[]]>([
    ['not expanded is what could be', role('button', { expanded: false }), ['Shut']],
    ['expanded', role('button', { expanded: true }), ['Open']],
    ['not pressed is what could be', role('button', { pressed: false }), []],
    ['not disabled is everything else', role('button', { disabled: false }), ['Plain', 'Shut', 'Open']],
  ])('%s', async (_, locator, expected) => {
    expect((await page(menu)).findAll(locator).map(({ textContent }) => textContent)).toEqual(expected);
  });

  it.each<[Locator, number]>([
    [role('textbox', { required: true }), 1],
    [role('textbox', { invalid: true }), 1],
    [role('textbox', 'Keeper', { invalid: true, description: 'An address has an @' }), 1],
    [role('textbox', 'Keeper', { description: /address/ }), 1],
    [role('textbox', 'Keeper', { description: 'address' }), 0],
    [role('textbox', { readonly: true }), 1],
    [role('link', { current: 'page' }), 1],
    [role('link', { current: true }), 1],
    [role('list', { busy: true }), 1],
    [role('listitem', { level: 2 }), 1],
    [role('image', 'A hive'), 1],
    [role('none'), 1],
  ])('%j', async (locator, times) => {
    const form = await page(
      `<label>Keeper <input type="email" value="fern" aria-describedby="why"></label><i id="why">An address has an @</i>
       <label>Note <input required></label><label>Box <input readonly value="blue"></label>
       <a href="/" aria-current="page">Yard</a><a href="/" aria-current="true">Hive</a><a href="/" aria-current="false">Log</a>
       <ul aria-busy="true"><li>North<ol><li>Clover</li></ol></li></ul><img src="x" alt="A hive"><img src="x" alt="">`,
    );
    expect(form).toShow(locator, { times });
  });

  it('is told as it is where it was asked for otherwise', async () => {
    const field = await page(
      '<label>Keeper <input aria-describedby="why"></label><i id="why">Who logs it</i>',
    );
    expect(() => field.find(role('textbox', 'Keeper', { description: 'Who logged it' }))).toThrow(
      "role('textbox', 'Keeper', { description: 'Who logs it' })",
    );
  });

  it('not selected is what could be, and a checkbox is always checked or not', async () => {
    const tabs = await page(
      '<b role="tab" aria-selected="false">One</b><b role="tab">Two</b><b role="checkbox">Three</b><input type="checkbox" aria-label="Four">',
    );
    expect(tabs.findAll(role('tab', { selected: false })).length).toBe(1);
    expect(tabs.findAll(role('checkbox', { checked: false })).length).toBe(2);
  });
});

it('clicks what only says that it is disabled, as a person can', async () => {
  const Button = () => {
    const [said, say] = useState('');
    return (
      <>
        <button aria-disabled="true" onClick={() => say('Fill in the note first')}>
          Log
        </button>
        <p>{said}</p>
      </>
    );
  };
  const button = await isolate(Button);
  expect(button).toShow(role('button', 'Log', { disabled: true }));
  await button.click(role('button', 'Log'));
  expect(button).toShow(text('Fill in the note first'));
});

it('types what a person sees as one character as one', async () => {
  const Field = () => {
    const [note, setNote] = useState('');
    return <input aria-label="Note" value={note} onChange={(event) => setNote(event.target.value)} />;
  };
  const field = await isolate(Field);
  await field.type(label('Note'), 'busy 🐝👩‍🌾 e\u0301');
  expect(field.find(label('Note'))).toHaveProperty('value', 'busy 🐝👩‍🌾 e\u0301');
  await field.press('🍯');
  expect(field.find(label('Note'))).toHaveProperty('value', 'busy 🐝👩‍🌾 e\u0301🍯');
});

it('reads a name out of an id with quotes in it, and explains a selector that is none', async () => {
  const odd = await page(`<i id='a"b'>Queen</i><button aria-labelledby='a"b'>x</button>`);
  expect(odd).toShow(role('button', 'Queen'));
  expect(() => odd.find(css('p:::x'))).toThrow('SIM-SELECTOR');
});

it('writes down what was logged as it was then, and takes a prop that cannot be read', async () => {
  const { log } = console;
  console.log = () => undefined;
  const Logger = (_: { hive: object }) => {
    const hive = { weight: 31 };
    console.log(hive);
    hive.weight = 0;
    return <p>Logged</p>;
  };
  const props = {
    get hive(): object {
      throw new Error('no hive');
    },
  };
  const failing = await isolate(Logger, { props }).catch((error: Error) => error.message);
  const logger = await isolate(Logger, { props: { hive: {} } });
  console.log = log;
  expect(String(logger.chronicle)).toContain('{ weight: 31 }');
  expect(failing).toMatch(/no hive/);
});

describe('two subjects on one page', () => {
  const Dialog = ({ name }: { name: string }) => {
    const [isOpen, open] = useState(false);
    return (
      <>
        <button onClick={() => open(true)}>Inspect</button>
        {isOpen &&
          createPortal(
            <div role="dialog" aria-label={name}>
              <button
                onClick={() => {
                  throw new RangeError(name);
                }}
              >
                Fail
              </button>
            </div>,
            document.body,
          )}
      </>
    );
  };

  it('see each its own portal, and are told of its own errors', async () => {
    const one = await isolate(Dialog, { props: { name: 'one' } });
    const two = await isolate(Dialog, { props: { name: 'two' } });
    await one.click(role('button', 'Inspect'));
    await two.click(role('button', 'Inspect'));
    expect([one, two].map((subject) => subject.findAll(role('dialog')).length)).toEqual([1, 1]);
    expect(two).not.toShow(role('dialog', 'one'));
    await expect(one.click(role('button', 'Fail'))).rejects.toThrow('RangeError: one');
    await two.atRest();
    expect(two.chronicle.of('threw')).toEqual([]);
  });

  it('leave the console as it was, whoever goes first', async () => {
    const read = () =>
      JSON.stringify(
        ['log', 'error'].map((level) => String(Object.getOwnPropertyDescriptor(console, level)?.get)),
      );
    // Whoever logged before may have put a method back as a plain value, which the next subject takes up.
    await (await isolate(Dialog, { props: { name: 'none' } })).takeDown();
    const before = [read(), console.error];
    const one = await isolate(Dialog, { props: { name: 'one' } });
    const two = await isolate(Dialog, { props: { name: 'two' } });
    await one.takeDown();
    await two.takeDown();
    expect([read(), console.error]).toEqual(before);
  });
});

it('tells of a failure and of what went wrong while it was cleaned up', async () => {
  const Ill = () => {
    throw new Error('first of all');
  };
  const Wrapper = ({ children }: { children?: React.ReactNode }) => (
    <div
      ref={() => () => {
        throw new Error('while cleaning up');
      }}
    >
      {children}
    </div>
  );
  const failure = await isolate(Ill, { wrap: [Wrapper] }).catch((error: Error) => error.message);
  expect(failure).toMatch(/^SIM-RENDER-THREW[^]*first of all/);
  await takeDown();
});

describe('what is out of reach', () => {
  it.each([
    ['an element that is inert', '<div inert><button>Log</button></div>', 'the attribute inert'],
    ['a popover that is not shown', '<div popover id="p"><button>Log</button></div>', 'is not shown'],
    [
      'content that is not shown',
      '<div hidden="until-found"><button>Log</button></div>',
      'does not show its content',
    ],
  ])('%s', async (_, html, why) => {
    const subject = await page(html);
    expect(() => subject.find(role('button', 'Log'))).toThrow(why);
  });

  it('what a modal dialog stands before, until it is closed', async () => {
    const Page = () => {
      const dialog = useRef<HTMLDialogElement>(null);
      return (
        <>
          <button onClick={() => dialog.current!.showModal()}>Log</button>
          <dialog ref={dialog} aria-label="Log it?">
            <button onClick={() => dialog.current!.close()}>Not now</button>
          </dialog>
        </>
      );
    };
    const subject = await isolate(Page);
    await subject.click(role('button', 'Log'));
    expect(() => subject.find(role('button', 'Log'))).toThrow(
      'the modal dialog <dialog> is open in front of it',
    );
    expect(subject).toShow(text('Log'));
    await subject.click(role('button', 'Not now'));
    expect(subject).toShow(role('button', 'Log'));
  });
});
