import { main } from './main';

process.exitCode = await main(process.argv.slice(2), {
  write: (text) => void process.stdout.write(text),
  complain: (text) => void process.stderr.write(text),
  colour: process.stdout.isTTY === true && !process.env['NO_COLOR'],
});
