import { defineComponent, ref } from 'vue';

const namesOf = (files: FileList | null | undefined) => [...(files ?? [])].map(({ name }) => name).join(' ');

/** Tells everything that is done to it. */
export const Bench = defineComponent({
  name: 'Bench',
  emits: { told: (_text: string) => true },
  setup(_, { emit }) {
    const told = (text: string) => emit('told', text);
    const dialog = ref<HTMLDialogElement>();
    let held: ReturnType<typeof setTimeout>;
    let thumb: number | undefined;
    return {
      dialog,
      told,
      namesOf,
      photo: ref<HTMLInputElement>(),
      note: ref('calm bees'),
      frames: ref('5'),
      hasTip: ref(false),
      hold: ({ pointerType }: PointerEvent) =>
        void (held = setTimeout(() => told(`held by ${pointerType}`), 500)),
      letGo: () => clearTimeout(held),
      drop: ({ dataTransfer }: DragEvent) =>
        told(`dropped ${dataTransfer!.getData('text/plain') || namesOf(dataTransfer!.files)}`),
      press: ({ clientX }: PointerEvent) => void (thumb = clientX),
      move({ clientX, buttons }: PointerEvent) {
        if (buttons === 1 && thumb !== undefined) told(`moved by ${clientX - thumb}`);
      },
      leave: () => void (thumb = undefined),
    };
  },
  template: `
    <button
      @click="told($event.shiftKey ? 'clicked with Shift' : 'clicked')" @dblclick="told('clicked twice')"
      @contextmenu="told('menu')" @mouseenter="hasTip = true" @mouseleave="hasTip = false"
      @pointerdown="hold" @pointerup="letGo"
    >Smoker</button>
    <p v-if="hasTip" role="tooltip">Light it first</p>
    <p draggable="true" @dragstart="$event.dataTransfer.setData('text/plain', 'Anemone')">Anemone</p>
    <section aria-label="Shelf" @dragover.prevent @drop.prevent="drop" />
    <input ref="photo" type="file" hidden accept="image/*" @change="told('chose ' + namesOf($event.target.files))">
    <button @click="photo.click()">Add a photo</button>
    <label>Note <textarea v-model="note" @paste="told('pasted')" /></label>
    <label>Frames <input v-model="frames" type="range" max="10"></label>
    <output>{{ frames }}</output>
    <label>Inspected <input type="date" min="2031-01-01" @change="told('inspected ' + $event.target.value)"></label>
    <ul aria-label="Hives" style="overflow: auto; height: 40px" @scroll="told('scrolled to ' + $event.currentTarget.scrollTop)">
      <li style="height: 400px">Borage</li>
    </ul>
    <button @click="dialog.showModal()">Ask</button>
    <dialog ref="dialog" aria-label="Sure?" @close="told('closed with ' + dialog.returnValue)">
      <form method="dialog"><button value="yes">Yes</button></form>
    </dialog>
    <div role="slider" aria-label="Entrance" aria-valuenow="0" tabindex="0" @pointerdown="press" @pointermove="move" @pointerup="leave" />
    <form aria-label="Queen" @submit.prevent="told('sent')">
      <label>Colour <input required></label><button>Send</button>
    </form>
    <p style="pointer-events: none"><button>Out of reach</button></p>`,
});
