/** Takes one item out of a list; a list that does not have it stays as it is. */
export function drop<T>(list: T[], item: T): void {
  const at = list.indexOf(item);
  if (at >= 0) list.splice(at, 1);
}
