import { Component, output, signal } from '@angular/core';

const namesOf = (files: FileList | null) => [...(files ?? [])].map(({ name }) => name).join(' ');

/** Tells everything that is done to it. */
@Component({
  selector: 'yard-bench',
  template: `
    <button
      (click)="told.emit($event.shiftKey ? 'clicked with Shift' : 'clicked')"
      (dblclick)="told.emit('clicked twice')"
      (contextmenu)="told.emit('menu')"
      (mouseenter)="hasTip.set(true)"
      (mouseleave)="hasTip.set(false)"
      (pointerdown)="hold($event)"
      (pointerup)="letGo()"
    >
      Smoker
    </button>
    @if (hasTip()) {
      <p role="tooltip">Light it first</p>
    }
    <p draggable="true" (dragstart)="$event.dataTransfer!.setData('text/plain', 'Anemone')">Anemone</p>
    <section aria-label="Shelf" (dragover)="$event.preventDefault()" (drop)="drop($event)"></section>
    <input #photo type="file" hidden accept="image/*" (change)="told.emit('chose ' + namesOf(photo.files))" />
    <button (click)="photo.click()">Add a photo</button>
    <label>
      Note
      <textarea
        #area
        [value]="note()"
        (input)="note.set(area.value)"
        (paste)="told.emit('pasted')"
      ></textarea>
    </label>
    <label>
      Frames <input #range type="range" max="10" [value]="frames()" (input)="frames.set(range.value)" />
    </label>
    <output>{{ frames() }}</output>
    <label>
      Inspected <input #day type="date" min="2031-01-01" (change)="told.emit('inspected ' + day.value)" />
    </label>
    <ul
      #list
      aria-label="Hives"
      style="overflow: auto; height: 40px"
      (scroll)="told.emit('scrolled to ' + list.scrollTop)"
    >
      <li style="height: 400px">Borage</li>
    </ul>
    <button (click)="dialog.showModal()">Ask</button>
    <dialog #dialog aria-label="Sure?" (close)="told.emit('closed with ' + dialog.returnValue)">
      <form method="dialog"><button value="yes">Yes</button></form>
    </dialog>
    <div
      role="slider"
      aria-label="Entrance"
      aria-valuenow="0"
      tabindex="0"
      (pointerdown)="thumb = $event.clientX"
      (pointermove)="move($event)"
      (pointerup)="thumb = undefined"
    ></div>
    <form aria-label="Queen" (submit)="$event.preventDefault(); told.emit('sent')">
      <label>Colour <input required /></label>
      <button>Send</button>
    </form>
    <p style="pointer-events: none"><button>Out of reach</button></p>
  `,
})
export class Bench {
  readonly told = output<string>();
  readonly note = signal('calm bees');
  readonly frames = signal('5');
  readonly hasTip = signal(false);
  readonly namesOf = namesOf;
  thumb: number | undefined;
  held: ReturnType<typeof setTimeout> | undefined;

  hold({ pointerType }: PointerEvent) {
    this.held = setTimeout(() => this.told.emit(`held by ${pointerType}`), 500);
  }
  letGo() {
    clearTimeout(this.held);
  }
  drop(event: DragEvent) {
    event.preventDefault();
    const { dataTransfer } = event;
    this.told.emit(`dropped ${dataTransfer!.getData('text/plain') || namesOf(dataTransfer!.files)}`);
  }
  move({ clientX, buttons }: PointerEvent) {
    if (buttons === 1 && this.thumb !== undefined) this.told.emit(`moved by ${clientX - this.thumb}`);
  }
}
