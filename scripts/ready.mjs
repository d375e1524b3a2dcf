// Makes a fresh machine ready: installs what is missing, and only that. Needs nothing but Node.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';

const stamp = 'node_modules/.ready';
const wanted = () => createHash('sha1').update(readFileSync('package-lock.json')).digest('hex');

if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== wanted()) {
  console.log('Installing packages …');
  // Not `npm ci`: without addresses in the lock file it misses what other platforms would install.
  run('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted());
}

if (process.argv.includes('--browser') && !chromium()) {
  console.log('Installing Chromium …');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    run(command, rest);
  };
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium', 'fonts-dejavu-core');
}

/** Where Chromium is; undefined where it is not installed. */
function chromium() {
  const places = [
    process.env.CHROME_PATH,
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome',
  ];
  return places.find((place) => place && existsSync(place));
}

function run(command, args) {
  const { status } = spawnSync(command, args, { stdio: ['ignore', 'ignore', 'inherit'] });
  if (status === 0) return;
  console.error(`${command} ${args.join(' ')} failed`);
  process.exit(1);
}
