/**
 * The number of letters to change, add, drop or swap with a neighbour to get from one word to the other.
 *
 * @param most where it is more than this, any number above it will do
 */
export function distance(a: string, b: string, most = Infinity): number {
  let same = 0;
  while (same < a.length && a[same] === b[same]) same++;
  let end = 0;
  while (end < Math.min(a.length, b.length) - same && a.at(-1 - end) === b.at(-1 - end)) end++;
  return distanceApart(a.slice(same, a.length - end), b.slice(same, b.length - end), most);
}

function distanceApart(a: string, b: string, most: number): number {
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, column) => column);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1];
      let best = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (same ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) {
        best = Math.min(best, before[j - 2]! + 1);
      }
      next.push(best);
    }
    if (i > 1 && Math.min(...next) > most && Math.min(...row) > most) return most + 1;
    before = row;
    row = next;
  }
  return row[b.length]!;
}

/**
 * The candidate a person most likely meant, or undefined if none is close. A candidate that differs only in
 * capitals is the closest.
 */
export function nearest<T>(
  wanted: string,
  candidates: Iterable<T>,
  read: (candidate: T) => string = String,
): T | undefined {
  const low = wanted.toLowerCase();
  const most = Math.max(2, Math.floor(low.length / 3));
  let best: T | undefined;
  let least = Infinity;
  for (const candidate of candidates) {
    const other = read(candidate).toLowerCase();
    // A long text that merely contains the words is not what a person meant.
    if (other.length > low.length * 4 + 60) continue;
    const isFar = Math.abs(other.length - low.length) > most;
    const far = other === low ? 0 : isFar ? Infinity : distance(low, other, Math.min(most, least));
    const contained = far > 0 && (other.includes(low) || low.includes(other)) && other.length > 2;
    const score = contained ? Math.min(far, 2) : far;
    if (score < least && (contained || far <= most)) {
      least = score;
      best = candidate;
      if (score === 0) break;
    }
  }
  return best;
}

/** True for a slip of the finger: other capitals, or one letter off. */
export const isSlip = (wanted: string, other: string): boolean =>
  wanted !== other &&
  (wanted.toLowerCase() === other.toLowerCase() || (wanted.length > 3 && distance(wanted, other) === 1));
