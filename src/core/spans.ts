const units: Readonly<Record<string, number>> = {
  ms: 1,
  s: 1000,
  sec: 1000,
  min: 60_000,
  m: 60_000,
  h: 3_600_000,
  d: 86_400_000,
};

/**
 * Reads a span of time: milliseconds, or a text such as `'4s'`, `'250ms'`, `'1h 30min'`.
 *
 * @returns milliseconds; undefined for what is none
 */
export function readSpan(span: unknown): number | undefined {
  if (typeof span === 'number') return Number.isFinite(span) && span >= 0 ? span : undefined;
  if (typeof span !== 'string') return undefined;
  const parts = [...span.matchAll(/([\d.]+)\s*([a-z]+)\s*/gi)];
  if (parts.length === 0 || parts.map(([whole]) => whole).join('') !== span.trimStart()) return undefined;
  let sum = 0;
  for (const [, amount, unit] of parts) {
    const size = units[unit!];
    if (size === undefined || Number.isNaN(Number(amount))) return undefined;
    sum += Number(amount) * size;
  }
  return sum;
}

/** What was probably meant by a span that cannot be read; undefined where nothing is near. */
export function guessSpan(span: unknown): string | undefined {
  if (typeof span === 'number') return span < 0 ? String(-span) : undefined;
  if (typeof span !== 'string') return undefined;
  const [, amount, unit] = /^\s*(-?[\d.]+)\s*([a-z]*)/i.exec(span) ?? [];
  if (amount === undefined || Number.isNaN(Number(amount))) return undefined;
  const short = words.find(([start]) => start.test(unit!))?.[1];
  return short && `'${Math.abs(Number(amount))}${short}'`;
}

const words = [
  [/^(milli|ms|$)/i, 'ms'],
  [/^m/i, 'min'],
  [/^s/i, 's'],
  [/^h/i, 'h'],
  [/^d/i, 'd'],
] as const;

/** A span as a person writes it: `4s`, `1h 30min`, `250ms`. */
export function printSpan(milliseconds: number): string {
  let left = Math.round(milliseconds);
  const parts: string[] = [];
  for (const unit of ['d', 'h', 'min', 's', 'ms']) {
    const amount = Math.floor(left / units[unit]!);
    if (amount > 0) parts.push(`${amount}${unit}`);
    left -= amount * units[unit]!;
  }
  return parts.join(' ') || '0ms';
}
