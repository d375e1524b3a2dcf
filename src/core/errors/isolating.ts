import { list, print } from '../print';
import type { Report } from './error';

/** Failures of putting a component on the stage. */
export const isolating = {
  'SIM-COMPONENT-MISSING': (f: { value: unknown; framework: string; exports?: string[] }): Report => ({
    head: `isolate() was given ${print(f.value)} where a ${f.framework} component belongs.`,
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
  'SIM-PROVIDE-MISSING': (f: BareValue | NoProvider): Report => ('path' in f ? noProvider(f) : bareValue(f)),
  'SIM-WRAP-MISSING': (f: {
    hook: string;
    package: string;
    reader: string;
    contexts: string[];
    threw: string;
    wrapper: string;
  }): Report => ({
    head: `${f.reader} calls ${f.hook} of the package "${f.package}", which needs a provider of that package around it.`,
    there: [
      `It threw: ${f.threw}`,
      ...(f.contexts.length ? [`Nobody provides ${list(f.contexts.map((c) => `"${c}"`))}.`] : []),
    ],
    next: [`Put the package's own provider around the subject:   wrap: [${f.wrapper}]`],
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
  'SIM-RESOLVE-NONE': (f: {
    kind: 'component' | 'directive';
    name: string;
    asName: string;
    reader: string;
    known: string[];
    nearest?: string | undefined;
    wrapper: string;
  }): Report => ({
    head: `${f.reader} uses the ${f.kind} "${f.name}", which is registered nowhere.`,
    there: [
      f.known.length ? `Registered there: ${list(f.known)}.` : `No ${f.kind} is registered there.`,
      'Vue would only warn, and render an element that means nothing.',
    ],
    nearest: f.nearest,
    next: [
      f.wrapper
        ? `It comes with a plugin:   wrap: [${f.wrapper}]`
        : `If a plugin registers it:   wrap: [plugin]   and if it belongs to ${f.reader}: import it there.`,
      `If it does not matter here:   stub: ['${f.asName}']`,
    ],
  }),
  'SIM-SUSPENSE-MISSING': (f: { reader: string; subject: string }): Report => ({
    head: `The setup of ${f.reader} waits for something, and there is no Suspense around it.`,
    there: ['Without one Vue never shows it.'],
    next: [
      "Put Vue's own around the subject:   wrap: [Suspense]",
      ...(f.reader === f.subject ? [] : [`or stub it:   stub: [${f.reader}]`]),
    ],
  }),
  'SIM-IMPORT-MISSING': (f: {
    kind: 'component' | 'pipe';
    name: string;
    reader: string;
    nearest?: string | undefined;
  }): Report => ({
    head: `The template of ${f.reader} uses the ${f.kind === 'pipe' ? 'pipe' : 'element'} "${f.name}", which ${f.reader} does not import.`,
    there: f.kind === 'pipe' ? [] : ['Without that it would be an element that means nothing.'],
    nearest: f.nearest && `<${f.nearest}>`,
    next: [
      `Add the ${f.kind} to the imports of ${f.reader}:   imports: [${nameOfTag(f.name, f.kind)}]`,
      `or, where a module declares ${f.reader}, put that module around it:   wrap: [ThatModule]`,
    ],
  }),
  'SIM-BINDING-UNKNOWN': (f: {
    property: string;
    element: string;
    reader: string;
    known: string[] | undefined;
    nearest?: string | undefined;
  }): Report => ({
    head: `The template of ${f.reader} binds "${f.property}" of <${f.element}>, which has no such input.`,
    there: f.known
      ? [f.known.length ? `Its inputs are ${list(f.known, 20)}.` : 'It has no inputs.']
      : [
          `No component or directive that ${f.reader} imports has it, and the element itself has no such property.`,
        ],
    nearest: f.nearest && `[${f.nearest}]="…"`,
    next: f.known
      ? [`Correct the name in the template of ${f.reader}; a stub has the inputs of its original.`]
      : [`Import the directive it belongs to:   imports: […] in ${f.reader}`],
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

/** A class as it is most likely called: `app-hive-card` is HiveCard, `weight` is WeightPipe. */
function nameOfTag(name: string, kind: 'component' | 'pipe'): string {
  const words = name.split('-').slice(kind === 'component' && name.includes('-') ? 1 : 0);
  const called = words.map((word) => `${word[0]?.toUpperCase()}${word.slice(1)}`).join('');
  return kind === 'pipe' ? `${called}Pipe` : called;
}

/** A value that was read where nobody provides it, and did not do. */
interface BareValue {
  token: string;
  reader: string;
  value: string;
  threw: string;
  provided: string[];
  thing: 'context' | 'injection';
  wrapper: string;
}

const bareValue = (f: BareValue): Report => ({
  head:
    f.thing === 'context'
      ? `${f.reader} threw because the context "${f.token}" has no provider around it.`
      : `${f.reader} threw because nobody provides the injection "${f.token}".`,
  there: [
    f.thing === 'context'
      ? `It read "${f.token}", got the default value ${f.value}, and threw: ${f.threw}`
      : `It asked for "${f.token}", got ${f.value}, and threw: ${f.threw}`,
    f.provided.length
      ? `Provided so far: ${list(f.provided)}.`
      : `This test provides no ${f.thing === 'context' ? 'context' : 'value'} at all.`,
  ],
  next: [
    f.wrapper
      ? `It comes with a package: put that around the subject:   wrap: [${f.wrapper}]`
      : `Give it a value:   provide: [[${f.token}, …]]`,
  ],
});

/** A provider that was asked for and is not there. */
interface NoProvider {
  token: string;
  asker: string;
  path: string[];
  provided: string[];
  isToken: boolean;
}

const noProvider = (f: NoProvider): Report => ({
  head: `${f.asker} asks for ${f.token}, and nobody provides it.`,
  there: [
    ...(f.path.length > 2 ? [`The way it was asked for:   ${f.path.join(' → ')}`] : []),
    f.provided.length ? `Provided so far: ${list(f.provided)}.` : 'This test provides nothing at all.',
  ],
  next: /^(ActivatedRoute|ChildrenOutletContexts|Router)$/.test(f.token)
    ? ['It comes with the router:   wrap: [provideRouter([])]']
    : [
        f.isToken
          ? `Give it a value:   provide: [[${f.token}, …]]`
          : `Let another stand for it:   provide: [[${f.token}, standIn(${f.token})]]`,
        ...(f.path.length > 2 ? [`or for who needs it:   provide: [[${f.asker}, standIn(${f.asker})]]`] : []),
      ],
});
