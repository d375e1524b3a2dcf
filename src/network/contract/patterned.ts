const classes: Readonly<Record<string, string>> = { d: '0', w: 'a', s: ' ', D: 'a', W: '-', S: 'a' };
const escapes: Readonly<Record<string, string>> = { n: '\n', t: '\t', r: '\r', f: '\f', v: '\v' };

/**
 * A text that a regular expression matches; undefined where none is made. What has digits gets a number.
 *
 * @param number makes one text differ from the next
 */
export function textMatching(pattern: string, number: number): string | undefined {
  try {
    const maker = new Maker(pattern, number);
    const made = maker.alternatives();
    return maker.isMade && new RegExp(pattern, 'u').test(made) ? made : undefined;
  } catch {
    return undefined;
  }
}

class Maker {
  #at = 0;
  /** False for what is not made: assertions, references back, classes of a kind that is seldom met. */
  isMade = true;

  constructor(
    readonly pattern: string,
    readonly number: number,
  ) {}

  get #next(): string | undefined {
    return this.pattern[this.#at];
  }

  /** The first of some alternatives; the others are read over. */
  alternatives(): string {
    const first = this.#sequence();
    while (this.#next === '|') {
      this.#at++;
      this.#sequence();
    }
    return first;
  }

  #sequence(): string {
    let made = '';
    while (this.#next !== undefined && this.#next !== '|' && this.#next !== ')') made += this.#repeated();
    return made;
  }

  #repeated(): string {
    const { atom, isDigit } = this.#atom();
    const rest = this.pattern.slice(this.#at);
    const [all, least = '', most] = /^(?:[*+?]|\{(\d+)(?:,(\d*))?\})\??/.exec(rest) ?? [''];
    this.#at += all.length;
    const count = all === '' ? 1 : least !== '' ? Number(least) : all.startsWith('+') ? 1 : 0;
    if (!isDigit || count === 0) return atom.repeat(Math.min(count, 1000));
    const digits = String(this.number);
    const isOpen = all.startsWith('+') || most === '';
    return isOpen ? digits.padStart(count, '0') : digits.slice(-count).padStart(count, '0');
  }

  #atom(): { readonly atom: string; readonly isDigit?: boolean } {
    const letter = this.pattern[this.#at++]!;
    if (letter === '^' || letter === '$') return { atom: '' };
    if (letter === '.') return { atom: 'x' };
    if (letter === '(') return { atom: this.#group() };
    if (letter === '[') return this.#class();
    if (letter !== '\\') return { atom: letter };
    const escaped = this.pattern[this.#at++] ?? '';
    if (escaped === 'd') return { atom: '0', isDigit: true };
    if (/[1-9kbBpPuxc]/.test(escaped)) this.isMade = false;
    return { atom: classes[escaped] ?? escapes[escaped] ?? escaped };
  }

  #group(): string {
    const [head = ''] = /^\?(?::|<[A-Za-z_]\w*>)/.exec(this.pattern.slice(this.#at)) ?? [];
    this.#at += head.length;
    if (this.#next === '?') this.isMade = false;
    const made = this.alternatives();
    this.#at++;
    return made;
  }

  #class(): { readonly atom: string; readonly isDigit?: boolean } {
    const [all = '', not, inside = ''] =
      /^(\^?)((?:\\.|[^\]\\])*)\]/.exec(this.pattern.slice(this.#at)) ?? [];
    if (all === '') this.isMade = false;
    this.#at += all.length;
    if (not) {
      const other = [...'aA0-_ .'].find((one) => new RegExp(`[^${inside}]`, 'u').test(one));
      return { atom: other ?? '' };
    }
    if (/^(0-9|\\d)$/.test(inside)) return { atom: '0', isDigit: true };
    const usual = [...'aA01-_ .'].find((one) => new RegExp(`[${inside}]`, 'u').test(one));
    return {
      atom:
        usual ?? (inside.startsWith('\\') ? (escapes[inside[1]!] ?? inside[1] ?? '') : inside.slice(0, 1)),
    };
  }
}
