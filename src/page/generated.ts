import { hasStyles, onceFor } from './looking';

type Place = '::before' | '::after';

/** A rule of a style sheet that puts something before or after elements. */
interface Rule {
  readonly selector: string;
  readonly place: Place;
  readonly style: CSSStyleDeclaration;
  readonly weight: number;
}

/**
 * What style sheets put before or after the content of an element.
 *
 * @see https://www.w3.org/TR/css-content-3/#alt
 */
export function generatedText(element: Element, place: Place): string {
  const { ownerDocument } = element;
  if (!hasStyles(ownerDocument) || !element.isConnected) return '';
  const style = hasComputedPseudos(ownerDocument)
    ? ownerDocument.defaultView!.getComputedStyle(element, place)
    : ruleFor(element, place);
  if (!style || style.display === 'none') return '';
  const { text, isSaid } = readContent(style.content, element);
  return text !== '' && (isSaid || /^(block|flex|grid|table|inline-\w+)$/.test(style.display))
    ? ` ${text} `
    : text;
}

// A simulated page computes no styles of pseudo-elements, and says so each time it is asked.
const hasComputedPseudos = ({ defaultView }: Document): boolean =>
  typeof (defaultView as unknown as typeof globalThis).CSSStyleSheet?.prototype.replaceSync === 'function';

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

// At a slash that stands in no string.
function splitAt(content: string): string[] {
  const at = /^(?:[^"'/]|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')*\//s.exec(content)?.[0].length;
  return at === undefined ? [content] : [content.slice(0, at - 1), content.slice(at)];
}

const unescape = (text: string): string =>
  text.replace(/\\(?:([0-9a-f]{1,6})\s?|(.))/gis, (_, code?: string, other?: string) =>
    code ? String.fromCodePoint(parseInt(code, 16)) : (other ?? ''),
  );

/** The rule that decides, of those that fit an element. */
function ruleFor(element: Element, place: Place): CSSStyleDeclaration | undefined {
  let found: Rule | undefined;
  const { documentElement } = element.ownerDocument;
  for (const rule of onceFor('generated', documentElement, readRules))
    if (rule.place === place && (!found || rule.weight >= found.weight) && fits(element, rule.selector))
      found = rule;
  return found?.style;
}

function fits(element: Element, selector: string): boolean {
  try {
    return element.matches(selector);
  } catch {
    return false;
  }
}

const readRules = (root: Element): Rule[] =>
  [...root.ownerDocument.styleSheets].flatMap((sheet) => rulesIn(sheet.cssRules));

const rulesIn = (rules: CSSRuleList): Rule[] =>
  [...rules].flatMap((rule) => {
    const { selectorText, style } = rule as CSSStyleRule;
    if (!selectorText) return [];
    // A list of selectors counts as one rule each.
    return selectorText.split(/,(?![^([]*[)\]])/).flatMap((selector) => {
      const [, before = '', place] = /^(.*?)::?(before|after)\s*$/s.exec(selector.trim()) ?? [];
      return place && style.content
        ? [{ selector: before || '*', place: `::${place}` as Place, style, weight: weigh(before) }]
        : [];
    });
  });

/** How specific a selector is, in one number. @see https://www.w3.org/TR/selectors-4/#specificity-rules */
const weigh = (selector: string): number =>
  10_000 * count(selector, /#[\w-]+/g) +
  100 * count(selector, /\.[\w-]+|\[[^\]]*\]|(?<!:):(?!:)[\w-]+/g) +
  count(selector, /(?:^|[\s>+~])[a-z][\w-]*/gi);

const count = (text: string, what: RegExp): number => text.match(what)?.length ?? 0;
