/* The scales under the hives. Whoever loads this file opens the socket, there and then. */

const socket = new WebSocket(`${location.origin.replace(/^http/, 'ws')}/live/scales`);

export interface Reading {
  hiveId: string;
  /** Kilograms. */
  kilograms: number;
}

/** Tells every reading of one hive's scale; returns how to stop. */
export function listenToScale(hiveId: string, tell: (kilograms: number) => void): () => void {
  const listen = ({ data }: MessageEvent<string>) => {
    const reading = JSON.parse(data) as Reading;
    if (reading.hiveId === hiveId) tell(reading.kilograms);
  };
  socket.addEventListener('message', listen);
  return () => socket.removeEventListener('message', listen);
}
