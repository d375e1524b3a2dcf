import { realm } from '../../core/host';
import { isXml, readMime, type Mime } from './headers';
import { page } from './page';

/** What a page can parse. @see https://html.spec.whatwg.org/#domparsersupportedtype */
const parsers = ['text/html', 'text/xml', 'application/xml', 'application/xhtml+xml', 'image/svg+xml'];

/** What an XMLHttpRequest has received so far. */
export class Received {
  response: Response | undefined;
  isWhole = false;
  size = 0;
  #chunks: Uint8Array[] = [];
  #mime: Mime = { essence: 'text/xml', charset: undefined };
  #typeText = '';
  #made: { readonly type: string; readonly value: unknown } | undefined;
  #text: { readonly size: number; readonly text: string } | undefined;

  begin(response: Response, override: string | undefined): void {
    this.response = response;
    this.override(override ?? response.headers.get('content-type'));
  }

  /** Reads the body as another type than the response names. */
  override(type: string | null): void {
    this.#mime = readMime(type) ?? { essence: 'text/xml', charset: undefined };
    this.#typeText = readMime(type) ? type! : 'text/xml';
  }

  add(chunk: Uint8Array): void {
    this.#chunks.push(chunk);
    this.size += chunk.byteLength;
  }

  #bytes(): Uint8Array<ArrayBuffer> {
    const whole = new Uint8Array(this.size);
    let at = 0;
    for (const chunk of this.#chunks) {
      whole.set(chunk, at);
      at += chunk.byteLength;
    }
    return whole;
  }

  text(): string {
    if (this.#text?.size === this.size) return this.#text.text;
    const text = this.#decode(
      this.#mime.charset ?? readMime(this.response?.headers.get('content-type'))?.charset,
    );
    this.#text = { size: this.size, text };
    return text;
  }

  #decode(charset = 'utf-8'): string {
    const { TextDecoder } = realm;
    const bytes = this.#bytes();
    try {
      return new TextDecoder(charset).decode(bytes, { stream: !this.isWhole });
    } catch {
      return new TextDecoder().decode(bytes, { stream: !this.isWhole });
    }
  }

  /** @param isAsked true where a document was asked for, so that HTML is read, too */
  document(isAsked: boolean): Document | null {
    if (!isAsked && !isXml(this.#mime)) return null;
    return this.as('document') as Document | null;
  }

  /** The whole body as a type asked for; the same object each time. */
  as(type: string): unknown {
    if (this.#made?.type !== type) this.#made = { type, value: this.response ? this.#make(type) : null };
    return this.#made.value;
  }

  #make(type: string): unknown {
    if (type === 'arraybuffer') return this.#bytes().buffer;
    if (type === 'blob') return new (page['Blob'] as typeof Blob)([this.#bytes()], { type: this.#typeText });
    if (type === 'json') return this.#json();
    const isHtml = this.#mime.essence === 'text/html';
    const Parser = page['DOMParser'] as typeof DOMParser | undefined;
    if (!Parser || this.size === 0 || !(isHtml || isXml(this.#mime))) return null;
    const parser = parsers.includes(this.#mime.essence) ? this.#mime.essence : 'application/xml';
    const parsed = new Parser().parseFromString(this.text(), parser as DOMParserSupportedType);
    return !isHtml && parsed.querySelector('parsererror') ? null : parsed;
  }

  #json(): unknown {
    try {
      return JSON.parse(this.#decode()) as unknown;
    } catch {
      return null;
    }
  }
}
