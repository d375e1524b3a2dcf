import { makeDataTransfer } from './transfer';

type Init = Record<string, unknown>;

/** The classes of events that a simulated page may lack. */
export function makeEventClasses(page: typeof globalThis) {
  const { MouseEvent, Event } = page;

  /** @see https://w3c.github.io/pointerevents/#pointerevent-interface */
  class PointerEvent extends MouseEvent {
    readonly pointerId: number;
    readonly width: number;
    readonly height: number;
    readonly pressure: number;
    readonly tangentialPressure: number;
    readonly tiltX: number;
    readonly tiltY: number;
    readonly twist: number;
    readonly altitudeAngle: number;
    readonly azimuthAngle: number;
    readonly pointerType: string;
    readonly isPrimary: boolean;
    constructor(type: string, init: Init = {}) {
      super(type, init);
      const number = (name: string, otherwise = 0) => Number(init[name] ?? otherwise);
      this.pointerId = number('pointerId');
      this.width = number('width', 1);
      this.height = number('height', 1);
      this.pressure = number('pressure');
      this.tangentialPressure = number('tangentialPressure');
      this.tiltX = number('tiltX');
      this.tiltY = number('tiltY');
      this.twist = number('twist');
      this.altitudeAngle = number('altitudeAngle', Math.PI / 2);
      this.azimuthAngle = number('azimuthAngle');
      this.pointerType = String(init['pointerType'] ?? '');
      this.isPrimary = init['isPrimary'] === true;
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
