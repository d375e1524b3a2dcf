import { domException } from './exceptions';
import { tagAs } from '../../core/tag';

type Page = typeof globalThis;

interface Item {
  readonly kind: 'string' | 'file';
  readonly type: string;
  readonly data: string | File;
}

const formOf = (type: string): string => {
  const form = type.toLowerCase();
  return form === 'text' ? 'text/plain' : form === 'url' ? 'text/uri-list' : form;
};

/** The files of a list, as the page's own class of it. */
function listOf({ FileList: Kind }: Page, files: readonly File[]): FileList {
  const list = Object.create(Kind.prototype as object) as FileList;
  files.forEach((file, at) => Object.defineProperty(list, at, { value: file, enumerable: true }));
  return Object.defineProperties(list, {
    length: { value: files.length },
    item: { value: (at: number) => files[at] ?? null },
    [Symbol.iterator]: { value: () => files[Symbol.iterator]() },
  });
}

class DataTransferItem {
  readonly kind: string;
  readonly type: string;
  readonly #item: Item;
  constructor(item: Item) {
    this.kind = item.kind;
    this.type = item.type;
    this.#item = item;
  }
  getAsFile(): File | null {
    return this.kind === 'file' ? (this.#item.data as File) : null;
  }
  getAsString(tell: ((text: string) => void) | null): void {
    const { data } = this.#item;
    if (tell && typeof data === 'string') queueMicrotask(() => tell(data));
  }
  webkitGetAsEntry(): null {
    return null;
  }
}

class DataTransferItemList {
  [at: number]: DataTransferItem;
  readonly #items: Item[];
  readonly #page: Page;
  constructor(items: Item[], page: Page) {
    this.#items = items;
    this.#page = page;
    this.#number();
  }
  get length(): number {
    return this.#items.length;
  }
  #number(): void {
    for (let at = 0; Object.hasOwn(this, at); at++) Reflect.deleteProperty(this, at);
    this.#items.forEach((item, at) =>
      Object.defineProperty(this, at, {
        value: new DataTransferItem(item),
        configurable: true,
        enumerable: true,
      }),
    );
  }
  add(data: File | string, type?: string): DataTransferItem | null {
    const isText = typeof data === 'string';
    const form = isText ? formOf(String(type)) : data.type;
    if (isText && this.#items.some((item) => item.kind === 'string' && item.type === form))
      throw domException(this.#page, 'NotSupportedError', `There is data of the type ${form} already.`);
    this.#items.push({ kind: isText ? 'string' : 'file', type: form, data });
    this.#number();
    return this[this.#items.length - 1] ?? null;
  }
  remove(at: number): void {
    this.#items.splice(at, 1);
    this.#number();
  }
  clear(): void {
    this.#items.length = 0;
    this.#number();
  }
  [Symbol.iterator](): Iterator<DataTransferItem> {
    return this.#items.map((_, at) => this[at]!)[Symbol.iterator]();
  }
}

tagAs(DataTransferItem, 'DataTransferItem');
tagAs(DataTransferItemList, 'DataTransferItemList');

/** What a drag or a clipboard carries. @see https://html.spec.whatwg.org/multipage/dnd.html#the-datatransfer-interface */
export const makeDataTransfer = (page: Page) =>
  class DataTransfer {
    dropEffect = 'none';
    effectAllowed = 'uninitialized';
    readonly #items: Item[] = [];
    #isClosed = false;

    /** Whether only the kinds can be read, not the data, as while something is dragged over a page. */
    static close(transfer: DataTransfer, isClosed: boolean): void {
      if (#isClosed in transfer) transfer.#isClosed = isClosed;
    }
    get items(): DataTransferItemList {
      return new DataTransferItemList(this.#items, page);
    }
    get types(): readonly string[] {
      const strings = this.#items.flatMap(({ kind, type }) => (kind === 'string' ? [type] : []));
      return Object.freeze(this.#items.some(({ kind }) => kind === 'file') ? [...strings, 'Files'] : strings);
    }
    get files(): FileList {
      const files = this.#items.flatMap(({ kind, data }) => (kind === 'file' ? [data as File] : []));
      return listOf(page, this.#isClosed ? [] : files);
    }
    getData(type: string): string {
      const found = this.#items.find((item) => item.kind === 'string' && item.type === formOf(type));
      return this.#isClosed ? '' : ((found?.data as string | undefined) ?? '');
    }
    setData(type: string, data: string): void {
      if (this.#isClosed) return;
      this.clearData(type);
      this.#items.push({ kind: 'string', type: formOf(type), data: String(data) });
    }
    clearData(type?: string): void {
      const kept = this.#items.filter(
        (item) => item.kind === 'file' || (type !== undefined && item.type !== formOf(type)),
      );
      this.#items.splice(0, Infinity, ...kept);
    }
    setDragImage(): void {}
  };
