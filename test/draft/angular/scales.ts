const socket = new WebSocket('ws://localhost/live/scales');

export function listen(tell: (kilograms: number) => void): () => void {
  const hear = ({ data }: MessageEvent<string>) => tell(Number(data));
  socket.addEventListener('message', hear);
  return () => socket.removeEventListener('message', hear);
}
