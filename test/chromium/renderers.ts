import { readdirSync, readFileSync } from 'node:fs';

/** The processes for pages of the browsers that a process started. */
export function renderersBelow(root: number): number[] {
  const read = (id: string, file: string) => {
    try {
      return readFileSync(`/proc/${id}/${file}`, 'utf8');
    } catch {
      return '';
    }
  };
  const parentOf = (id: string) => /\) \S (\d+)/.exec(read(id, 'stat'))?.[1];
  const isBelow = (id: string | undefined): boolean =>
    id !== undefined && id !== '0' && (id === String(root) || isBelow(parentOf(id)));
  return readdirSync('/proc')
    .filter((id) => /^\d+$/.test(id) && read(id, 'cmdline').includes('--type=renderer') && isBelow(id))
    .map(Number);
}
