import { styleOf } from './styles';

/**
 * The text that style sheets add before or after the content of an element.
 *
 * @see https://www.w3.org/TR/css-content-3/#alt
 */
export function generatedText(element: Element, place: '::before' | '::after'): string {
  const style = styleOf(element, place);
  if (!style || style.display === 'none') return '';
  const { text, isSaid } = readContent(style.content, element);
  return text !== '' && (isSaid || /^(block|flex|grid|table|inline-\w+)$/.test(style.display))
    ? ` ${text} `
    : text;
}

/** The text of a `content`: what follows a slash is said in its place. */
function readContent(content: string, element: Element): { text: string; isSaid: boolean } {
  if (!content || content === 'none' || content === 'normal') return { text: '', isSaid: false };
  const [shown = '', said] = splitAt(content);
  const text = (said ?? shown).replace(
    /"((?:\\.|[^"\\])*)"|'((?:\\.|[^'\\])*)'|attr\(\s*([\w-]+)\s*\)|[^"']+?/gs,
    (_, double?: string, single?: string, attribute?: string) =>
      attribute ? (element.getAttribute(attribute) ?? '') : unescape(double ?? single ?? ''),
  );
  return { text, isSaid: said !== undefined };
}

// Splits at a slash outside of strings.
function splitAt(content: string): string[] {
  const at = /^(?:[^"'/]|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')*\//s.exec(content)?.[0].length;
  return at === undefined ? [content] : [content.slice(0, at - 1), content.slice(at)];
}

const unescape = (text: string): string =>
  text.replace(/\\(?:([0-9a-f]{1,6})\s?|(.))/gis, (_, code?: string, other?: string) =>
    code ? String.fromCodePoint(parseInt(code, 16)) : (other ?? ''),
  );
