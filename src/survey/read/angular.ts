import type { Template } from '../facts';
import { interpolated, readMarkup } from './markup';

/** Reads the template of an Angular component: what its selectors and pipes can match. */
export function readAngularTemplate(html: string, firstLine: number): Template {
  const { tags, texts } = readMarkup(html);
  const lineAt = (offset: number) => firstLine + html.slice(0, offset).split('\n').length - 1;
  const pipes = new Set<string>();
  const bound = tags.flatMap(({ attributes }) => Object.values(attributes));
  const written = texts.map(({ text }) => text);
  for (const expression of [...bound, ...written.flatMap(interpolated), ...blocksIn(written)])
    // A pipe follows one bar, not two.
    for (const [, name] of expression.matchAll(/(?<!\|)\|\s*([A-Za-z]\w*)/g)) pipes.add(name!);
  return {
    tags: tags.map(({ name, attributes, start }) => ({
      ...{ name, attributes: Object.keys(attributes).map(bareName), line: lineAt(start) },
    })),
    pipes: [...pipes],
    deferred: deferredIn(html),
    slots: tags
      .filter(({ name }) => name === 'ng-content')
      .map(({ attributes }) => attributes['select'] ?? 'default'),
  };
}

/** `hive` of `[hive]`, `(hive)`, `[(hive)]` and `*hive`. */
const bareName = (attribute: string): string => attribute.replace(/^\*|[[\]()]/g, '').split('.')[0]!;

/** What stands in the head of a block: `@if (hives() | async; as hives)`. */
const blocksIn = (texts: readonly string[]): string[] =>
  texts.flatMap((text) => [...text.matchAll(/@\w+(?: if)?\s*\(([^{]*)\)\s*\{/g)].map(([, head]) => head!));

/** The names of the elements that a `@defer` block brings about later. */
function deferredIn(html: string): string[] {
  return [...html.matchAll(/@defer\b[^{]*\{/g)].flatMap(({ index, 0: head }) => {
    let depth = 1;
    let end = index + head.length;
    while (end < html.length && depth > 0) {
      if (html[end] === '{') depth++;
      if (html[end] === '}') depth--;
      end++;
    }
    return [...html.slice(index, end).matchAll(/<([a-z][\w-]*)/g)].map(([, name]) => name!);
  });
}
