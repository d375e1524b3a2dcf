import { native, realm } from '../../core/host';
import { ownerOfCall } from '../../core/ownership';

/** Reads the bytes of a blob; a subject that waits for them is not at rest. */
async function read(blob: Blob): Promise<ArrayBuffer> {
  const end = ownerOfCall()?.work.begin('body', 'a Blob');
  const { FileReader } = document.defaultView!;
  try {
    return await new Promise((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(reader.result as ArrayBuffer);
      reader.onerror = () => reject(reader.error as Error);
      reader.readAsArrayBuffer(blob);
    });
  } finally {
    end?.();
  }
}

/** How a blob is read. @see https://w3c.github.io/FileAPI/#blob-section */
export const blobFeatures = {
  arrayBuffer(this: Blob) {
    return read(this);
  },
  async bytes(this: Blob) {
    return new Uint8Array(await read(this));
  },
  async text(this: Blob) {
    return new realm.TextDecoder().decode(await read(this));
  },
  stream(this: Blob) {
    const bytes = read(this);
    return new (native('ReadableStream'))({
      async start(controller) {
        const all = new Uint8Array(await bytes);
        if (all.byteLength > 0) controller.enqueue(all);
        controller.close();
      },
    });
  },
};
