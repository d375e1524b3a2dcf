import type { Report } from '../../core/errors/error';
import { list } from '../../core/print';

/** Failures of what a component needs around it. */
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
  'SIM-PROVIDE-UNUSED': (f: { subject: string; names: string[]; read: string[] }): Report => ({
    head: `${f.names.length === 1 ? `What is provided for ${f.names[0]} was` : `What is provided for ${list(f.names)} was`} never read by ${f.subject} or anything in it.`,
    there: f.read.length ? [`What was read: ${list(f.read)}.`] : ['Nothing that is provided was read.'],
    next: [
      'Take it out, or correct the token: another one of the same name does not count.',
      'What only some tests of a team need belongs into isolateWith({ provide: … }).',
    ],
  }),
  'SIM-SLOT-UNKNOWN': (f: {
    subject: string;
    asked: string;
    known: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} has no slot "${f.asked}".`,
    there: [f.known.length ? `It has ${list(f.known)}.` : 'It has none.'],
    nearest: f.nearest && `slots: { ${f.nearest}: … }`,
    next: ['Correct the name, or take it out.'],
  }),
  'SIM-SLOT-UNUSED': (f: {
    subject: string;
    asked: string;
    known: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `What was put into the slot "${f.asked}" of ${f.subject} was never rendered.`,
    there: [
      f.known.length ? `Other slots it names: ${list(f.known)}.` : 'No other slot of it could be read.',
    ],
    nearest: f.nearest && `slots: { ${f.nearest}: … }`,
    next: ['Take it out, correct the name, or bring the test to where the slot is rendered.'],
  }),
  'SIM-GIVEN-NONE': (f: { subject: string; asked: string; provided: string[] }): Report => ({
    head: `${f.subject} was given nothing for ${f.asked}.`,
    there: [f.provided.length ? `It was given ${list(f.provided)}.` : 'It was provided with nothing.'],
    next: [`Provide it:   provide: [[${f.asked}, …]]`],
  }),
};

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
