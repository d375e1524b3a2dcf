import { list, print } from '../print';
import type { Report } from './error';

/** Failures of putting a component on the stage. */
export const isolating = {
  'SIM-COMPONENT-MISSING': (f: { value: unknown; framework: string; exports?: string[] }): Report => ({
    head: `isolate() was given ${print(f.value)} where ${/^[AEIOU]/.test(f.framework) ? 'an' : 'a'} ${f.framework} component belongs.`,
    there: f.exports?.length
      ? [`It has the exports ${list(f.exports)}: this looks like a whole module.`]
      : f.value === undefined
        ? [
            'An import gives undefined when the name is not exported, when a default export is imported in braces or the other way round, or when two files import each other.',
          ]
        : [],
    nearest: f.exports?.length ? `isolate(module.${f.exports[0]}, …)` : undefined,
    next: ['Check the import of the component at the top of the test.'],
  }),
  'SIM-OPTION-UNKNOWN': (f: {
    option: string;
    known: readonly string[];
    nearest?: string | undefined;
    of: string;
  }): Report => ({
    head: `${f.of} has no option "${f.option}".`,
    there: [`Its options are ${list(f.known, 20)}.`],
    nearest: f.nearest && `${f.nearest}: …`,
    next: ['Nothing was rendered. Correct the key, or take it out.'],
  }),
  'SIM-OPTION-VALUE': (f: { option: string; value: unknown; wanted: string }): Report => ({
    head: `The option "${f.option}" was given ${print(f.value)}.`,
    there: [`It takes ${f.wanted}.`],
    next: ['Nothing was rendered. Correct the value.'],
  }),
  'SIM-NO-PAGE': (f: { runner: string }): Report => ({
    head: 'There is no document here, so nothing can be rendered.',
    there: [`isolate() needs a page: a browser, or ${f.runner}.`],
    next: [
      "In Jest: put   testEnvironment: 'jsdom'   in the configuration, or begin this file with",
      '/** @jest-environment jsdom */',
    ],
  }),
  'SIM-RENDER-THREW': (f: {
    subject: string;
    thrower: string;
    threw: string;
    stack: string;
    phase?: string;
  }): Report => ({
    head: `${f.thrower === f.subject ? f.subject : `${f.thrower}, inside ${f.subject},`} threw ${f.phase ?? 'while rendering'}: ${f.threw}`,
    there: [...(f.stack ? ['Rendered from the inside out:', f.stack] : [])],
    next: [
      f.thrower === f.subject
        ? 'The error itself is the cause of this one; its stack points at the line.'
        : `If ${f.thrower} is not what this test is about, stub it:   stub: [${f.thrower}]`,
    ],
  }),
  'SIM-HANDLER-THREW': (f: { gesture: string; threw: string; subject: string }): Report => ({
    head: `While the test ${f.gesture}, code of ${f.subject} threw: ${f.threw}`,
    there: ['A browser reports such an error to the window and goes on; a test must not.'],
    next: ['The error itself is the cause of this one; its stack points at the line.'],
  }),
  'SIM-PROP-MISSING': (f: {
    subject: string;
    missing: string[];
    given: string[];
    word: 'prop' | 'input';
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} requires the ${f.word} "${f.missing[0]}", and was not given it.`,
    there: [f.given.length ? `It was given ${list(f.given)}.` : 'It was given none at all.'],
    nearest: f.nearest && `${f.missing[0]} instead of ${f.nearest}`,
    next: [`Give it:   props: { ${f.missing.map((name) => `${name}: …`).join(', ')} }`],
  }),
  'SIM-PROP-UNKNOWN': (f: {
    subject: string;
    asked: string;
    known: string[];
    word: 'prop' | 'input';
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} has no ${f.word} "${f.asked}".`,
    there: [f.known.length ? `It has ${list(f.known, 20)}.` : 'It has none.'],
    nearest: f.nearest && `props: { ${f.nearest}: … }`,
    next: ['Nothing was rendered. Correct the name, or take it out.'],
  }),
  'SIM-REST-NEVER': (f: { subject: string; turns: number; busy: string }): Report => ({
    head: `${f.subject} never comes to rest: after ${f.turns} turns it still has something to do.`,
    there: [`It keeps doing this:   ${f.busy}`],
    next: [
      'Look for an effect that sets state each time it runs, a promise that does so, or a timer of 0 ms that starts itself again.',
    ],
  }),
  'SIM-SUBJECT-GONE': (f: { subject: string; asked: string }): Report => ({
    head: `${f.asked} was asked of ${f.subject}, which has been taken down already.`,
    there: ['A subject lives until the end of the test that isolated it.'],
    next: ['Call isolate() in each test, and await what the test starts before it ends.'],
  }),
  'SIM-REACT-EARLY': (f: { version: string }): Report => ({
    head: `react-dom${f.version && ` ${f.version}`} was loaded before simulacra/react, so child components cannot be stubbed.`,
    there: ['React offers the door that stubs need only while it is being loaded.'],
    next: [
      "Import 'simulacra/react' above the component and anything else that loads react-dom,",
      "or load it for every test file:   setupFilesAfterEnv: ['simulacra/jest', 'simulacra/react']",
    ],
  }),
  'SIM-REACT-PRODUCTION': (f: { version: string; mode: string }): Report => ({
    head: `This is a production build of React${f.version && ` ${f.version}`}, which has no door for stubs.`,
    there: [`NODE_ENV is "${f.mode}".`],
    next: ['Run the tests with   NODE_ENV=test'],
  }),
  'SIM-VUE-PRODUCTION': (f: { version: string }): Report => ({
    head: `This is a production build of Vue ${f.version}, which has no door for stubs.`,
    there: ['Only a development build lets the components it renders be seen and replaced.'],
    next: ['Run the tests with   NODE_ENV=test   and, where a bundler serves them, in development mode.'],
  }),
};
