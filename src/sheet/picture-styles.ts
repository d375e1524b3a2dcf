import { startTimer } from '../core/host';

/* How a page is made ready for a picture, so that the same state gives the same picture each time. */

// A stub has no look of its own. The text after the slash keeps its name from being read aloud.
const styles = `
[data-part] { display: block; min-height: 28px; box-sizing: border-box; border-radius: 6px; outline: 1.5px dashed rgb(120 120 130 / 75%);
  outline-offset: -1.5px; background: repeating-linear-gradient(135deg, rgb(120 120 130 / 10%) 0 6px, transparent 6px 12px); }
[data-part]::before { content: attr(data-part) / ""; display: inline-block; padding: 5px 10px; font: 12px/1.4 ui-monospace, 'DejaVu Sans Mono', monospace; opacity: .75; }
`;

const within = <T>(milliseconds: number, work: Promise<T>) =>
  Promise.race([work, new Promise<void>((resolve) => void startTimer(milliseconds, resolve))]);

/** Waits for fonts and images, ends what moves, and shows what is a stub. @returns how to take that back */
export async function dressUp(): Promise<() => void> {
  const style = document.createElement('style');
  style.textContent = styles;
  document.head.append(style);
  const images = [...document.images].filter(({ complete, loading }) => !complete && loading !== 'lazy');
  if (document.fonts.status !== 'loaded') await within(2000, document.fonts.ready);
  if (images.length > 0) await within(2000, Promise.allSettled(images.map((image) => image.decode())));
  for (const animation of document.getAnimations()) {
    const { endTime } = animation.effect?.getComputedTiming() ?? {};
    if (endTime === Infinity) {
      animation.pause();
      animation.currentTime = 0;
    } else animation.finish();
  }
  return () => style.remove();
}
