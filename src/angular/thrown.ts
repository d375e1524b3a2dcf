import { asCode } from '../core/print';
import { isError } from '../core/is-error';
import { isExplained } from '../core/errors/called-from';
import { explain as explainOwn } from './errors';
import { explain } from '../stage/errors';
import { nearest } from '../core/near';
import { siteIn } from '../core/origin';
import { homeOfExport } from '../seam/exports';
import type { Plan } from '../stage/adapter';
import { explainThrown } from '../stage/thrown';
import { nameOfDescribed, nameOfToken, plainName } from './definitions';

interface Circumstances {
  readonly plan: Plan;
  /** Who was being made when this was thrown. */
  askerOf(error: unknown): string | undefined;
  /** The components around one of a name, itself first. */
  namesAround(name: string): string[];
  /** The inputs of a component by the element it is written as. */
  inputsOf(element: string): string[] | undefined;
  /** Selectors of the components of which the test or the subject knows. @throws where an import of it is invalid */
  selectors(): readonly string[];
}

type Coded = Error & {
  readonly code?: number;
  readonly ngErrorCode?: number;
  readonly ngTokenPath?: readonly string[];
};

/** Words what Angular threw, by its code, with the line that mends it. */
export function wordThrown(error: unknown, circumstances: Circumstances): Error {
  if (isExplained(error)) return error;
  const { plan } = circumstances;
  const { code, ngErrorCode, message = '' } = (error ?? {}) as Coded;
  const told = { cause: error, chronicle: plan.chronicle };
  const thrower = circumstances.askerOf(error) ?? throwerIn(error) ?? plan.name;
  const [, imported, importer = thrower] = invalidImport.exec(message) ?? [];
  if (imported) {
    const fields = {
      reader: plainName(importer),
      found: plainName(imported),
      isClass: /is not standalone/.test(message),
    };
    return explainOwn('SIM-IMPORT-INVALID', fields, told);
  }
  switch (Math.abs(code ?? ngErrorCode ?? 0)) {
    case 201:
      return explain('SIM-PROVIDE-MISSING', providerFields(error as Coded, thrower, circumstances), told);
    case 302: {
      const [, name = '', reader = thrower] =
        /The pipe '(.+?)' could not be found in the '(.+?)'/.exec(message) ?? [];
      return explainOwn(
        'SIM-IMPORT-MISSING',
        { kind: 'pipe', name, reader: plainName(reader), nearest: undefined },
        told,
      );
    }
    case 303: {
      const [, property = '', element = ''] = /Can't bind to '(.+?)' since .* of '(.+?)'/.exec(message) ?? [];
      const known = circumstances.inputsOf(element);
      const reader = readerIn(message) ?? thrower;
      const fields = { property, element, reader, known, nearest: nearest(property, known ?? []) };
      return explainOwn('SIM-BINDING-UNKNOWN', fields, told);
    }
    case 304: {
      const [, name = ''] = /'(.+?)' is not a known element/.exec(message) ?? [];
      const reader = readerIn(message) ?? thrower;
      const near = nearest(name, circumstances.selectors());
      return explainOwn('SIM-IMPORT-MISSING', { kind: 'component', name, reader, nearest: near }, told);
    }
    case 919:
      return explainOwn('SIM-IMPORT-INVALID', { reader: thrower, found: undefined, isClass: false }, told);
    case 950: {
      const [, name = ''] = /Input "(.+?)" is required/.exec(message) ?? [];
      if (thrower === plan.name)
        return explain(
          'SIM-PROP-MISSING',
          { subject: plan.name, missing: [name], given: Object.keys(plan.props), word: 'input' },
          told,
        );
      break;
    }
  }
  return explainThrown(error, {
    subject: plan.name,
    names: circumstances.namesAround(thrower),
    bareReads: [],
    provided: plan.provide.map(({ token }) => ({ token, name: nameOfToken(token) })),
    chronicle: plan.chronicle,
    thing: 'injection',
    phase: phaseOf(error),
    wrapperOf: () => '',
    asWrapper: () => '',
    emptyStub: (name) => `stub(${asCode(name)}, '')`,
  });
}

const invalidImport = /^The "(.+?)" \w+, imported from "(.+?)", (?:is not standalone|must be a)/;

const readerIn = (message: string): string | undefined => {
  const found = /used in the '(.+?)' component template/.exec(message)?.[1];
  return found && plainName(found);
};

function phaseOf(error: unknown): string {
  const stack = isError(error) ? (error.stack ?? '') : '';
  const hook = /\.(ng[A-Z]\w+)/.exec(stack)?.[1];
  if (hook) return `in ${hook}`;
  return /at new /.test(stack.split('_Template')[0] ?? '') && !/_Template/.test(stack.split('\n')[1] ?? '')
    ? 'while it was made'
    : 'while rendering';
}

function providerFields(error: Coded, asker: string, { plan }: Circumstances) {
  const { ngTokenPath = [], message } = error;
  const [, named = ''] = /No provider for `?(?:InjectionToken )?(.+?)`? found/.exec(message) ?? [];
  const isToken = /InjectionToken/.test(message);
  const name = (called: string) =>
    /^InjectionToken /.test(called)
      ? nameOfDescribed(called.slice('InjectionToken '.length))
      : plainName(called);
  const path = ngTokenPath.map(name);
  const token = name(isToken && named ? `InjectionToken ${named}` : named) || path.at(-1) || 'something';
  const whole = path[0] === asker ? path : [asker, ...path];
  if (whole.at(-1) !== token) whole.push(token);
  return {
    token,
    asker: whole.at(-2) ?? asker,
    path: whole,
    provided: plan.provide.map(({ token: provided }) => nameOfToken(provided)),
    isToken,
    home: homeOfExport(token),
    readAt: siteIn(error),
  };
}

/**
 * The component whose code a stack leads through first: a template is a function named after its component,
 * a hook a method of it.
 */
export function throwerIn(error: unknown): string | undefined {
  const stack = isError(error) ? (error.stack ?? '') : '';
  const found =
    /at (?:Object\.)?_?(\w+?)_(?:\w+_)?Template\b|at _?(\w+)\.ng[A-Z]\w+|at new _?([A-Z]\w+)/.exec(stack) ??
    [];
  return found[1] ?? found[2] ?? found[3];
}
