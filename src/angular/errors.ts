import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of Angular itself. */
export const registry = {
  'SIM-IMPORT-MISSING': (f: {
    kind: 'component' | 'pipe';
    name: string;
    reader: string;
    nearest?: string | undefined;
  }): Report => ({
    head: `The template of ${f.reader} uses the ${f.kind === 'pipe' ? 'pipe' : 'element'} "${f.name}", which ${f.reader} does not import.`,
    there: f.kind === 'pipe' ? [] : ['Otherwise it is an unknown element.'],
    nearest: f.nearest && `<${f.nearest}>`,
    next: [
      `Add the ${f.kind} to the imports of ${f.reader}:   imports: [${nameOfTag(f.name, f.kind)}]`,
      `or, where a module declares ${f.reader}, put that module around it:   wrap: [ThatModule]`,
    ],
  }),
  'SIM-IMPORT-INVALID': (f: {
    reader: string;
    /** The class or function that is there; undefined where nothing is. */
    found: string | undefined;
    /** True for a component, directive or pipe that is not standalone. */
    isClass: boolean;
  }): Report => ({
    head: f.isClass
      ? `The imports of ${f.reader} name ${f.found}, which is not standalone.`
      : `The imports of ${f.reader} have ${f.found ?? 'undefined'} where a component, directive, pipe or module belongs.`,
    next: f.isClass
      ? [`Import the module that declares ${f.found}, or make it standalone.`]
      : f.found === undefined
        ? ['Two files that import each other give undefined, and so does a swap that gives no component.']
        : [
            'If a swap gives it, give a component instead.',
            `To replace a child it is enough to stub it:   stub: [${f.found}]`,
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
      : [
          `Import what it belongs to:   imports: [${ownerOf(f.property)}] in ${f.reader}`,
          `or, where a module declares ${f.reader}, put that module around it:   wrap: [ThatModule]`,
        ],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

/** A class as it is most likely called: `hive-card` and `app-hive-card` are HiveCard, `weight` is WeightPipe. */
function nameOfTag(name: string, kind: 'component' | 'pipe'): string {
  const words = name.replace(/^app-/, '').split('-');
  const called = words.map((word) => `${word[0]?.toUpperCase()}${word.slice(1)}`).join('');
  return kind === 'pipe' ? `${called}Pipe` : called;
}

// What Angular itself brings along.
const owners: readonly (readonly [RegExp, string])[] = [
  [/^ngModel/, 'FormsModule'],
  [/^form(Group|Control|Array)/, 'ReactiveFormsModule'],
  [/^routerLink/, 'RouterLink'],
  [/^ng(If|For|Class|Style|Switch|TemplateOutlet|ComponentOutlet)/, 'CommonModule'],
];
const ownerOf = (property: string): string => owners.find(([pattern]) => pattern.test(property))?.[1] ?? '…';
