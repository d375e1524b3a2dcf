import { noteMade } from '../../core/left';
import { surroundings, tellPosition, type Watcher } from '../surroundings';

const geolocation = {
  getCurrentPosition(told: Watcher['told'], failed?: Watcher['failed']): void {
    globalThis.setTimeout(() => tellPosition({ told, failed }), 0);
  },
  watchPosition(told: Watcher['told'], failed?: Watcher['failed']): number {
    const id = nextWatcher++;
    const watcher = { told, failed };
    surroundings.watchers.set(id, {
      ...watcher,
      end: noteMade('a watch over the position', geolocation.watchPosition),
    });
    globalThis.setTimeout(() => surroundings.watchers.has(id) && tellPosition(watcher), 0);
    return id;
  },
  clearWatch(id: number): void {
    surroundings.watchers.get(id)?.end?.();
    surroundings.watchers.delete(id);
  },
};
let nextWatcher = 1;

/** What the navigator has, and what shows something outside of the page. */
export function makeSurroundings(page: typeof globalThis) {
  const clipboard = {
    readText: () => Promise.resolve(surroundings.clipboard.text),
    writeText: (text: unknown) => {
      surroundings.clipboard = { text: String(text) };
      return Promise.resolve();
    },
    read: () => Promise.resolve([]),
    write: () => Promise.resolve(),
  };
  const permissions = {
    query({ name }: { readonly name: string }): Promise<object> {
      const status = new page.EventTarget() as EventTarget & { name: string; onchange: unknown };
      Object.assign(status, { name, onchange: null });
      Object.defineProperty(status, 'state', {
        get: () => surroundings.permissions[name] ?? 'prompt',
        enumerable: true,
      });
      surroundings.statuses.add(status);
      return Promise.resolve(status);
    },
  };
  const permission = () => {
    const given = surroundings.permissions['notifications'] ?? 'prompt';
    return given === 'prompt' ? 'default' : given;
  };
  class Notification extends page.EventTarget {
    static get permission(): string {
      return permission();
    }
    static requestPermission(): Promise<string> {
      return Promise.resolve(permission());
    }
    readonly title: string;
    readonly body: string;
    constructor(title: string, { body = '' }: { readonly body?: string } = {}) {
      super();
      this.title = String(title);
      this.body = String(body);
      const event = permission() === 'granted' ? 'show' : 'error';
      if (event === 'show') surroundings.notifications.push({ title: this.title, body: this.body });
      page.setTimeout(() => this.dispatchEvent(new page.Event(event)), 0);
    }
    close(): void {
      this.dispatchEvent(new page.Event('close'));
    }
  }
  return { Notification, navigator: { clipboard, permissions, geolocation } };
}
