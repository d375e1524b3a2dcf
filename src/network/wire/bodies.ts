import { page } from './page';
import { bytesOf, bytesOfText, carriedBody, isA, isBlob, isBytes } from '../carried';

/** A body as it is sent. */
export interface Encoded {
  /** As it was given. */
  readonly given: unknown;
  readonly body: BodyInit;
  /** Its MIME type; undefined where it has none. */
  readonly type: string | undefined;
  readonly size: number;
  /** True for text, whose encoding is always UTF-8. */
  readonly isText: boolean;
}

/** A body of the page as the platform's own classes can send it. @see https://fetch.spec.whatwg.org/#concept-bodyinit-extract */
export function encodeBody(given: unknown): Encoded {
  const isDocument = isA(given, 'Document') || isA(given, 'HTMLDocument') || isA(given, 'XMLDocument');
  if (isDocument) {
    const isHtml = (given as Document).contentType === 'text/html';
    const Serializer = page['XMLSerializer'] as typeof XMLSerializer;
    const text = isHtml
      ? (given as Document).documentElement.outerHTML
      : new Serializer().serializeToString(given as Document);
    return ofText(given, text, `${isHtml ? 'text/html' : 'application/xml'};charset=UTF-8`);
  }
  if (isBlob(given) || isA(given, 'FormData')) {
    const { body, type, size } = carriedBody(given);
    return { given, body: body!, type, size: size!, isText: false };
  }
  if (isBytes(given)) {
    const bytes = bytesOf(given);
    return { given, body: bytes, type: undefined, size: bytes.byteLength, isText: false };
  }
  if (isA(given, 'URLSearchParams'))
    return ofText(given, String(given), 'application/x-www-form-urlencoded;charset=UTF-8');
  return ofText(given, String(given), 'text/plain;charset=UTF-8');
}

const ofText = (given: unknown, body: string, type: string): Encoded => ({
  ...{ given, body, type, isText: true },
  size: bytesOfText(body).byteLength,
});
