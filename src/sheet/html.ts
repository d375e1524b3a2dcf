import { readFileSync } from 'node:fs';
import type { Sheet } from './model';

const beside = (file: string) => readFileSync(new URL(file, import.meta.url), 'utf8');

// A text within a script element ends where its end tag does, whatever the text means.
export const scriptData = (value: unknown): string => JSON.stringify(value).replaceAll('<', '\\u003c');

// The page loads nothing and sends nothing.
const policy =
  "default-src 'none'; img-src data: 'self'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; connect-src 'self'; frame-src http://localhost:*";

/** What else a page is given. */
export interface PageMatter {
  /** The bytes of a picture, in base64; without it they are asked for by their files' names. */
  readonly read?: (file: string) => Promise<string>;
  /** Where a state can be opened to be tried, by project: only while it is being watched. */
  readonly live?: Readonly<Record<string, string>>;
}

/** The page of a sheet, which opens without a server. */
export async function printSheetHtml(sheet: Sheet, { read, live }: PageMatter = {}): Promise<string> {
  const pictures: string[] = [];
  if (read)
    for (const file of new Set(picturesOf(sheet)))
      pictures.push(
        `<script type="image/png" data-file="${file.replace(/[&"]/g, '-')}">${await read(file)}</script>`,
      );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>States</title>
<link rel="icon" href="data:,">
<style>${beside('./sheet.css')}</style>
</head>
<body>
<noscript>This page needs JavaScript to show its pictures, which are also in the folder beside it.</noscript>
<script type="application/json" id="sheet">${scriptData(sheet)}</script>
${live ? `<script type="application/json" id="live">${scriptData(live)}</script>` : ''}
${pictures.join('\n')}
<script type="module">${beside('./sheet-page.js').replaceAll('</script', '<\\/script')}</script>
</body>
</html>
`;
}

const picturesOf = ({ components }: Sheet): string[] =>
  components
    .flatMap(({ states }) => states.flatMap(({ views }) => views))
    .flatMap(({ picture, comparison }) =>
      [picture, comparison?.accepted, comparison?.difference].filter((file) => file !== undefined),
    );
