import { native } from '../core/host';

/*
 * Blobs and forms of a simulated page are of another realm than the process's Fetch classes, which take only
 * their own. They are carried over here, with the bytes of their files.
 */

/** True for an object of a class, whatever realm it is from. */
export const isA = (value: unknown, name: string): boolean =>
  Object.prototype.toString.call(value) === `[object ${name}]`;

export const isBlob = (value: unknown): value is Blob => isA(value, 'Blob') || isA(value, 'File');

/** True for a buffer or a view of one. */
export const isBytes = (value: unknown): value is ArrayBuffer | ArrayBufferView =>
  ArrayBuffer.isView(value) || isA(value, 'ArrayBuffer');

/** The bytes of a buffer or of a view of one. */
export function bytesOf(value: unknown): Uint8Array<ArrayBuffer> {
  if (!ArrayBuffer.isView(value)) return new Uint8Array(value as ArrayBuffer);
  return new Uint8Array(value.buffer as ArrayBuffer, value.byteOffset, value.byteLength);
}

/** The bytes of a blob. */
export const readBlob = async (blob: Blob): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await blob.arrayBuffer());

type Part = string | Uint8Array<ArrayBuffer> | Blob;

/** A body, and what its headers say of it. */
export interface Carried {
  readonly body: BodyInit | undefined;
  readonly type: string | undefined;
  readonly size: number | undefined;
}

/** A body of the page as the process's classes take it; `body` is undefined for what they take as it is. */
export function carriedBody(given: unknown): Carried {
  if (isBlob(given)) return { body: bodyOf([given]), type: given.type || undefined, size: given.size };
  if (isA(given, 'FormData')) return carriedForm(given as FormData);
  if (isA(given, 'URLSearchParams') && !(given instanceof native('URLSearchParams')))
    return { body: new (native('URLSearchParams'))(String(given)), type: undefined, size: undefined };
  return { body: undefined, type: undefined, size: undefined };
}

let boundaries = 0;

/** @see https://www.rfc-editor.org/rfc/rfc7578 @see https://html.spec.whatwg.org/#multipart-form-data */
function carriedForm(form: FormData): Carried {
  const boundary = `----formdata-${String(++boundaries).padStart(12, '0')}`;
  const parts: Part[] = [];
  form.forEach((value, name) => {
    const head = `--${boundary}\r\ncontent-disposition: form-data; name="${quoted(lines(name))}"`;
    if (typeof value === 'string') parts.push(`${head}\r\n\r\n${lines(value)}\r\n`);
    else {
      const type = value.type || 'application/octet-stream';
      parts.push(`${head}; filename="${quoted(value.name)}"\r\ncontent-type: ${type}\r\n\r\n`, value, '\r\n');
    }
  });
  parts.push(`--${boundary}--\r\n`);
  return {
    body: bodyOf(parts),
    type: `multipart/form-data; boundary=${boundary}`,
    size: parts.reduce((sum, part) => sum + sizeOf(part), 0),
  };
}

const lines = (text: string) => text.replace(/\r\n|\r|\n/g, '\r\n');
const quoted = (text: string) => text.replace(/\r/g, '%0D').replace(/\n/g, '%0A').replace(/"/g, '%22');

export const bytesOfText = (text: string): Uint8Array<ArrayBuffer> =>
  new (native('TextEncoder'))().encode(text);

const sizeOf = (part: Part): number =>
  typeof part === 'string' ? bytesOfText(part).byteLength : isBlob(part) ? part.size : part.byteLength;

function bodyOf(parts: readonly Part[]): BodyInit {
  const Own = native('Blob');
  if (parts.every((part) => !isBlob(part) || part instanceof Own)) return new Own([...parts]);
  const left = [...parts];
  return new (native('ReadableStream'))({
    async pull(controller) {
      const part = left.shift();
      if (part === undefined) return controller.close();
      controller.enqueue(
        typeof part === 'string' ? bytesOfText(part) : isBlob(part) ? await readBlob(part) : part,
      );
    },
  });
}
