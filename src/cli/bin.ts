import { main } from './main';

// The first Ctrl+C ends what runs, the second one the process.
const untilStopped = () => {
  const stopping = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stopping.abort());
  return stopping.signal;
};

// Nobody may be reading any more; what is being done is still brought to its end.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

/** The progress line; other output replaces it. */
let line = '';
function progress(now: string): void {
  if (now === line) return;
  line = now;
  process.stderr.write(`\r\u001b[K${now.slice(0, (process.stderr.columns ?? 80) - 1)}`);
}
const after = (stream: NodeJS.WriteStream) => (text: string) => {
  progress('');
  stream.write(text);
};

process.exitCode = await main(
  process.argv.slice(2),
  {
    write: after(process.stdout),
    complain: after(process.stderr),
    ...(process.stderr.isTTY && { progress }),
    colour: process.stdout.isTTY === true && !process.env['NO_COLOR'],
  },
  untilStopped,
);
progress('');
