import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { asCode, count, list } from '../core/print';

/** What every failed search says. */
export interface Sought {
  readonly what: string;
}

/** An answer that has not come yet. */
export interface Pending {
  /** `GET /api/hives` */
  readonly label: string;
  /** In how many milliseconds it is due; undefined for one that is held. */
  readonly due: number | undefined;
}

const wordPending = ({ label, due }: Pending): string =>
  due === undefined
    ? `The answer to ${label} is held.`
    : `${label} is due in ${due < 1000 ? `${Math.ceil(due / 10) * 10} ms` : `${Math.ceil(due / 1000)} s`}.`;

/** Failures of looking at the page and of acting on it. */
export const registry = {
  'SIM-FIND-NONE': (
    f: Sought & {
      there: readonly string[];
      nearest?: string | undefined;
      /** Answers that have not come yet. */
      pending?: readonly Pending[];
      /** Children that are stubbed, so that their insides are not rendered. */
      stubs?: readonly { readonly name: string; readonly instead: string }[];
      /** What explains that an answer has changed nothing, in this framework. */
      still?: readonly string[];
    },
  ): Report => {
    const { pending = [], stubs = [], still = [] } = f;
    const names = stubs.map(({ name }) => name);
    const isHeld = pending.some(({ due }) => due === undefined);
    return {
      head: `Nothing on the page ${f.what}.`,
      there: [
        ...f.there,
        ...pending.slice(0, 4).map(wordPending),
        ...(names.length > 0
          ? [`${list(names)} ${names.length > 1 ? 'are' : 'is'} stubbed: what is inside is not rendered.`]
          : []),
        ...still,
      ],
      nearest: f.nearest,
      next: [
        ...(isHeld ? ['Release the held answer first:   await answer.release(…)'] : []),
        ...(pending.length === 0 || !isHeld ? ['If it comes later:   await subject.appears(…)'] : []),
        ...(stubs[0] ? [`If it belongs to ${list(names, 2)}:   ${stubs[0].instead}`] : []),
      ],
    };
  },
  'SIM-FIND-STUBBED': (f: Sought & { stub: string; instead: string }): Report => ({
    head: `${f.stub} is stubbed; its inside is not rendered, so nothing there ${f.what}.`,
    there: ['A stub shows its name, its props, and what its parent puts into it.'],
    next: [
      `To render the real one:   ${f.instead}`,
      `or look at its props:   subject.part(${asCode(f.stub)}).props`,
    ],
  }),
  'SIM-FIND-MANY': (f: Sought & { found: string[]; nearest?: string | undefined }): Report => ({
    head: `${count(f.found.length, 'element')} on the page ${f.what.replace(/^has/, 'have').replace(/^is/, 'are')}, and one was asked for.`,
    there: f.found.slice(0, 8),
    nearest: f.nearest,
    next: ['Use findAll for all of them, or narrow the search:   locator.inside(another locator)'],
  }),
  'SIM-FIND-HIDDEN': (f: Sought & { found: string; why: string; nearest: string }): Report => ({
    head: `What ${f.what} is there, but ${f.why}.`,
    there: [`It is ${f.found}.`],
    nearest: f.nearest,
    next: ['Without that option a locator finds only what a person perceives.'],
  }),
  'SIM-FIND-SPLIT': (
    f: Sought & { text: string; whole: string; element: string; pieces: string[]; nearest: string },
  ): Report => ({
    head: `No one element has the text ${JSON.stringify(f.text)}, but the words are there: ${f.pieces.length > 1 ? 'split over elements' : 'as part of a longer text'}.`,
    there: [
      `${f.element} reads ${JSON.stringify(f.whole)}${f.pieces.length > 1 ? `, made of ${f.pieces.join(' + ')}` : ''}.`,
    ],
    nearest: f.nearest,
    next: ['text("…") is the whole text of an element; text(/…/) is a part of it.'],
  }),
  'SIM-FIND-TAG': (
    f: Sought & { text: string; element: string; role: string; was?: string | undefined },
  ): Report => ({
    head: `Nothing on the page ${f.what}, but the text ${JSON.stringify(f.text)} is there in ${f.element}, which ${f.role}.`,
    there: f.was ? [`Earlier in this test it was ${f.was}.`] : [],
    nearest: `text(${JSON.stringify(f.text)})`,
    next: ['If any element will do, look for the text. If the role matters, correct the markup.'],
  }),
  'SIM-ACT-DISABLED': (f: { act: string; element: string; why: string }): Report => ({
    head: `Nobody can ${f.act} ${f.element}: ${f.why}.`,
    there: ['A person would see that nothing happens.'],
    next: ['Bring the component to a state in which it is enabled, or expect it to be disabled.'],
  }),
  'SIM-ACT-HIDDEN': (f: { act: string; element: string; why: string }): Report => ({
    head: `Nobody can ${f.act} ${f.element}: ${f.why}.`,
    there: ['A person does not see it, or cannot reach it.'],
    next: ['First do what shows it, or brings it within reach.'],
  }),
  'SIM-ACT-FIELD': (f: {
    act: string;
    element: string;
    fields: string[];
    nearest?: string | undefined;
    /** True for a field that is chosen in rather than typed into. */
    isChosen?: boolean;
  }): Report => ({
    head: `Nobody can ${f.act} ${f.element}: it is ${f.isChosen ? 'a list to choose from' : 'no field'}.`,
    there: [
      f.fields.length ? `The fields here are ${f.fields.join(', ')}.` : 'There is no field on the page.',
    ],
    nearest: f.nearest,
  }),
  'SIM-ACT-OPTION': (f: {
    element: string;
    asked: string;
    options: string[];
    nearest?: string | undefined;
    /** What to write where it is a field to type into. */
    typing?: string | undefined;
  }): Report => ({
    head: `${f.element} has no option ${JSON.stringify(f.asked)}.`,
    there: [
      f.options.length
        ? `Its options are ${f.options.map((o) => JSON.stringify(o)).join(', ')}.`
        : 'It has no options.',
    ],
    nearest: f.typing ?? (f.nearest && `'${f.nearest}'`),
  }),
  'SIM-ACT-KEY': (f: {
    call: string;
    key: string;
    nearest?: string | undefined;
    /** What is no text at all. */
    given?: string;
  }): Report => ({
    head:
      f.given === undefined
        ? `No key is called "${f.key}" (in ${f.call}).`
        : `press() takes the name of a key, and was given ${f.given}.`,
    there: [
      'A key is a character, or has the name that KeyboardEvent.key gives it: Enter, Escape, Tab, ArrowDown, Backspace, with Shift+, Control+, Alt+ or Meta+ before it.',
    ],
    nearest: f.nearest,
    ...(f.given !== undefined && { next: ['To press an element with the pointer:   subject.click(…)'] }),
  }),
  'SIM-ACT-FOCUS': (f: { element: string }): Report => ({
    head: `Nobody can press a key on ${f.element}: neither it nor anything around it takes the focus.`,
    there: ['A key goes to what has the focus. A field, a button, a link, or what has a tabindex takes it.'],
    next: ["To press a key wherever the focus is:   subject.press('…')"],
  }),
  'SIM-ACT-HOW': (f: {
    call: string;
    given: string;
    possible: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.call} was given ${f.given}.`,
    there: [`It takes ${list(f.possible, 8, 'or')}.`],
    nearest: f.nearest,
  }),
  'SIM-ACT-VALUE': (f: { element: string; given: string; why: string }): Report => ({
    head: `Nobody can pick ${JSON.stringify(f.given)} in ${f.element}: ${f.why}.`,
    there: [],
  }),
  'SIM-ACT-FILE': (f: { element: string; files: string[]; why: string; isOpened: boolean }): Report => ({
    head: `Nobody can choose ${list(f.files)} in ${f.element}: ${f.why}.`,
    there: f.isOpened
      ? []
      : ['Files are chosen in an <input type="file">, or by a button or a label that opens one.'],
    next: f.isOpened
      ? [
          'A file has the type that is given to it:   new File([bytes], name, { type })',
          'To see how the component answers files that a browser would not offer, drop them:   subject.drop(…)',
        ]
      : ['To drop them on it:   subject.drop(…)'],
  }),
  'SIM-ACT-DROP': (f: { element: string }): Report => ({
    head: `${f.element} takes no files that are dropped on it: no listener of "dragover" prevented what the browser does by itself.`,
    there: ['A browser would leave the page and open the file.'],
    next: ['Call preventDefault() in a listener of "dragover", or drop onto the element that takes files.'],
  }),
  'SIM-ACT-TEXT': (f: { element: string; text: string; whole: string }): Report => ({
    head: `${f.element} does not show the text ${JSON.stringify(f.text)}, so nobody can select it.`,
    there: [`It shows ${JSON.stringify(f.whole)}.`],
  }),
  'SIM-SELECTOR': (f: { selector: string; why: string }): Report => ({
    head: `css(${JSON.stringify(f.selector)}) is no selector of CSS.`,
    there: [f.why],
    next: ['Correct the selector, or look for what a person sees:   role(…), label(…), text(…)'],
  }),
  'SIM-WORDS': (f: { of: string; given: string; isLevel?: boolean; isRole?: boolean }): Report => ({
    head: `${f.of} was given ${f.given} ${f.isRole ? 'where a role belongs' : 'to compare a text with'}.`,
    there: f.isRole ? [] : ['It takes the whole text as a string, or a pattern for a part of it.'],
    nearest: f.isLevel
      ? `role('heading', { level: ${f.given} })`
      : f.isRole
        ? "role('button', 'Log')"
        : f.of.replace('…', /^-?[\d.]+$/.test(f.given) ? `'${f.given}'` : "'…'"),
  }),
  'SIM-NO-SUBJECT': (f: { matcher: string; given: string; isPromise: boolean }): Report => ({
    head: f.isPromise
      ? `expect(…).${f.matcher}() was given a promise of a subject.`
      : `expect(…).${f.matcher}() was given ${f.given}, which is no subject.`,
    there: ['A subject is what   await isolate(Component)   returns.'],
    nearest: f.isPromise ? `expect(await …).${f.matcher}(…)` : undefined,
  }),
  'SIM-LOCATOR': (f: { value: unknown; given: string; nearest?: string }): Report => ({
    head: `${f.given} is no locator.`,
    there: ['A locator is made by role(), label(), text(), testId(), css() or part().'],
    nearest: f.nearest,
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
