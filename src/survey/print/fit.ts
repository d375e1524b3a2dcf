/** Cuts or fills a text to a width. What is cut off is its beginning for a path, else its end. */
export function fit(text: string, room: number): string {
  if (text.length <= room) return text.padEnd(room);
  return /\/.*:\d+$/.test(text) && !/[─│]/.test(text)
    ? `…${text.slice(text.length - room + 1)}`
    : `${text.slice(0, room - 1)}…`;
}
