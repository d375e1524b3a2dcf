import type { Draft } from '../model';
import { wrapperNamed } from '../packages';
import type { Known } from '../plan';
import { type Value, constant } from '../value';
import { addProps } from './given';
import { type Mended, addWrapper } from './mended';
import { addProvider } from './provide';

interface Logged {
  readonly text: string;
  readonly from?: string;
}

export function mendLogs(known: Known, draft: Draft, logs: unknown): Mended | undefined {
  const { given, framework } = draft;
  for (const { text: said } of (logs as readonly Logged[] | undefined) ?? []) {
    const unresolved = /Failed to resolve component: ([\w-]+)/.exec(said)?.[1];
    const wrapper = unresolved === undefined ? undefined : wrapperNamed(unresolved, framework);
    if (wrapper) return addWrapper(given, wrapper, unresolved!);
    const injection = /injection "([^"]+)" not found/.exec(said)?.[1];
    if (injection !== undefined) {
      const token = injection.replace(/^Symbol\((.*)\)$/, '$1');
      const mended = addProvider(known, draft, {
        code: 'SIM-PROVIDE-MISSING',
        message: said,
        fields: { token },
      });
      if (mended) return mended;
    }
    const missing = /Missing required prop: "([^"]+)"/.exec(said)?.[1];
    if (missing !== undefined) return addProps(known, given, [missing]);
    const nested =
      /<(tr|td|th|tbody|thead|li|option|dt|dd)> cannot (?:be a child|appear as a child) of <div>/.exec(
        said,
      )?.[1] ?? /In HTML, <(tr|td|th|tbody|thead|option)>/.exec(said)?.[1];
    if (nested !== undefined && framework === 'react')
      return addWrapper(given, nestIn(nested), `<${nested}>'s place`);
  }
  return undefined;
}

/** What an element has to stand in. */
function nestIn(tag: string): Value {
  const around: Readonly<Record<string, string>> = {
    tr: '<table><tbody>{children}</tbody></table>',
    td: '<table><tbody><tr>{children}</tr></tbody></table>',
    th: '<table><tbody><tr>{children}</tr></tbody></table>',
    tbody: '<table>{children}</table>',
    thead: '<table>{children}</table>',
    option: '<select>{children}</select>',
    li: '<ul>{children}</ul>',
    dt: '<dl>{children}</dl>',
    dd: '<dl>{children}</dl>',
  };
  return constant('Around', `({ children }: { children?: ReactNode }) => (${around[tag]})`, {
    name: 'ReactNode',
    from: 'react',
    isType: true,
  });
}
