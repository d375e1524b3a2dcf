import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Slot } from '../browser/slot';
import type { AccessibilityProblem } from './model';

/* Problems of accessibility, as axe-core finds them where a project has it. */

/** The code of axe-core; undefined where a project has none. */
export async function readAxe(root: string): Promise<string | undefined> {
  try {
    return await readFile(createRequire(join(root, 'package.json')).resolve('axe-core/axe.min.js'), 'utf8');
  } catch {
    return undefined;
  }
}

// A component alone is no whole page: it need not have a title, landmarks or a first heading.
const ofWholePages = ['document-title', 'html-has-lang', 'bypass', 'page-has-heading-one', 'region'];
const standards = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
const how = JSON.stringify({
  runOnly: standards,
  resultTypes: ['violations'],
  rules: Object.fromEntries(ofWholePages.map((rule) => [rule, { enabled: false }])),
});

interface Violation {
  readonly id: string;
  readonly impact: string | null | undefined;
  readonly help: string;
  readonly places: readonly string[];
}

/** Looks at a page that axe-core was put beside. */
export async function audit(
  slot: Slot,
  who: string,
  limit: number,
): Promise<readonly AccessibilityProblem[]> {
  const found = await slot.evaluateBeside<Violation[]>(
    `axe.run(document, ${how}).then(({ violations }) => violations.map(({ id, impact, help, nodes }) => ({
      id, impact, help, places: nodes.slice(0, 5).map(({ html }) => html.slice(0, 200)) })))`,
    who,
    limit,
  );
  return found.map(({ id, impact, help, places }) => ({
    rule: id,
    impact: impact ?? 'unknown',
    help,
    places,
  }));
}
