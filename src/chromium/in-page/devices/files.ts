import type { CarriedFile } from '../../told';

/** Files as a text can carry them. */
export const readFiles = (files: readonly File[]): Promise<CarriedFile[]> =>
  Promise.all(
    files.map(async (file) => {
      const bytes = new Uint8Array(await file.arrayBuffer());
      let text = '';
      for (const byte of bytes) text += String.fromCharCode(byte);
      return { name: file.name, lastModified: file.lastModified, base64: btoa(text) };
    }),
  );
