import { useRef, useState } from 'react';

const namesOf = (files: FileList | null) => [...(files ?? [])].map(({ name }) => name).join(' ');

/** Tells everything that is done to it. */
export function Bench({ onTold }: { onTold: (text: string) => void }) {
  const [note, setNote] = useState('calm bees');
  const [frames, setFrames] = useState('5');
  const [hasTip, setTip] = useState(false);
  const held = useRef<ReturnType<typeof setTimeout>>(undefined);
  const photo = useRef<HTMLInputElement>(null);
  const dialog = useRef<HTMLDialogElement>(null);
  const thumb = useRef<number>(undefined);
  return (
    <>
      <button
        onClick={(event) => onTold(event.shiftKey ? 'clicked with Shift' : 'clicked')}
        onDoubleClick={() => onTold('clicked twice')}
        onContextMenu={() => onTold('menu')}
        onMouseEnter={() => setTip(true)}
        onMouseLeave={() => setTip(false)}
        onPointerDown={({ pointerType }) =>
          (held.current = setTimeout(() => onTold(`held by ${pointerType}`), 500))
        }
        onPointerUp={() => clearTimeout(held.current)}
      >
        Smoker
      </button>
      {hasTip && <p role="tooltip">Light it first</p>}
      <p draggable onDragStart={(event) => event.dataTransfer.setData('text/plain', 'Anemone')}>
        Anemone
      </p>
      <section
        aria-label="Shelf"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          onTold(`dropped ${event.dataTransfer.getData('text/plain') || namesOf(event.dataTransfer.files)}`);
        }}
      />
      <input
        type="file"
        hidden
        ref={photo}
        accept="image/*"
        onChange={({ target }) => onTold(`chose ${namesOf(target.files)}`)}
      />
      <button onClick={() => photo.current?.click()}>Add a photo</button>
      <label>
        Note{' '}
        <textarea
          value={note}
          onChange={({ target }) => setNote(target.value)}
          onPaste={() => onTold('pasted')}
        />
      </label>
      <label>
        Frames{' '}
        <input type="range" max="10" value={frames} onChange={({ target }) => setFrames(target.value)} />
      </label>
      <output>{frames}</output>
      <label>
        Inspected{' '}
        <input type="date" min="2031-01-01" onChange={({ target }) => onTold(`inspected ${target.value}`)} />
      </label>
      <ul
        aria-label="Hives"
        style={{ overflow: 'auto', height: 40 }}
        onScroll={({ currentTarget }) => onTold(`scrolled to ${currentTarget.scrollTop}`)}
      >
        <li style={{ height: 400 }}>Borage</li>
      </ul>
      <button onClick={() => dialog.current?.showModal()}>Ask</button>
      <dialog
        ref={dialog}
        aria-label="Sure?"
        onClose={() => onTold(`closed with ${dialog.current?.returnValue}`)}
      >
        <form method="dialog">
          <button value="yes">Yes</button>
        </form>
      </dialog>
      <div
        role="slider"
        aria-label="Entrance"
        aria-valuenow={0}
        tabIndex={0}
        onPointerDown={({ clientX }) => (thumb.current = clientX)}
        onPointerMove={({ clientX, buttons }) => {
          if (buttons === 1 && thumb.current !== undefined) onTold(`moved by ${clientX - thumb.current}`);
        }}
        onPointerUp={() => (thumb.current = undefined)}
      />
      <form
        aria-label="Queen"
        onSubmit={(event) => {
          event.preventDefault();
          onTold('sent');
        }}
      >
        <label>
          Colour <input required />
        </label>
        <button>Send</button>
      </form>
      <p style={{ pointerEvents: 'none' }}>
        <button>Out of reach</button>
      </p>
    </>
  );
}
