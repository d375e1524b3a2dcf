import { list } from '../print';
import type { Report } from './error';

/** Failures of what a component needs around it: what is provided, wrapped, imported, registered. */
export const surrounding = {
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
      : [`Import what it belongs to:   imports: [${ownerOf(f.property)}] in ${f.reader}`],
  }),
};

/** A class as it is most likely called: `hive-card` and `app-hive-card` are HiveCard, `weight` is WeightPipe. */
function nameOfTag(name: string, kind: 'component' | 'pipe'): string {
  const words = name.replace(/^app-/, '').split('-');
  const called = words.map((word) => `${word[0]?.toUpperCase()}${word.slice(1)}`).join('');
  return kind === 'pipe' ? `${called}Pipe` : called;
}

/** A value that was read where nobody provides it, and did not do. */
export interface BareValue {
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
export interface NoProvider {
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

// What Angular itself brings along.
const owners: readonly (readonly [RegExp, string])[] = [
  [/^ngModel/, 'FormsModule'],
  [/^form(Group|Control|Array)/, 'ReactiveFormsModule'],
  [/^routerLink/, 'RouterLink'],
  [/^ng(If|For|Class|Style|Switch|TemplateOutlet|ComponentOutlet)/, 'CommonModule'],
];
const ownerOf = (property: string): string => owners.find(([pattern]) => pattern.test(property))?.[1] ?? '…';
