import { Parser } from 'htmlparser2';

/** One element of a template, as it is written. */
export interface Tag {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** Where it begins in the text. */
  readonly start: number;
}

/** What a template is made of, in the order it is written. */
export interface Markup {
  readonly tags: readonly Tag[];
  readonly texts: readonly { readonly text: string; readonly start: number }[];
}

/** Reads a template: its elements, and the text between them. Lenient, as browsers and compilers are. */
export function readMarkup(html: string): Markup {
  const tags: Tag[] = [];
  const texts: { text: string; start: number }[] = [];
  const parser = new Parser(
    {
      onopentag: (name, attributes) => tags.push({ name, attributes, start: parser.startIndex }),
      ontext: (text) => texts.push({ text, start: parser.startIndex }),
    },
    {
      ...{ lowerCaseTags: false, lowerCaseAttributeNames: false },
      ...{ recognizeSelfClosing: true, decodeEntities: false, recognizeCDATA: true },
    },
  );
  parser.end(html);
  return { tags, texts };
}

/** The names that an expression of a template reads, without what is in quotes and what follows a dot. */
export function namesRead(expression: string): string[] {
  const bare = expression.replace(/'(?:[^'\\]|\\.)*'|"(?:[^"\\]|\\.)*"/g, '""');
  return [...bare.matchAll(/(?<![\w$.])[A-Za-z_$][\w$]*/g)].map(([name]) => name);
}

/** What stands between double braces. */
export const interpolated = (text: string): string[] =>
  [...text.matchAll(/\{\{([^]*?)\}\}/g)].map(([, inside]) => inside!);
