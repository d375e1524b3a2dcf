import { main } from './main';

// The first Ctrl+C ends what runs, the second one the process.
const untilStopped = () => {
  const stopping = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stopping.abort());
  return stopping.signal;
};

// Nobody may be reading any more; what is being done is still brought to its end.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

process.exitCode = await main(
  process.argv.slice(2),
  {
    write: (text) => void process.stdout.write(text),
    complain: (text) => void process.stderr.write(text),
    ...(process.stderr.isTTY && {
      progress: (line: string) =>
        void process.stderr.write(`\r\u001b[K${line.slice(0, (process.stderr.columns ?? 80) - 1)}`),
    }),
    colour: process.stdout.isTTY === true && !process.env['NO_COLOR'],
  },
  untilStopped,
);
