import type { ServedProject } from '../browser/project';
import { scriptData } from './html';

/** What a page is given so that a person can try a state on it. */
export interface Trying {
  /** The module that brings a state about for a person. */
  readonly module: string;
  /** The files that declare states, by the names they are asked for. */
  readonly files: ReadonlyMap<string, string>;
  readonly load: readonly string[];
  /** Where the page hears that a file was saved. */
  readonly events: string;
}

// A page shows only what the project itself declares, whatever its address asks for.
const script = ({ module, files, load, events }: Trying, urlOf: ServedProject['urlOf']): string => `
<script type="module">
const asked = new URLSearchParams(location.search);
const files = ${scriptData(Object.fromEntries([...files].map(([name, file]) => [name, urlOf(file)])))};
const file = asked.get('file');
if (file !== null && Object.hasOwn(files, file)) {
  const address = location.href;
  history.replaceState(null, '', '/');
  new EventSource(${JSON.stringify(events)}).onmessage = ({ data }) => {
    if (JSON.parse(data).saved?.includes(file)) location.replace(address);
  };
  ${load.map((one) => `await import(${JSON.stringify(urlOf(one))});`).join('\n  ')}
  const [{ tryState }, { default: given }] = await Promise.all([import(${JSON.stringify(urlOf(module))}), import(files[file])]);
  await tryState(given, file, asked.get('state'));
}
</script>`;

/** The page that states come about on. */
export const printStageHtml = (urlOf: ServedProject['urlOf'], trying?: Trying): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Stage</title>
<link rel="icon" href="data:,">
<style>body { margin: 16px !important; }${trying ? '' : ' * { caret-color: transparent !important; }'}</style>
</head>
<body></body>${trying ? script(trying, urlOf) : ''}
</html>
`;
