import { makeDataTransfer } from './transfer';

type Init = Record<string, unknown>;

/** The numbers that an event has about a pointer by default. */
const ofPointer = {
  ...{ pointerId: 0, width: 1, height: 1, pressure: 0, tangentialPressure: 0, tiltX: 0, tiltY: 0, twist: 0 },
  ...{ altitudeAngle: Math.PI / 2, azimuthAngle: 0 },
};

/** The classes of events that a simulated page may lack. */
export function makeEventClasses(page: typeof globalThis) {
  const { MouseEvent, Event } = page;

  /** @see https://w3c.github.io/pointerevents/#pointerevent-interface */
  class PointerEvent extends MouseEvent {
    readonly #init: Init;
    constructor(type: string, init: Init = {}) {
      super(type, init);
      this.#init = { ...init };
    }
    static {
      // Read when they are asked for, as an event of a pointer is made all the time and has twelve of them.
      const supply = (name: string, get: (this: PointerEvent) => unknown) =>
        Object.defineProperty(this.prototype, name, { get, configurable: true, enumerable: true });
      for (const [name, otherwise] of Object.entries(ofPointer))
        supply(name, function () {
          return Number(this.#init[name] ?? otherwise);
        });
      supply('pointerType', function () {
        return String(this.#init['pointerType'] ?? '');
      });
      supply('isPrimary', function () {
        return this.#init['isPrimary'] === true;
      });
    }
    getCoalescedEvents(): PointerEvent[] {
      return [];
    }
    getPredictedEvents(): PointerEvent[] {
      return [];
    }
  }

  /** @see https://html.spec.whatwg.org/multipage/dnd.html#the-dragevent-interface */
  class DragEvent extends MouseEvent {
    readonly dataTransfer: unknown;
    constructor(type: string, init: Init = {}) {
      super(type, init);
      this.dataTransfer = init['dataTransfer'] ?? null;
    }
  }

  /** @see https://w3c.github.io/clipboard-apis/#clipboard-event-interfaces */
  class ClipboardEvent extends Event {
    readonly clipboardData: unknown;
    constructor(type: string, init: Init = {}) {
      super(type, init);
      this.clipboardData = init['clipboardData'] ?? null;
    }
  }

  /** @see https://html.spec.whatwg.org/multipage/interaction.html#the-toggleevent-interface */
  class ToggleEvent extends Event {
    readonly oldState: string;
    readonly newState: string;
    constructor(type: string, init: Init = {}) {
      super(type, init);
      this.oldState = String(init['oldState'] ?? '');
      this.newState = String(init['newState'] ?? '');
    }
  }

  return { PointerEvent, DragEvent, ClipboardEvent, ToggleEvent, DataTransfer: makeDataTransfer(page) };
}
