import { isSlip, nearest } from '../core/near';
import { once } from '../core/shared';
import { pageTime } from '../core/page-time';
import { describe } from '../page/describe';
import { isSimulated } from '../page/styles';
import { refuse } from './errors';
import type { Stage } from './stage';

/** The package axe-core, as far as it is needed. */
export interface Axe {
  run(
    context: { readonly include: unknown },
    options: object,
  ): Promise<{ readonly violations: readonly Found[] }>;
  getRules?(): readonly { readonly ruleId: string }[];
}

interface Found {
  readonly id: string;
  readonly help: string;
  readonly impact?: string | null;
  readonly tags: readonly string[];
  readonly nodes: readonly {
    readonly element?: Element;
    readonly html: string;
    readonly failureSummary?: string;
  }[];
}

/** What checks whether each state can be used by everyone: the package axe-core, or it and the rules to leave out. */
export type Accessible = Axe | { readonly axe: Axe; readonly except: readonly string[] } | false;

/** A rule that is broken. */
export interface Violation {
  readonly rule: string;
  readonly help: string;
  readonly impact: string | undefined;
  /** The success criteria, as `4.1.2`. @see https://www.w3.org/TR/WCAG22/ */
  readonly criteria: readonly string[];
  readonly elements: readonly {
    readonly element: string;
    readonly html: string;
    readonly mend: readonly string[];
  }[];
}

// What a standard asks for, and not what a package recommends.
const standards = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
/** What nobody can know without a layout. */
const needingLayout = ['color-contrast', 'link-in-text-block', 'target-size', 'scrollable-region-focusable'];

/** It runs one at a time, whoever asks. */
const queue = once('accessible', () => ({ last: Promise.resolve() as Promise<unknown> }));

/** @throws SIM-OPTION-VALUE where the option cannot be used */
export function checkAccessible(given: unknown, calledAt: Error): void {
  const { axe, except } = readOption(given as Exclude<Accessible, false>);
  const wanted = "what the package axe-core exports: accessible: axe, or { axe, except: ['a-rule'] }";
  if (typeof (axe as Partial<Axe> | undefined)?.run !== 'function' || !Array.isArray(except))
    refuse('SIM-OPTION-VALUE', { option: 'accessible', value: given, wanted }, { calledAt });
  // Listing the rules takes time, and most name none.
  const known = except.length > 0 ? axe.getRules?.().map(({ ruleId }) => ruleId) : undefined;
  for (const rule of except) {
    if (!known || known.includes(rule)) continue;
    const near = known.find((one) => isSlip(rule, one)) ?? nearest(rule, known);
    const rules = `the name of a rule${near ? `; did you mean '${near}'?` : ''}`;
    refuse('SIM-OPTION-VALUE', { option: 'accessible.except', value: rule, wanted: rules }, { calledAt });
  }
}

function readOption(given: Exclude<Accessible, false>): {
  readonly axe: Axe;
  readonly except: readonly string[];
} {
  return 'axe' in Object(given)
    ? (given as { axe: Axe; except: string[] })
    : { axe: given as Axe, except: [] };
}

/**
 * Checks each state of a subject: what looks otherwise when it comes to rest.
 *
 * @returns what is to be called at rest
 */
export function watchAccess(stage: Stage, option: Exclude<Accessible, false>): () => Promise<void> {
  const { axe, except } = readOption(option);
  let seen = '';
  return async () => {
    const { roots } = stage.view();
    const now = roots.map(({ outerHTML }) => outerHTML).join('');
    if (now === seen || stage.environment.state !== 'up') return;
    seen = now;
    const checked = queue.last.then(() => violationsOf(stage, axe, roots, except));
    queue.last = checked.catch(() => undefined);
    const violations = await checked;
    if (violations.length === 0) return;
    const fields = { subject: stage.setting.name, violations: violations.map(factsOf) };
    refuse('SIM-ACCESS', fields, { chronicle: stage.chronicle });
  };
}

async function violationsOf(
  { environment }: Stage,
  axe: Axe,
  roots: readonly Element[],
  except: readonly string[],
): Promise<readonly Found[]> {
  const off = [...except, ...(isSimulated(document) ? needingLayout : [])];
  const rules = Object.fromEntries(off.map((rule) => [rule, { enabled: false }]));
  const runOnly = { type: 'tag', values: standards };
  // What it starts belongs to nobody, and it needs time that passes.
  const { clock } = pageTime;
  environment.isPreparing = true;
  pageTime.clock = undefined;
  try {
    // It fetches no style sheets, and keeps the elements to describe.
    const options = { runOnly, rules, preload: false, elementRef: true, resultTypes: ['violations'] };
    return (await axe.run({ include: roots }, options)).violations;
  } finally {
    pageTime.clock = clock;
    environment.isPreparing = false;
  }
}

const factsOf = ({ id, help, impact, tags, nodes }: Found): Violation => ({
  rule: id,
  help,
  impact: impact ?? undefined,
  criteria: tags.flatMap((tag) => {
    const [, one, two, three] = /^wcag(\d)(\d)(\d+)$/.exec(tag) ?? [];
    return one ? [`${one}.${two}.${three}`] : [];
  }),
  elements: nodes.map(({ element, html, failureSummary = '' }) => ({
    element: element ? describe(element) : html,
    html,
    // The first line says that any or all of the following is to be mended.
    mend: failureSummary.split('\n').flatMap((line) => (/^\s+\S/.test(line) ? [line.trim()] : [])),
  })),
});
