import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { asCode, inSubject, list } from '../core/print';

/** Failures of Vue itself. */
export const registry = {
  'SIM-VUE-PRODUCTION': (f: { version: string }): Report => ({
    head: `This is a production build of Vue ${f.version}, which has no bridge for stubs.`,
    there: ['Only a development build allows components to be replaced.'],
    next: ['Run the tests with   NODE_ENV=test   and, where a bundler serves them, in development mode.'],
  }),
  'SIM-RESOLVE-NONE': (f: {
    kind: 'component' | 'directive';
    name: string;
    asName: string;
    reader: string;
    known: string[];
    /** True where it is registered, and there is nothing under its name. */
    isEmpty: boolean;
    nearest?: string | undefined;
    wrapper: string;
  }): Report => {
    const stubbed = `If it does not matter here:   stub: ['${f.asName}']`;
    const warned = 'Vue would only warn, and render an unknown element.';
    if (f.isEmpty)
      return {
        head: `${f.reader} uses the ${f.kind} "${f.name}", and what it registers as that is undefined.`,
        there: [
          'An import gives undefined where its name is wrong, and where files import each other in a circle.',
          warned,
        ],
        next: [`Look at where ${f.reader} imports it from; in a circle, load the other file first.`, stubbed],
      };
    return {
      head: `${f.reader} uses the ${f.kind} "${f.name}", which is registered nowhere.`,
      there: [
        f.known.length ? `Registered there: ${list(f.known)}.` : `No ${f.kind} is registered there.`,
        warned,
      ],
      nearest: f.nearest,
      next: [
        f.wrapper
          ? `It comes with a plugin:   wrap: [${f.wrapper}]`
          : `If a plugin registers it:   wrap: [plugin]   and if it belongs to ${f.reader}: import it there.`,
        stubbed,
      ],
    };
  },
  'SIM-UPDATE-ENDLESS': (f: { component: string; subject: string }): Report => ({
    head: `${inSubject(f.component, f.subject)} updates itself without end: Vue has given up after 100 times.`,
    there: ['Each update changes something that it renders or watches.'],
    next: [
      'Look for watchers that change what each other watch, and for what is set in a template, a computed value, a function ref or onUpdated.',
    ],
  }),
  'SIM-SUSPENSE-MISSING': (f: { reader: string; subject: string }): Report => ({
    head: `The setup of ${f.reader} waits for something, and there is no Suspense around it.`,
    there: ['Without one, Vue never renders it.'],
    next: [
      "Put Vue's Suspense around the subject:   wrap: [Suspense]",
      ...(f.reader === f.subject ? [] : [`or stub it:   stub: [${asCode(f.reader)}]`]),
    ],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
