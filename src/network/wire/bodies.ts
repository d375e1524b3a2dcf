import { native } from '../../core/host';
import { page } from './page';
import { bytesOf, carriedBody, isA } from '../carried';

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
    return ofText(given, text, `${isHtml ? 'text/html' : 'application/xml'};charset=UTF-8`, true);
  }
  if (isA(given, 'Blob') || isA(given, 'File')) {
    const { size, type } = given as Blob;
    return { given, body: carriedBody(given).body!, type: type || undefined, size, isText: false };
  }
  if (isA(given, 'FormData')) {
    const { body, type, size } = carriedBody(given);
    return { given, body: body!, type, size: size!, isText: false };
  }
  if (ArrayBuffer.isView(given) || isA(given, 'ArrayBuffer')) {
    const bytes = bytesOf(given);
    return { given, body: bytes, type: undefined, size: bytes.byteLength, isText: false };
  }
  if (isA(given, 'URLSearchParams'))
    return ofText(given, String(given), 'application/x-www-form-urlencoded;charset=UTF-8', true);
  return ofText(given, String(given), 'text/plain;charset=UTF-8', true);
}

const ofText = (given: unknown, body: string, type: string, isText: boolean): Encoded => ({
  ...{ given, body, type, isText },
  size: new (native('TextEncoder'))().encode(body).byteLength,
});
