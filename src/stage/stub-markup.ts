import { printProps } from './outline';

// Tables and lists allow only certain tags. The stub uses one of them, so that the markup stays valid.
const fitting: Record<string, string> = {
  table: 'tbody',
  thead: 'tr',
  tbody: 'tr',
  tfoot: 'tr',
  tr: 'td',
  ul: 'li',
  ol: 'li',
  menu: 'li',
  colgroup: 'col',
  select: 'option',
  optgroup: 'option',
  datalist: 'option',
  svg: 'g',
  dl: 'div',
};

/** The element a default stub is, by what it is put into. */
export const tagIn = (parent: string | undefined): string => fitting[parent ?? ''] ?? 'sim-part';

/** True for an element that nothing can be put into. */
export const isVoid = (tag: string): boolean => tag === 'col';

/** What a default stub says of itself. */
export const stubAttributes = (name: string, props: object) => ({
  'data-part': name,
  'data-props': printProps(props) || undefined,
});
