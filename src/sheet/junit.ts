import type { Failed, Sheet, SheetComponent } from './model';

/**
 * The sheet as a report that CI servers read: a suite for each component, a test for each of its states on each
 * screen.
 *
 * @see https://github.com/testmoapp/junitxml
 */
export function printJUnit({ components, milliseconds }: Sheet): string {
  const suites = components.map(suiteOf);
  const sum = (key: 'tests' | 'failures') => suites.reduce((all, suite) => all + suite[key], 0);
  return `<?xml version="1.0" encoding="UTF-8"?>
<testsuites name="states" tests="${sum('tests')}" failures="${sum('failures')}" time="${seconds(milliseconds)}">
${suites.map(({ xml }) => xml).join('\n')}
</testsuites>
`;
}

interface Case {
  readonly name: string;
  readonly milliseconds: number | undefined;
  readonly line: number | undefined;
  readonly failures: readonly Failed[];
}

function suiteOf({ component, file, states, failures }: SheetComponent) {
  const ofStates = states.flatMap(({ name, line, milliseconds, views }) =>
    views.map(({ width, scheme, failure }): Case => ({
      ...{ name: `${name} (${width}, ${scheme})`, milliseconds, line, failures: failure ? [failure] : [] },
    })),
  );
  const asWhole: Case = { name: 'all states', milliseconds: undefined, line: undefined, failures };
  const cases = failures.length > 0 || states.length === 0 ? [...ofStates, asWhole] : ofStates;
  const wrong = cases.filter((one) => one.failures.length > 0).length;
  const time = cases.reduce((all, one) => all + (one.milliseconds ?? 0), 0);
  const xml = `  <testsuite name="${escaped(component)}" file="${escaped(file)}" tests="${cases.length}" failures="${wrong}" time="${seconds(time)}">
${cases.map((one) => printCase(one, component, file)).join('\n')}
  </testsuite>`;
  return { tests: cases.length, failures: wrong, xml };
}

function printCase(
  { name, milliseconds = 0, line, failures }: Case,
  component: string,
  file: string,
): string {
  const at = `file="${escaped(file)}"${line === undefined ? '' : ` line="${line}"`}`;
  const head = `    <testcase name="${escaped(name)}" classname="${escaped(component)}" ${at} time="${seconds(milliseconds)}"`;
  if (failures.length === 0) return `${head}/>`;
  const told = failures.map(
    ({ code = 'Error', message }) =>
      `      <failure type="${escaped(code)}" message="${escaped(message.split('\n')[0]!)}">${escaped(message)}</failure>`,
  );
  return `${head}>\n${told.join('\n')}\n    </testcase>`;
}

const seconds = (milliseconds: number): string => (milliseconds / 1000).toFixed(3);

// What XML 1.0 has no place for at all is left out.
const noText = /[\p{Cc}\p{Cs}\ufffe\uffff]/gu;
const escaped = (text: string): string =>
  text
    .replace(noText, (sign) => (/[\t\n\r]/.test(sign) ? sign : ''))
    .replace(/[&<>"]/g, (sign) => `&${{ '&': 'amp', '<': 'lt', '>': 'gt', '"': 'quot' }[sign]};`);
