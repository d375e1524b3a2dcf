import { relative } from 'node:path';
import { isError } from '../core/is-error';
import type { ServedProject } from './project';

/**
 * Why some files could not be loaded into a page. The browser itself only says that they could not, so the
 * server is asked for each module in turn.
 */
export async function complaintOf(
  { server, root, urlOf }: ServedProject,
  files: readonly string[],
  failure: unknown,
): Promise<string> {
  const asked = new Set<string>();
  const next = files.map(urlOf);
  for (let url = next.shift(); url !== undefined && asked.size < 500; url = next.shift()) {
    if (asked.has(url)) continue;
    asked.add(url);
    try {
      await server.transformRequest(url);
    } catch (problem) {
      return wordTransform(problem, root);
    }
    const module = await server.moduleGraph.getModuleByUrl(url);
    for (const imported of module?.importedModules ?? [])
      if (!imported.url.includes('/node_modules/')) next.push(imported.url);
  }
  const { fields } = failure as { fields?: { threw?: string } };
  const message = fields?.threw ?? (isError(failure) ? failure.message : String(failure));
  return message.split('\n    at ')[0]!;
}

function wordTransform(problem: unknown, root: string): string {
  const { message, loc, frame } = problem as Error & {
    loc?: { file?: string; line: number; column: number };
    frame?: string;
  };
  // eslint-disable-next-line no-control-regex -- the colours of a terminal
  const plain = (text: string) => text.replace(/\u001b\[\d+m/g, '').trimEnd();
  const at = loc?.file ? ` (${relative(root, loc.file)}:${loc.line}:${loc.column})` : '';
  const told = plain(message)
    .split('\n')
    .filter((line) => line.trim());
  // What has a frame of its own needs no second one.
  const words = frame ? told.slice(0, 1) : told.slice(0, 10);
  return `${words.join('\n')}${at}${frame ? `\n${plain(frame)}` : ''}`;
}
