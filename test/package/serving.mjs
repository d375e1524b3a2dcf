// Serves routes by the installed package, asks for one, and prints what was answered.
import { spawn } from 'node:child_process';

const cli = 'node_modules/simulacra/dist/cli.js';
const child = spawn(process.execPath, [cli, 'serve', 'routes.mjs', '--port', '0', '--quiet']);
let said = '';
let isAsked = false;
child.stderr.pipe(process.stderr);
child.stdout.on('data', async (text) => {
  said += text;
  const [url] = /http:\S+(?= answers)/.exec(said) ?? [];
  if (isAsked || !url || !said.includes('Ctrl+C')) return;
  isAsked = true;
  console.log(await (await fetch(`${url}/api/hives`)).text());
  child.kill('SIGINT');
});
