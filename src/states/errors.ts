import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

// A name as a key of an object.
const keyed = (name: string) => (/^[a-z_$][\w$]*$/i.test(name) ? name : `'${name}'`);
const quoted = (names: readonly string[]) => list(names.map((name) => `"${name}"`));

/** Two states of which the second has all that the first declares, and what each has for itself, as code. */
export interface Alike {
  readonly state: string;
  readonly other: string;
  readonly own: readonly string[];
  /** What both have, and not as often: `[part(HiveCard), 3]` in the first. */
  readonly counts: readonly string[];
  readonly others: readonly string[];
  /** True where their outlines are the same. */
  readonly isSame: boolean;
}

function wordApart({ state, other, own, counts, others, isSame }: Alike): string[] {
  const declare = (option: string, what: readonly string[]) =>
    `${keyed(state)}: { ${option}: [${what.slice(0, 3).join(', ')}] }`;
  if (isSame)
    return [
      `Their pages are alike. Where they are meant to be:   ${keyed(state)}: { looksLike: ['${other}'] }`,
    ];
  const told = [
    ...(own.length > 0 ? [`Only "${state}" has more:   ${declare('shows', own)}`] : []),
    ...(counts.length > 0 ? [`It is not as often in "${other}":   ${declare('counts', counts)}`] : []),
    ...(others.length > 0 ? [`Only "${other}" has it:   ${declare('lacks', others)}`] : []),
  ];
  return told.length > 0
    ? told
    : [
        `Their pages differ in what has neither a role nor a text of its own. Declare that, by css() or testId().`,
      ];
}

/** Failures of declared states. */
export const registry = {
  'SIM-STATE-NONE': (f: { component: string; state: string }): Report => ({
    head: `The state "${f.state}" of ${f.component} shows nothing, so nothing could be wrong with it.`,
    next: [
      "Say what is on the page then:   shows: [role('status', 'Loading hives')]",
      'or what is not:   lacks: […]     or how much of it:   counts: [[part(HiveCard), 3]]',
    ],
  }),
  'SIM-STATE-CHECK': (f: { component: string; state: string; option: string; given: string }): Report => ({
    head: `The state "${f.state}" of ${f.component} has ${f.given} under "${f.option}".`,
    next: [
      f.option === 'counts'
        ? 'counts is a list of pairs:   counts: [[part(HiveCard), 3]]'
        : f.option === 'after'
          ? "after is a function of the subject:   after: (board) => board.click(role('button', 'Try again'))"
          : `${f.option} is a list of ${f.option === 'looksLike' ? "names of other states:   looksLike: ['empty']" : `locators:   ${f.option}: [role('button', 'Try again')]`}`,
    ],
  }),
  'SIM-STATE-UNKNOWN': (f: {
    component: string;
    state: string;
    option: string;
    named: string;
    states: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `The state "${f.state}" of ${f.component} names a state "${f.named}" (${f.option}), and there is none.`,
    there: [`Its states are ${quoted(f.states)}.`],
    nearest: f.nearest && `${f.option}: '${f.nearest}'`,
  }),
  'SIM-STATE-CIRCLE': (f: { component: string; states: readonly string[] }): Report => ({
    head: `States of ${f.component} are built on each other in a circle: ${f.states.map((name) => `"${name}"`).join(' → ')}.`,
    next: ['One of them has to begin by itself: take its "from" out.'],
  }),
  'SIM-STATE-TWICE': (f: { pattern: string; names: readonly string[] }): Report => ({
    head: `Several rows of cases('${f.pattern}', …) get the same name: ${quoted(f.names)}.`,
    next: ['Name a field in it that differs from row to row:   {id}'],
  }),
  'SIM-STATES-GIVEN': (f: { asked: string; given: string; names: readonly string[] }): Report => ({
    head: `${f.asked} takes what states() returns, and was given ${f.given}.`,
    there: f.names.length > 0 ? [`It has ${quoted(f.names)}.`] : [],
    next: [
      `It takes the default export of a file that declares states:   ${f.asked.replace('()', '(board)')}`,
    ],
  }),
  'SIM-STATE-WRONG': (f: {
    component: string;
    state: string;
    wrong: readonly string[];
    nearest?: string | undefined;
  }): Report => ({
    head: `${f.component} does not look as its state "${f.state}" says.`,
    there: [f.wrong.join('\n\n')],
  }),
  'SIM-STATE-EARLY': (f: {
    component: string;
    state: string;
    answer: string;
    shows: readonly string[];
    brought: readonly string[];
  }): Report => ({
    head: `All that the state "${f.state}" of ${f.component} declares was so before ${f.answer} was answered: it would hold without that answer.`,
    there: f.shows,
    next:
      f.brought.length > 0
        ? [`The answer brought more. Declare some of it:   shows: [${f.brought.slice(0, 3).join(', ')}]`]
        : ['Declare what the answer changes on the page.'],
  }),
  'SIM-STATE-ALIKE': (f: { component: string; pairs: readonly Alike[] }): Report => ({
    head:
      f.pairs.length === 1
        ? `${f.component} in the state "${f.pairs[0]!.other}" has all that "${f.pairs[0]!.state}" declares: nothing tells the two apart.`
        : `States of ${f.component} cannot be told apart.`,
    there: f.pairs.flatMap((pair) => [
      ...(f.pairs.length === 1 ? [] : [`"${pair.other}" has all that "${pair.state}" declares.`]),
      ...wordApart(pair),
    ]),
  }),
  'SIM-STATE-APART': (f: { component: string; state: string; others: readonly string[] }): Report => ({
    head: `The state "${f.state}" of ${f.component} says that it looks like ${quoted(f.others)}, and it can be told apart.`,
    next: ['Take that out of "looksLike".'],
  }),
  'SIM-STATE-BRANCH': (f: { component: string; file: string; places: readonly string[] }): Report => ({
    head: `No state of ${f.component} reaches ${f.places.length === 1 ? 'this' : `these ${f.places.length} places`} in ${f.file}.`,
    there: [...f.places.slice(0, 20), ...(f.places.length > 20 ? [`… ${f.places.length - 20} more`] : [])],
    next: ['Declare the state that does, or take the code out.'],
  }),
  'SIM-LOOK-NEW': (f: { component: string; state: string; file: string; outline: string }): Report => ({
    head: `Nobody has accepted yet how ${f.component} looks in the state "${f.state}".`,
    there: [f.outline],
    next: [`A run with ACCEPT_LOOKS=1 writes it to ${f.file}.`],
  }),
  'SIM-LOOK-CHANGED': (f: { component: string; state: string; file: string; changes: string }): Report => ({
    head: `${f.component} looks other in the state "${f.state}" than was accepted in ${f.file}.`,
    there: [f.changes],
    next: ['Where that is meant, a run with ACCEPT_LOOKS=1 accepts it.'],
  }),
  'SIM-STATE-UNUSED': (f: { component: string; unused: readonly string[]; states: number }): Report => ({
    head: `None of the ${f.states} states of ${f.component} has use for all that they declare.`,
    there: f.unused,
    next: ['Take it out, or declare the state that needs it.'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
