import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { refuse } from './errors';
import { printSheetHtml } from './html';
import { printJUnit } from './junit';
import type { Sheet } from './model';
import type { Picture } from './options';

/** A part of a file's name, of words a person wrote. */
export const fileWord = (words: string): string =>
  words
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}_.-]+/gu, '-')
    .replace(/^[-.]+|-+$/g, '')
    .slice(0, 80) || 'x';

/** A folder that is being filled; it is where it belongs only when it is complete. */
export class SheetFolder {
  /** The state that a name was taken for. */
  readonly #taken = new Map<string, string>();

  private constructor(
    readonly target: string,
    readonly draft: string,
  ) {}

  /** @throws SIM-SHEET-WRITE */
  static async begin(target: string): Promise<SheetFolder> {
    return writing(target, async () => {
      await mkdir(dirname(target), { recursive: true });
      const draft = await mkdtemp(join(dirname(target), `.${basename(target)}-`));
      await mkdir(join(draft, 'pictures'));
      return new SheetFolder(target, draft);
    });
  }

  /**
   * Keeps a picture under a name of its own: in a folder that is called as the file that declares the state.
   *
   * @returns the file, from the folder
   * @throws SIM-SHEET-WRITE
   */
  async keep({ file: declaredIn, state, width, scheme, data }: Picture): Promise<string> {
    const folder = declaredIn
      .replace(/\.states\.\w+$/, '')
      .split('/')
      .map((part) => (part === '..' ? 'above' : fileWord(part)))
      .join('/');
    const word = fileWord(state);
    let name = word;
    // Letters of either case are the same to some file systems.
    const other = () => this.#taken.get(`${folder}/${name}`.toLowerCase()) ?? state;
    for (let more = 2; other() !== state; more++) name = `${word}-${more}`;
    this.#taken.set(`${folder}/${name}`.toLowerCase(), state);
    const file = `pictures/${folder}/${name}.${width}.${scheme}.png`;
    await this.write(file, Buffer.from(data, 'base64'));
    return file;
  }

  /** Writes a file into it. @throws SIM-SHEET-WRITE */
  async write(file: string, bytes: Buffer | string): Promise<void> {
    await writing(this.target, async () => {
      const path = join(this.draft, file);
      await mkdir(dirname(path), { recursive: true });
      await writeFile(path, bytes);
    });
  }

  /** Writes the page, the data and the report, and puts the folder in its place. @throws SIM-SHEET-WRITE */
  async finish(sheet: Sheet): Promise<void> {
    await writing(this.target, async () => {
      const read = async (file: string) => (await readFile(join(this.draft, file))).toString('base64');
      await this.write('index.html', await printSheetHtml(sheet, { read }));
      await this.write('sheet.json', `${JSON.stringify(sheet, null, 2)}\n`);
      await this.write('junit.xml', printJUnit(sheet));
      const before = `${this.draft}-before`;
      if (existsSync(this.target)) await rename(this.target, before);
      await rename(this.draft, this.target);
      await rm(before, { recursive: true, force: true });
    });
  }

  /** Takes away what was not finished. */
  async drop(): Promise<void> {
    await rm(this.draft, { recursive: true, force: true });
  }
}

async function writing<T>(folder: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (cause) {
    const { code, message } = cause as NodeJS.ErrnoException;
    if (code?.startsWith('SIM-')) throw cause;
    const why = {
      ENOSPC: 'the disk is full',
      EACCES: 'this user may not write there',
      EROFS: 'it can only be read',
    };
    return refuse('SIM-SHEET-WRITE', { folder, why: why[code as keyof typeof why] ?? message }, { cause });
  }
}
