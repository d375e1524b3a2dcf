import { readFileSync } from 'node:fs';
import type { Draft } from '../model';
import { wrapperNamed } from '../packages';
import type { Known } from '../plan';
import type { LogSeen } from '../run/observed';
import { type Value, constant, text } from '../value';
import { addNamedIn, addOptional, addProps, dropProp } from './given';
import { type Mended, addWrapper, setMore } from './mended';
import { addProvider } from './provide';

export function mendLogs(
  known: Known,
  draft: Draft,
  logs: unknown,
  tried: ReadonlySet<string>,
): Mended | undefined {
  const all = (logs as readonly LogSeen[] | undefined) ?? [];
  for (const { text: said } of all) {
    const mended = mendLog(known, draft, said);
    if (mended) return mended;
  }
  const ways = [
    ...all.map(({ text: said }) => addNamedIn(known, draft.given, said)),
    addOptional(known, draft),
  ];
  const guess = ways.find((mended) => mended && !tried.has(mended.done));
  return guess ? { ...guess, isGuess: true } : expectOwn(known, draft, all);
}

function mendLog(known: Known, draft: Draft, said: string): Mended | undefined {
  const { given, framework } = draft;
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
  const refused = /custom validator check failed for prop "([^"]+)"/.exec(said)?.[1];
  if (refused !== undefined && given.props.has(refused)) return dropProp(given, refused);
  const missing = /Missing required prop: "([^"]+)"/.exec(said)?.[1];
  if (missing !== undefined) return addProps(known, given, [missing]);
  const nested =
    /<(tr|td|th|tbody|thead|li|option|dt|dd)> cannot (?:be a child|appear as a child) of <div>/.exec(
      said,
    )?.[1] ?? /In HTML, <(tr|td|th|tbody|thead|option)>/.exec(said)?.[1];
  if (nested !== undefined && framework === 'react')
    return addWrapper(given, nestIn(nested), `<${nested}>'s place`);
  if (/instead of setting children on <\w+>/.test(said)) return dropProp(given, 'children');
  const holder = /text nodes cannot (?:be|appear as) a child of <(\w+)>/i.exec(said)?.[1] ?? '';
  const inside = Object.hasOwn(contents, holder) ? contents[holder] : undefined;
  if (!inside || framework !== 'react' || !given.props.has('children')) return undefined;
  const props = new Map(given.props).set('children', contentOf(inside));
  return { given: { ...given, props }, done: `gave it children that <${holder}> may have` };
}

/** Expects the warnings that the component's own source writes, whatever it is given. */
function expectOwn(known: Known, { given }: Draft, logs: readonly LogSeen[]): Mended | undefined {
  const source = readFileSync(known.survey.subject.file, 'utf8');
  const own = logs.map(({ level, text: said }) => {
    const words = said.split('\n')[0]!.trim();
    return level === 'warn' && words.length > 8 && source.includes(words) ? words : undefined;
  });
  if (own.length === 0 || own.includes(undefined)) return undefined;
  const items = [...new Set(own)].map((words) => text(words!, true));
  return setMore(given, 'logs', { kind: 'list', items }, 'expected its own warning');
}

/** What an element has inside that holds no text. */
const contents: Readonly<Record<string, readonly [before: string, after: string]>> = {
  table: ['<tbody><tr><td>', '</td></tr></tbody>'],
  tbody: ['<tr><td>', '</td></tr>'],
  thead: ['<tr><th>', '</th></tr>'],
  tfoot: ['<tr><td>', '</td></tr>'],
  tr: ['<td>', '</td>'],
  select: ['<option>', '</option>'],
};

const contentOf = ([before, after]: readonly [string, string]): Value => ({
  kind: 'code',
  code: `${before}Content${after}`,
  varied: `${before}Other content${after}`,
});

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
