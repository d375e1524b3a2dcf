import { isProbed } from './probed';
import { isArranged } from './answers';
import { explain } from './errors';
import { nearest } from './near';
import { reportRefusal } from './ownership';
import { isSpy, spy, type AnswerOf, type AnyFunction, type CallAnswerOf, type Spy } from './spy';

/** An object that stands for a `T`: its methods are spies. */
export type StandIn<T> = T & {
  readonly [K in keyof T]: T[K] extends AnyFunction ? Spy<T[K]> : T[K];
};

/** What the members of a stand-in answer: a method any answer, anything else a value. */
export type Answers<T> = {
  readonly [K in keyof T]?: T[K] extends AnyFunction ? AnswerOf<T[K]> : T[K];
};

/**
 * Answers for an interface or an abstract class, which do not exist at run time. Methods must be given as
 * functions, or as answers that only a function can give.
 */
export type NamedAnswers<T> = {
  readonly [K in keyof T]?: T[K] extends AnyFunction ? CallAnswerOf<T[K]> : T[K];
};

type Class<T> = abstract new (...args: never[]) => T;
type ConcreteClass<T> = new (...args: never[]) => T;

/**
 * An object in place of a service. Every method is a {@link spy}.
 *
 * From a class, it has all methods, including inherited ones. `instanceof` is true and the constructor never
 * runs. A misspelt method name in `answers` is an error. For an interface, pass a list of names or the answers
 * alone. Calling a member that you did not name is an error. An interface does not exist at run time, so pass its
 * methods as functions (or as answers that only functions give, such as `hold()`). With no argument, every method
 * exists and returns undefined.
 *
 * @param source a class, a list of method names, or the answers
 * @param answers with a class or a list: what some of the methods answer
 * @throws SIM-STANDIN-UNKNOWN for a member the class, list or answers do not have
 * @example
 * interface InspectionService { log(hiveId: string, varroa: number): Promise<void> }
 * const service = standIn<InspectionService>({ log: hold() });
 * void service.log('h7', 4);
 * expect(service.log.calls).toEqual([['h7', 4]]);
 */
export function standIn<T extends object>(source: ConcreteClass<T>, answers?: Answers<T>): StandIn<T>;
export function standIn<T extends object>(source: Class<T>, answers?: NamedAnswers<T>): StandIn<T>;
export function standIn<T extends object>(
  source?: readonly (keyof T & string)[],
  answers?: Answers<T>,
): StandIn<T>;
export function standIn<T extends object>(source: NamedAnswers<T>): StandIn<T>;
export function standIn(source?: unknown, answers: Record<string, unknown> = {}): object {
  if (typeof source === 'function') return fromClass(source as Class<object>, answers);
  if (source === undefined) return fromNames('a stand-in', undefined, answers);
  if (Array.isArray(source)) return fromNames('a stand-in', source as string[], answers);
  return fromNames('a stand-in', [], source as Record<string, unknown>);
}

function fromClass(source: Class<object>, answers: Record<string, unknown>): object {
  const { methods, accessors } = membersOf(source.prototype as object);
  for (const name of Object.keys(answers)) {
    // Fields and abstract methods are not on the prototype, so an unknown name is refused only if it is close
    // to a method's.
    const isMissing = !methods.has(name) && !accessors.has(name) && isCallAnswer(answers[name]);
    if (isMissing && nearest(name, methods) !== undefined) {
      throw explainUnknown(source.name, name, [...methods]);
    }
  }
  const double = Object.create(source.prototype as object) as Record<string, unknown>;
  for (const name of methods) define(double, name, makeMember(answers[name], name, true));
  // The constructor never ran, so an accessor would fail. A plain field replaces it.
  for (const name of accessors) define(double, name, undefined);
  for (const name of Object.keys(answers)) {
    if (!methods.has(name)) define(double, name, makeMember(answers[name], name, false));
  }
  return double;
}

/** The methods and accessors of a class, inherited ones included. */
export function membersOf(prototype: object): { methods: Set<string>; accessors: Set<string> } {
  const methods = new Set<string>();
  const accessors = new Set<string>();
  for (let at = prototype; at && at !== Object.prototype; at = Object.getPrototypeOf(at) as object) {
    for (const [name, { value, get, set }] of Object.entries(Object.getOwnPropertyDescriptors(at))) {
      if (name === 'constructor' || methods.has(name) || accessors.has(name)) continue;
      if (typeof value === 'function') methods.add(name);
      else if (get ?? set) accessors.add(name);
    }
  }
  return { methods, accessors };
}

function fromNames(
  whose: string,
  names: readonly string[] | undefined,
  answers: Record<string, unknown>,
): object {
  const known = names && [...names, ...Object.keys(answers)];
  const double: Record<string, unknown> = {};
  for (const name of names ?? []) define(double, name, makeMember(answers[name], name, true));
  for (const name of Object.keys(answers)) {
    if (!names?.includes(name)) define(double, name, makeMember(answers[name], name, false));
  }
  return new Proxy(double, {
    get(target, key) {
      if (key in target || isProbed(key)) {
        return Reflect.get(target, key) as unknown;
      }
      const name = String(key);
      define(target, name, known ? makeUnknown(whose, name, known) : spy(undefined, name));
      return target[name];
    },
  });
}

const isCallAnswer = (answer: unknown) =>
  isArranged(answer) || (typeof answer === 'function' && !isReactive(answer));

// A signal is a function with a symbol that marks it. It is itself the value, not a function that returns
// one.
const isReactive = (answer: object) => Object.getOwnPropertySymbols(answer).length > 0;

function makeMember(answer: unknown, name: string, method: boolean): unknown {
  if (isSpy(answer)) return answer;
  return method || isCallAnswer(answer) ? spy(answer, name) : answer;
}

const define = (target: object, name: string, value: unknown) =>
  Object.defineProperty(target, name, { value, enumerable: true, writable: true, configurable: true });

// Code may destructure a service before it uses it, so only calling a missing member is refused.
function makeUnknown(whose: string, name: string, known: readonly string[]): unknown {
  const call = (): never => {
    const error = explainUnknown(whose, name, known);
    // The component may catch this error, so the test also gets it directly. A mere read is not reported:
    // packages check whether something exists and do without it.
    reportRefusal(error);
    throw error;
  };
  return new Proxy(call, {
    get: (target, key) => {
      if (isProbed(key) || key === 'name') return Reflect.get(target, key) as unknown;
      throw explainUnknown(whose, name, known);
    },
  });
}

function explainUnknown(whose: string, name: string, known: readonly string[]): Error {
  return explain('SIM-STANDIN-UNKNOWN', { whose, name, known, nearest: nearest(name, known) });
}
