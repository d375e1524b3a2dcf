import { isError } from '../core/is-error';
import { isExplained } from '../core/errors/called-from';
import { isFrame, packageOf, readerIn, type Origin } from '../core/origin';
import { explain } from './errors';
import { print } from '../core/print';
import { whatThePageLacks } from '../page/lacking';
import type { Asking } from './bare-reads';
import { homeOf } from '../seam/exports';
import { comesOfRead } from './evidence';
import { readProvider, type PackageProvider } from './package-provider';
import type { ChronicleLog } from '../core/chronicle';

interface Circumstances {
  readonly subject: string;
  /** The components from the one that threw outwards. */
  readonly names: readonly string[];
  /** The stub inside of which the component stands that threw. */
  readonly stub?: string | undefined;
  readonly bareReads: readonly Asking[];
  /** What the test provides, and how that is called. */
  readonly provided: readonly { readonly token: unknown; readonly name: string }[];
  readonly chronicle: ChronicleLog;
  /** What the framework calls the thing that is provided. */
  readonly thing: 'context' | 'injection';
  /** When it was thrown: "while rendering" unless said otherwise. */
  readonly phase?: string | undefined;
  /** What to put around the subject for a package, as code. */
  wrapperOf: (library: string) => string;
  /** The line that imports it; nothing where it is not known. */
  importOf?: (library: string) => string | undefined;
  /** A component around the subject, as code; nothing where the framework has none such. */
  asWrapper(component: string): string;
  /** A provider around the subject that gives a value, as code; where the framework has such. */
  providerOf?: (name: string) => string;
  /** A stub that leaves out what is inside of it, as code. */
  emptyStub(name: string): string;
}

/** Words what was thrown out of the subject: what was thrown, by whom, and what was missing there. */
export function explainThrown(error: unknown, circumstances: Circumstances): Error {
  if (isExplained(error)) return error;
  // The cause is one of our own failures, an unmatched request for example.
  const { cause: inner } = (error ?? {}) as { cause?: unknown };
  if (isExplained(inner)) return inner;
  const { subject, bareReads, chronicle, names, thing, phase, stub } = circumstances;
  const thrower = names[0] ?? subject;
  const threw = isError(error) ? `${error.name}: ${asWritten(error.message.split('\n')[0]!)}` : print(error);
  const told = { cause: error, chronicle };
  const feature = whatThePageLacks(error);
  if (feature) return explain('SIM-PAGE-LACKS', { subject, thrower, feature, threw }, told);
  const lacks = unique(bareReads.filter(({ reader }) => reader === thrower || reader === subject)).map(
    worded,
  );
  const isTypeError = (error as { name?: unknown } | null)?.name === 'TypeError';
  const shown = isTypeError && lacks.length > 0 ? comesOfRead(error) : undefined;
  const fitting = lacks.filter(
    (read) =>
      isNamedIn(read, threw) || speaksOfProvider(threw) || (isTypeError && fits(read, threw, thing, shown)),
  );
  const asked = providerIn(threw, thrower);
  const chain = hooksIn(error);
  const library = chain.at(-1);
  const stubbed = stub && { stub, emptyStub: circumstances.emptyStub(stub) };
  if (library && !stub && speaksOfProvider(threw)) {
    const contexts = lacks.flatMap(({ name }) => name ?? []);
    const known = circumstances.wrapperOf(library.package);
    // What we know about a package is better than a name found in a message.
    const wrapper = asked && /^(|plugin|.*….*)$/.test(known) ? circumstances.asWrapper(asked) : known;
    const imports = circumstances.importOf?.(library.package);
    const fields = { ...library, chain, reader: thrower, contexts, threw, wrapper, imports };
    const name = /^<?([A-Z]\w*)(?!\w| …)/.exec(wrapper)?.[1];
    return explain('SIM-WRAP-MISSING', name ? withProvider(fields, name, error) : fields, told);
  }
  const read = fitting.find((one) => isNamedIn(one, threw)) ?? fitting.at(-1);
  const printed = lacks.filter((other) => other !== read).map(printRead);
  if (read) {
    const fields = {
      ...factsOfRead(read, circumstances),
      thrower,
      threw,
      ...stubbed,
      others: printed,
      provider: asked,
    };
    return explain('SIM-PROVIDE-MISSING', fields, told);
  }
  const asksAround = asked && circumstances.asWrapper(asked);
  const fields = {
    subject,
    thrower,
    threw,
    stack: printNames(names),
    lacks: printed,
    thing,
    ...stubbed,
    ...(asksAround && { around: asked, wrapper: asksAround }),
    ...(phase && { phase }),
  };
  return explain('SIM-RENDER-THREW', fields, told);
}

/** Adds the provider as the types of its package have it. Reading them takes a second, so that is done when asked for. */
function withProvider<T extends LibraryHook>(
  fields: T,
  name: string,
  error: unknown,
): T & { readonly provider?: PackageProvider | undefined } {
  const frame = framesIn(error).find((one) => packageOf(one) === fields.package) ?? '';
  const [, folder = ''] =
    /(?:\(|at |file:\/\/)((?:[A-Za-z]:)?[\\/].*[\\/])node_modules[\\/]/.exec(frame) ?? [];
  let provider: PackageProvider | undefined;
  const get = () => (provider ??= readProvider(name, fields.package, folder.replaceAll('\\', '/')));
  return Object.defineProperty(fields, 'provider', { get, configurable: true });
}

// Undoes what a compiler makes of an import: `(0 , import_vue.inject)(…)` was `inject(…)` in the source.
const asWritten = (message: string): string => message.replace(/\(0 ?, ?[\w$]+\.([\w$]+)\)/g, '$1');

const printNames = (names: readonly string[]): string =>
  names
    .slice(0, 8)
    .map((name) => `  in ${name}`)
    .join('\n');

/** What a message says about a value that was read where nobody provides it. */
function factsOfRead(read: Lack, { thing, provided, wrapperOf, importOf, providerOf }: Circumstances) {
  const { token, name, made, value, reader, isAround, asked } = read;
  const isGiven = isAround && provided.some((one) => one.token === token);
  return {
    ...{ token: name, made, value, reader, thing },
    home: homeOf(token),
    readAt: asked && readerIn(asked),
    provided: provided.map((one) => one.name),
    wrapper: name ? wrapperOf(name) : '',
    imports: name ? importOf?.(name) : undefined,
    outside: isGiven ? (providerOf?.(name ?? 'ThatContext') ?? '') : undefined,
  };
}

/** A read with all there is to say of it. */
type Lack = Omit<Asking, 'origin' | 'value'> & Origin & { readonly value: string };

const worded = (read: Asking): Lack => ({ ...read, ...read.origin(), value: print(read.value, 40) });

const printRead = ({ name, made, reader }: Lack): string =>
  `${name ? `"${name}"` : made ? `one made at ${made}` : 'one without a name'}, read by ${reader}`;

const unique = (reads: readonly Asking[]): Asking[] =>
  reads.filter(
    ({ token, reader }, at) =>
      reads.findIndex((other) => other.token === token && other.reader === reader) === at,
  );

/**
 * Whether a TypeError can come from a value that nobody provided. A package says so itself when it needs a
 * provider, so its other errors are not blamed on one.
 *
 * @param shown what the line that threw says of it, where it can be read
 */
function fits(read: Lack, threw: string, thing: string, shown: boolean | undefined): boolean {
  if (read.made?.startsWith('the package')) return false;
  if (shown !== undefined) return shown && isAbout(read, threw);
  // Vue warns about an injection that nobody provides. A context has a default value.
  return (read.value === 'null' || thing === 'injection') && isAbout(read, threw);
}

function isAbout({ value }: Lack, threw: string): boolean {
  if (/not a function|not iterable|not a constructor/.test(threw)) return true;
  return value === 'undefined' || value === 'null' ? new RegExp(`\\b${value}\\b`).test(threw) : true;
}

// By its name, or by the first part of its name: "needs a session" is about SessionContext.
function isNamedIn({ name, value }: Lack, threw: string): boolean {
  if (name === undefined) return false;
  const has = (word: string, flags = '') =>
    new RegExp(`\\b${word.replace(/[^\w]/g, '.')}\\b`, flags).test(threw);
  const stem = name.replace(/(Context|Key|Token|Injection)$/, '');
  return has(name) || (/^(undefined|null)$/.test(value) && stem !== '' && has(stem, 'i'));
}

const speaksOfProvider = (threw: string): boolean =>
  /provide|context|wrapped|\bwithin\b|no active|\binject|\buse[A-Z]\w*\(/i.test(threw) ||
  /\b(?:in|with|out)side (?:of )?(?:an? |the |its )?[`'"<]?[A-Z]|<[A-Z]/.test(threw);

/** The component that is named as what has to be around: "must be used within a SessionProvider". */
function providerIn(threw: string, thrower: string): string | undefined {
  const named = [
    /\b(?:within|inside(?: of)?|outside(?: of)?|wrapped (?:in|by|with)) (?:an? |the |your \w+ in )?[`'"<]*([A-Z][\w.]*\w)/,
    /[`'"<]*([A-Z][\w.]*\w)[`'">]*(?: component)? was not found in (?:the )?tree/,
    /<([A-Z]\w*)[ />]/,
    /\b([A-Z]\w*Provider)\b/,
  ]
    .map((pattern) => pattern.exec(threw)?.[1])
    .find(Boolean);
  return named === thrower ? undefined : named;
}

const framesIn = (error: unknown): readonly string[] =>
  (isError(error) ? (error.stack ?? '') : '').split('\n').filter(isFrame);

interface LibraryHook {
  readonly hook: string;
  readonly package: string;
}

/**
 * The hooks of packages in the stack of an error, starting with the one the user called. Empty if the user's
 * own code threw. With source maps a frame may have the name of the function it calls; then the file name
 * decides.
 */
function hooksIn(error: unknown): LibraryHook[] {
  const frames = framesIn(error);
  const isFramework = (library: string | undefined) =>
    library !== undefined && /^(react|react-dom|vue|@vue\/.*|@angular\/core)$/.test(library);
  const thrownIn = frames.map(packageOf).find((library) => !isFramework(library));
  if (thrownIn === undefined) return [];
  const chain: LibraryHook[] = [];
  for (const frame of frames) {
    const library = packageOf(frame);
    const [, called, file] = /at (?:\S*\.)?(use[A-Z]\w*) .*?([^\\/]+?)\.\w+:\d+:\d+/.exec(frame) ?? [];
    if (!called || library === undefined || isFramework(library)) continue;
    const hook = /^use[A-Z]\w*$/.test(file ?? '') ? file! : called;
    // Of several hooks of one package, the outermost is the one the user called.
    if (chain[0]?.package === library) chain[0] = { hook, package: library };
    else chain.unshift({ hook, package: library });
  }
  return chain;
}
