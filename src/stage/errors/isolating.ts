import type { Report } from '../../core/errors/error';
import { asCode, inSubject, list, print } from '../../core/print';
import { insideStub, leaveOut } from './surrounding';

/** A context holds a value, and is no component. */
const asksFor = (asked: string, wrapper = ''): string =>
  /Context$/.test(asked) && wrapper.startsWith('<')
    ? `What it threw asks for ${asked}:   provide: [[${asked}, …]]`
    : `What it threw asks for ${asked} around it:   wrap: [${wrapper}]`;

/** Failures of putting a component on the stage. */
export const isolating = {
  'SIM-COMPONENT-MISSING': (f: {
    value: unknown;
    framework: string;
    exports?: string[];
    /** The component of an element that was given in place of it. */
    elementOf?: string | undefined;
    /** Why it is none, where the framework knows. */
    why?: string | undefined;
  }): Report => ({
    head: `isolate() was given ${print(f.value)} where ${/^[AEIOU]/.test(f.framework) ? 'an' : 'a'} ${f.framework} component belongs.`,
    there: f.elementOf
      ? [`That is made of ${f.elementOf}, and is no component itself.`]
      : f.why
        ? [f.why]
        : f.exports?.length
          ? [`It has the exports ${list(f.exports)}: this looks like a whole module.`]
          : f.value === undefined
            ? [
                'An import gives undefined when the name is not exported, when a default export is imported in braces or the other way round, or when two files import each other.',
              ]
            : [],
    nearest: f.elementOf
      ? `isolate(${f.elementOf}, { props: { … } })`
      : f.exports?.length
        ? `isolate(module.${f.exports[0]}, …)`
        : undefined,
    next: f.elementOf
      ? []
      : f.why
        ? ['Import the component, and give that.']
        : ['Check the import of the component at the top of the test.'],
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
    next: ['Nothing was rendered. Correct the key, or remove it.'],
  }),
  'SIM-OPTION-VALUE': (f: {
    option: string;
    value: unknown;
    wanted: string;
    /** The call that was given it, where that is not `isolate`. */
    of?: string;
  }): Report => ({
    head: f.of
      ? `${f.of} was given ${f.option}: ${print(f.value)}.`
      : `The option "${f.option}" was given ${print(f.value)}.`,
    there: [`It takes ${f.wanted}.`],
    next: [f.of ? 'Nothing was changed. Correct the value.' : 'Nothing was rendered. Correct the value.'],
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
    thing?: 'context' | 'injection';
    /** What was read by the way and has no provider. */
    lacks?: readonly string[];
    /** The stub inside of which the component stands. */
    stub?: string;
    emptyStub?: string;
    /** The component that what was thrown asks for around it, and how to put it there. */
    around?: string;
    wrapper?: string;
  }): Report => ({
    head: `${inSubject(f.thrower, f.subject)} threw ${f.phase ?? 'while rendering'}: ${f.threw}`,
    there: [
      ...(f.stack ? ['Rendered from the inside out:', f.stack] : []),
      ...(f.stub ? [insideStub(f.thrower, f.stub)] : []),
      ...(f.lacks?.length
        ? [`Without a provider here, which may or may not matter: ${f.lacks.join('; ')}.`]
        : []),
    ],
    next: f.stub
      ? leaveOut(f.stub, f.emptyStub, f.thrower)
      : [
          ...(f.around ? [asksFor(f.around, f.wrapper)] : []),
          f.thrower === f.subject || f.thrower === 'Anonymous'
            ? 'The original error is the cause of this one. Its stack shows the line.'
            : `If ${f.thrower} is not what this test is about, stub it:   stub: [${asCode(f.thrower)}]`,
        ],
  }),
  'SIM-PAGE-LACKS': (f: { subject: string; thrower: string; feature: string; threw: string }): Report => ({
    head: `${inSubject(f.thrower, f.subject)} threw, since this page has no ${f.feature.replace(/^an? /, '')}: ${f.threw}`,
    there: ['A browser has it; a simulated page does not.'],
    next: [
      /^\w+$/.test(f.feature)
        ? `Give the page one before the component is loaded, in a set-up file:   globalThis.${f.feature} = …`
        : `Give the page one before the component is loaded, in a set-up file${f.thrower === f.subject ? '.' : ','}`,
      ...(f.thrower === f.subject ? [] : [`or stub the child that needs it:   stub: [${asCode(f.thrower)}]`]),
    ],
  }),
  'SIM-HANDLER-THREW': (f: { gesture: string; threw: string; subject: string }): Report => ({
    head: `While the test ${f.gesture}, code of ${f.subject} threw: ${f.threw}`,
    there: ['A browser reports such an error to the window and continues. A test must not.'],
    next: ['The original error is the cause of this one. Its stack shows the line.'],
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
    known: readonly string[];
    word: 'prop' | 'input';
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} has no ${f.word} "${f.asked}".`,
    there: [f.known.length ? `It has ${list(f.known, 20)}.` : 'It has none.'],
    nearest: f.nearest && `props: { ${asCode(f.nearest)}: … }`,
    next: ['Nothing was rendered. Correct the name, or remove it.'],
  }),
  'SIM-PROP-TYPE': (f: { subject: string; prop: string; found: string }): Report => ({
    head: `${f.subject} was given a value of the wrong type for the prop "${f.prop}".`,
    there: [f.found, 'Vue only warns about it and continues.'],
    next: [`Give it what it declares:   props: { ${f.prop}: … }`],
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
    next: ['Call isolate() in each test, and await everything that the test starts.'],
  }),
  'SIM-SUBJECT-LOAD': (f: {
    specifier: string;
    threw: string;
    /** The module that is not there. */
    module?: string | undefined;
    /** The browser feature the page lacks. */
    feature?: string | undefined;
  }): Report => ({
    head: `The subject could not be loaded: ${f.specifier} threw: ${f.threw.split('\n')[0]}`,
    there: ['Nothing was rendered.'],
    next: [
      ...(f.module ? [`Install "${f.module}", or correct the import that names it.`] : []),
      ...(f.feature ? [`This page has no ${f.feature}: give it one in a set-up file.`] : []),
      'The original error is the cause of this one. Its stack shows the line.',
    ],
  }),
  'SIM-SUBJECT-EXPORTS': (f: {
    specifier: string;
    framework: string;
    components: string[];
    exports: string[];
  }): Report => ({
    head: f.components.length
      ? `"${f.specifier}" exports more than one component, and none of them is called as the file is.`
      : `"${f.specifier}" exports no ${f.framework} component.`,
    there: [`It exports ${f.exports.length ? list(f.exports) : 'nothing'}.`],
    nearest: f.components.length
      ? `isolate(() => import('${f.specifier}').then((module) => module.${f.components[0]}), …)`
      : undefined,
    next: ['Nothing was rendered. Say which export is the subject.'],
  }),
};
