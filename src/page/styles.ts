import { parentOf } from './flat-tree';
import { onceFor } from './looking';

type Place = '' | '::before' | '::after';

/** What style sheets decide about how a person meets an element, by the name that CSS has for it. */
const decisive = {
  display: 'display',
  visibility: 'visibility',
  position: 'position',
  cssFloat: 'float',
  contentVisibility: 'content-visibility',
  content: 'content',
  pointerEvents: 'pointer-events',
} as const;

/** Of an element's style, what decides how a person meets it. An empty text is a property nobody set. */
export type Style = { readonly [property in keyof typeof decisive]: string };

/** One selector of a rule that sets something decisive. */
interface Rule {
  readonly selector: string;
  readonly place: Place;
  readonly style: CSSStyleDeclaration;
  readonly weight: number;
  readonly order: number;
}

/** The rules of one document by an id, class or tag of the elements they can match. */
interface Sheets {
  /** Each rule as it was read, and how many properties it had. */
  readonly read: readonly CSSStyleRule[];
  readonly lengths: readonly number[];
  readonly byKey: ReadonlyMap<string, readonly Rule[]>;
}

/** True where the style sheets of a document decide how elements are met. */
export const hasStyles = (document: Document): boolean =>
  onceFor(
    'has styles',
    document,
    () => document.styleSheets.length > 0 && (!isSimulated(document) || sheetsOf(document).byKey.size > 0),
  );

/** The style of an element or its pseudo-element. Undefined if nothing sets it. */
export function styleOf(element: Element, place: Place = ''): Style | undefined {
  const { ownerDocument } = element;
  // In this order: a simulated page takes longest to know whether an element is on it.
  if (ownerDocument.defaultView && hasStyles(ownerDocument) && element.isConnected)
    return isSimulated(ownerDocument)
      ? onceFor(`style${place}`, element, (one) => cascade(one, place))
      : ownerDocument.defaultView.getComputedStyle(element, place);
  return place === '' && element.hasAttribute('style') ? ownStyleOf(element) : undefined;
}

/** True where no style of its own or of what is around it decides how an element is met. */
export const isUnstyled = (element: Element): boolean =>
  !hasStyles(element.ownerDocument) && onceFor('unstyled', element, isWithoutStyle);

function isWithoutStyle(element: Element): boolean {
  for (let at: Element | null = element; at; at = parentOf(at)) if (at.hasAttribute('style')) return false;
  return true;
}

const ownStyleOf = (element: Element): Style => ({
  ...readStyle((element as HTMLElement).style),
  // A simulated page does not support this property.
  contentVisibility: /content-visibility:\s*(\w+)/.exec(element.getAttribute('style') ?? '')?.[1] ?? '',
});

const readStyle = (style: CSSStyleDeclaration): Style =>
  Object.fromEntries(
    Object.entries(decisive).map(([property, name]) => [property, style.getPropertyValue(name)]),
  ) as Style;

// A simulated page takes very long to compute the style of one element when it has many rules, computes none
// for pseudo-elements, and knows no specificity. So the few rules that matter are read here.
export const isSimulated = ({ defaultView }: Document): boolean =>
  typeof (defaultView as unknown as typeof globalThis | null)?.CSSStyleSheet?.prototype.replaceSync !==
  'function';

/** @see https://www.w3.org/TR/css-cascade-4/#cascading */
function cascade(element: Element, place: Place): Style | undefined {
  const rules = matchingRules(element, place);
  const own = place === '' && element.hasAttribute('style') ? ownStyleOf(element) : undefined;
  if (rules.length === 0) return own;
  const style = Object.entries(decisive).map(([property, name]) => {
    const set = rules.filter((rule) => rule.style.getPropertyValue(name) !== '');
    const important = set.filter((rule) => rule.style.getPropertyPriority(name) !== '');
    const value =
      important[important.length - 1]?.style.getPropertyValue(name) ??
      (own?.[property as keyof Style] || set[set.length - 1]?.style.getPropertyValue(name));
    return [property, value === undefined || /^(unset|initial|revert)/.test(value) ? '' : value];
  });
  return Object.fromEntries(style) as Style;
}

/** The rules that match an element, the one that decides last. */
function matchingRules(element: Element, place: Place): Rule[] {
  const { byKey } = sheetsOf(element.ownerDocument);
  const keys = ['', element.localName, ...[...element.classList].map((name) => `.${name}`)];
  if (element.id) keys.push(`#${element.id}`);
  return keys
    .flatMap((key) => byKey.get(key) ?? [])
    .filter((rule) => rule.place === place && matches(element, rule.selector))
    .sort((one, other) => one.weight - other.weight || one.order - other.order);
}

function matches(element: Element, selector: string): boolean {
  try {
    return element.matches(selector);
  } catch {
    return false;
  }
}

const readSheets = new WeakMap<Document, Sheets>();

const sheetsOf = (document: Document): Sheets =>
  onceFor('sheets', document, () => {
    const rules = [...document.styleSheets].flatMap((sheet) => rulesIn(sheet.cssRules));
    const before = readSheets.get(document);
    if (before && isSame(before, rules)) return before;
    const sheets = {
      read: rules,
      lengths: rules.map(({ style }) => style.length),
      byKey: indexed(rules.flatMap(readRule)),
    };
    readSheets.set(document, sheets);
    return sheets;
  });

const isSame = ({ read, lengths }: Sheets, rules: readonly CSSStyleRule[]): boolean =>
  read.length === rules.length &&
  rules.every((rule, at) => rule === read[at] && rule.style.length === lengths[at]);

/** The style rules of a list, and those inside of what holds for a screen or forms a layer. */
function rulesIn(list: CSSRuleList): CSSStyleRule[] {
  const rules: CSSStyleRule[] = [];
  for (const rule of list) {
    const { selectorText, cssRules, media, conditionText } = rule as CSSStyleRule & CSSMediaRule;
    if (selectorText) rules.push(rule as CSSStyleRule);
    else if (cssRules && (media ? isForScreen(media) : !conditionText)) rules.push(...rulesIn(cssRules));
  }
  return rules;
}

const isForScreen = (media: MediaList): boolean => /^(screen|all)?$/.test(media.mediaText.trim());

/** The selectors of a rule, each as a rule of its own. */
function readRule({ selectorText, style }: CSSStyleRule, order: number): Rule[] {
  if (!Object.values(decisive).some((name) => style.getPropertyValue(name) !== '')) return [];
  return selectorText.split(/,(?![^([]*[)\]])/).flatMap((one) => {
    const [, before = '', place = ''] = /^(.*?)(?:::?(before|after))?\s*$/s.exec(one.trim()) ?? [];
    // Rules for other pseudo-elements match no element.
    if (before.includes('::')) return [];
    const selector = lowerTags(before) || '*';
    return [{ selector, place: place ? (`::${place}` as Place) : '', style, weight: weigh(selector), order }];
  });
}

// A simulated page does not match tags in capitals. Selectors with brackets stay as they are, since brackets
// may contain text.
const lowerTags = (selector: string): string =>
  selector.includes('[')
    ? selector
    : selector.replace(/(?<=^|[\s>+~(])[A-Z][A-Z\d]*(?![\w-])/g, (tag) => tag.toLowerCase());

function indexed(rules: readonly Rule[]): Map<string, Rule[]> {
  const byKey = new Map<string, Rule[]>();
  for (const rule of rules) {
    const key = keyOf(rule.selector);
    const same = byKey.get(key);
    if (same) same.push(rule);
    else byKey.set(key, [rule]);
  }
  return byKey;
}

const name = String.raw`(?:[\w-]|[^\0-\x7f]|\\[^\n\da-f])+`;
const keys = [`#${name}`, String.raw`\.${name}`, `^${name}`].map((one) => new RegExp(one, 'i'));

/** An id, class or tag that each element has that a selector matches. Empty where none is found. */
function keyOf(selector: string): string {
  let bare = selector;
  for (let before = ''; before !== bare;) {
    before = bare;
    bare = bare.replace(/\([^()]*\)|\[[^\]]*\]/g, '');
  }
  const last = /(?:\\.|[^\s>+~\\])*$/.exec(bare)?.[0] ?? '';
  if (/\\[\da-f]/i.test(last)) return '';
  const key = keys.map((one) => one.exec(last)?.[0]).find((found) => found !== undefined) ?? '';
  return /^[#.]/.test(key) ? key.replaceAll('\\', '') : key.toLowerCase();
}

/** How specific a selector is, in one number. @see https://www.w3.org/TR/selectors-4/#specificity-rules */
const weigh = (selector: string): number =>
  10_000 * count(selector, /#[\w-]+/g) +
  100 * count(selector, /\.[\w-]+|\[[^\]]*\]|(?<!:):(?!:|not|is|where|has)[\w-]+/g) +
  count(selector, /(?:^|[\s>+~(])[a-z][\w-]*/gi);

const count = (text: string, what: RegExp): number => text.match(what)?.length ?? 0;
