/** Media that play without a sound: a simulated page has the functions, and does nothing in them. */
const playing = new WeakSet<HTMLMediaElement>();

function tell(media: HTMLMediaElement, ...types: readonly string[]): void {
  const { Event, setTimeout: later } = media.ownerDocument.defaultView as unknown as typeof globalThis;
  later(() => types.forEach((type) => media.dispatchEvent(new Event(type))), 0);
}

/** @see https://html.spec.whatwg.org/multipage/media.html#playing-the-media-resource */
export const mediaFeatures = {
  play(this: HTMLMediaElement): Promise<void> {
    if (!playing.has(this)) {
      playing.add(this);
      tell(this, 'play', 'playing');
    }
    return Promise.resolve();
  },
  pause(this: HTMLMediaElement): void {
    if (playing.delete(this)) tell(this, 'pause');
  },
  load(this: HTMLMediaElement): void {
    playing.delete(this);
  },
  canPlayType: () => 'maybe',
  paused: {
    get(this: HTMLMediaElement) {
      return !playing.has(this);
    },
  },
};
