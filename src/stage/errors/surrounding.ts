import type { Log } from '../../core/logs';
import type { Left } from '../leaks';
import type { PackageProvider } from '../package-provider';
import type { Report } from '../../core/errors/error';
import type { Place } from '../../core/origin';
import { asCode, list } from '../../core/print';
import { quoteCode } from '../../page/locators';

type Home = { readonly file: string; readonly name: string };

/** What was left, by whom and where. */
export const printLeft = ({ what, from, line, library }: Left): string =>
  `${what} (${[from, line, library].filter(Boolean).join(', ')})`;

const kindOfLog = ({ level }: Log): string => (level === 'warn' ? 'a warning' : 'an error');

const cutText = (text: string): string => {
  const line = text.split('\n')[0]!;
  return line.length > 200 ? `${line.slice(0, 200)}…` : line;
};

/** The beginning of a text as a pattern that can be pasted. */
const patternOf = (text: string): string =>
  `/${text
    .split('\n')[0]!
    .slice(0, 50)
    .trim()
    .replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&')}/`;

/** Failures of what a component needs around it. */
export const surrounding = {
  'SIM-LOG-UNEXPECTED': (f: {
    subject: string;
    logs: readonly Log[];
    expected: readonly string[];
  }): Report => ({
    head:
      f.logs.length > 1
        ? `${f.logs.length} errors and warnings were logged that this test does not expect.`
        : f.logs[0]!.from
          ? `${f.logs[0]!.from} logged ${kindOfLog(f.logs[0]!)} that this test does not expect.`
          : `While ${f.subject} was up, ${kindOfLog(f.logs[0]!)} was logged that this test does not expect.`,
    there: f.logs
      .slice(0, 5)
      .map(
        ({ level, text, from }) =>
          `console.${level}${from && f.logs.length > 1 ? ` (${from})` : ''}: ${cutText(text)}`,
      ),
    next: [`If it belongs to the test, expect it:   logs: [${patternOf(f.logs[0]!.text)}]`],
  }),
  'SIM-LEFT-BEHIND': (f: { subject: string; left: readonly Left[] }): Report => ({
    head: `${f.subject.replace(/^the /, 'The ')} was taken down, and left ${f.left.length === 1 ? printLeft(f.left[0]!) : `${f.left.length} things behind`}.`,
    there: f.left.length === 1 ? [] : f.left.slice(0, 8).map((one) => `${printLeft(one)}.`),
    next: [
      'End it when the component is unmounted: clear the timer, remove the listener, unsubscribe.',
      `If it has to stay:   leaks: ${f.left.length === 1 ? `[${quoteCode(f.left[0]!.what)}]` : "'allowed'"}`,
    ],
  }),
  'SIM-LOG-MISSED': (f: {
    subject: string;
    pattern: string;
    logged: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} was expected to log ${f.pattern}, and did not.`,
    there: [
      f.logged.length
        ? `It logged: ${f.logged
            .slice(0, 5)
            .map((text) => `"${cutText(text)}"`)
            .join(', ')}.`
        : 'It logged nothing.',
    ],
    nearest: f.nearest && `logs: [${patternOf(f.nearest)}]`,
    next: f.nearest ? [] : ['Correct the pattern, or remove it.'],
  }),
  'SIM-PROVIDE-MISSING': (f: BareValue | NoProvider): Report => ('path' in f ? noProvider(f) : bareValue(f)),
  'SIM-WRAP-MISSING': (f: {
    hook: string;
    package: string;
    /** The hooks from the one that was called to the one that needs the provider. */
    chain?: readonly { hook: string; package: string }[];
    reader: string;
    contexts: string[];
    threw: string;
    wrapper: string;
    /** The line that imports the wrapper, where that is known. */
    imports?: string | undefined;
    /**
     * The provider as the types of the package have it, with the props it requires; read by the project's
     * TypeScript when it is asked for, which takes a second.
     */
    provider?: PackageProvider | undefined;
  }): Report => ({
    head: `${f.reader} calls ${wordChain(f.chain ?? [f])}, which needs a provider of that package around it.`,
    there: [
      `It threw: ${f.threw}`,
      ...(f.contexts.length ? [`Nobody provides ${list(f.contexts.map((c) => `"${c}"`))}.`] : []),
    ],
    next: [
      `Put the package's own provider around the subject:   wrap: [${f.wrapper}]`,
      ...(f.imports ? [f.imports] : []),
    ],
  }),
  'SIM-PROVIDE-UNUSED': (f: { subject: string; names: string[]; read: string[] }): Report => ({
    head: `${f.names.length === 1 ? `What is provided for ${f.names[0]} was` : `What is provided for ${list(f.names)} was`} never read by ${f.subject} or anything in it.`,
    there: f.read.length ? [`What was read: ${list(f.read)}.`] : ['Nothing that is provided was read.'],
    next: [
      'Remove it, or correct the token: another token with the same name is not the same.',
      'Values that only some tests of a team need belong in isolateWith({ provide: … }).',
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
    next: ['Correct the name, or remove it.'],
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
    next: ['Remove it, correct the name, or bring the test to where the slot is rendered.'],
  }),
  'SIM-GIVEN-NONE': (f: {
    subject: string;
    asked: string;
    provided: string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.subject} was given nothing for ${f.nearest ? `the text "${f.asked}"` : f.asked}.`,
    there: [f.provided.length ? `It was given ${list(f.provided)}.` : 'It was provided with nothing.'],
    nearest: f.nearest,
    next: f.nearest ? [] : [`Provide it:   provide: [[${f.asked}, …]]`],
  }),
};

const wordChain = (chain: readonly { hook: string; package: string }[]): string =>
  chain.map(({ hook, package: library }) => `${hook} of the package "${library}"`).join(', and that ');

/** A value that was read where nobody provides it, and the component that then threw. */
export interface BareValue {
  /** What it is called in the code; undefined where nobody knows. */
  token: string | undefined;
  /** Where it was made: `session.ts:2`. */
  made?: string | undefined;
  reader: string;
  thrower: string;
  value: string;
  threw: string;
  /** Other values that were read without a provider. */
  others: string[];
  provided: string[];
  thing: 'context' | 'injection';
  /** The user's file that exports the token, and its name there. */
  home?: Home | undefined;
  /** Where the reader asks for it. */
  readAt?: Place | undefined;
  /** What its package is put around the subject by. */
  wrapper: string;
  /** The line that imports the wrapper, where that is known. */
  imports?: string | undefined;
  /** The provider the error itself names. */
  provider?: string | undefined;
  /** How to provide it in `wrap`, where the test provides it further in. */
  outside?: string | undefined;
  /** The stub inside of which the reader stands. */
  stub?: string | undefined;
  emptyStub?: string;
}

function bareValue(f: BareValue): Report {
  const isContext = f.thing === 'context';
  const who = f.reader === f.thrower ? 'it' : f.reader;
  const quoted = f.token === undefined ? '' : ` "${f.token}"`;
  const made = f.token === undefined && f.made ? ` (made at ${f.made})` : '';
  const wanted = f.token ?? (isContext ? 'ThatContext' : 'thatKey');
  const give = `give it a value:   provide: [[${wanted}, …]]`;
  const others = f.others.length ? [`Nobody provides these either: ${f.others.join('; ')}.`] : [];
  const provided = f.provided.length
    ? `Provided so far: ${list(f.provided)}.`
    : `This test provides no ${isContext ? 'context' : 'value'} at all.`;
  return {
    head: isContext
      ? `${f.thrower} threw, and the context${quoted} that ${who} reads${made} has no provider around it.`
      : `${f.thrower} threw, and nobody provides the injection${quoted} that ${who} asked for${made}.`,
    there: [
      `${isContext ? `${f.reader} read it, got the default value` : `${f.reader} got`} ${f.value}, and ${f.reader === f.thrower ? 'threw' : `${f.thrower} threw`}: ${f.threw}`,
      ...others,
      f.outside !== undefined
        ? `"provide" stands right around the subject; ${f.reader} stands outside of that, in what "wrap" puts around it.`
        : f.stub
          ? insideStub(f.reader, f.stub)
          : provided,
    ],
    next:
      f.outside !== undefined
        ? [`Provide it outside of ${f.reader}:   wrap: [${f.outside}, …]`]
        : f.stub
          ? leaveOut(f.stub, f.emptyStub, f.thrower)
          : f.wrapper
            ? [
                `It comes with a package: put that around the subject:   wrap: [${f.wrapper}]`,
                ...(f.imports ? [f.imports] : []),
              ]
            : f.provider
              ? [`Put ${f.provider} around the subject:   wrap: [${f.provider}]`, `or ${give}`]
              : [`G${give.slice(1)}`],
  };
}

/** That a component stands in what a stub keeps of its content. */
export const insideStub = (name: string, stub: string): string =>
  `${name} stands inside ${stub}, which is stubbed: what the real ${stub} gives to its content is not there.`;

/** What to do about it, as code. */
export const leaveOut = (stub: string, emptyStub = '', thrower: string): string[] => [
  `Leave out what is inside of it:   stub: [${emptyStub}]`,
  `or stub that too:   stub: [${asCode(stub)}, ${asCode(thrower)}]`,
];

// A description is not what the code calls a token.
const isCode = (token: string) => /^[\w$]+$/.test(token);

/** A provider that was asked for and is not there. */
export interface NoProvider {
  token: string;
  asker: string;
  path: string[];
  provided: string[];
  isToken: boolean;
  /** The user's file that exports the token, and its name there. */
  home?: Home | undefined;
  /** Where the asker asks for it. */
  readAt?: Place | undefined;
}

const noProvider = (f: NoProvider): Report => ({
  head: `${f.asker} asks for ${isCode(f.token) ? f.token : `the token "${f.token}"`}, and nobody provides it.`,
  there: [
    ...(f.path.length > 2 ? [`The way it was asked for:   ${f.path.join(' → ')}`] : []),
    f.provided.length ? `Provided so far: ${list(f.provided)}.` : 'This test provides nothing at all.',
  ],
  next: /^(ActivatedRoute|ChildrenOutletContexts|Router)$/.test(f.token)
    ? ['It comes with the router:   wrap: [provideRouter([])]']
    : [
        f.isToken
          ? `Give it a value:   provide: [[${isCode(f.token) ? f.token : 'thatToken'}, …]]`
          : `Let another stand for it:   provide: [[${f.token}, standIn(${f.token})]]`,
        ...(f.path.length > 2 ? [`or for who needs it:   provide: [[${f.asker}, standIn(${f.asker})]]`] : []),
      ],
});
