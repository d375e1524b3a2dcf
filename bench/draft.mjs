// What a draft takes, and how many of the components in test/draft pass without an edit, per framework.
import { execFile } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { clearInterval, setInterval } from 'node:timers';
import { promisify } from 'node:util';

const root = join(import.meta.dirname, '..');
const compilerOptions = {
  ...{ target: 'ES2022', module: 'ESNext', moduleResolution: 'Bundler', jsx: 'react-jsx', strict: true },
  ...{ skipLibCheck: true, experimentalDecorators: true, lib: ['ES2023', 'DOM', 'DOM.Iterable'] },
};

/** What a process and all that it started hold, in MB. */
function memoryOf(pid) {
  try {
    const [, pages] = readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ');
    const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean);
    return (Number(pages) * 4096) / 1e6 + children.reduce((sum, child) => sum + memoryOf(child), 0);
  } catch {
    return 0;
  }
}

/** Drafts all components of one framework in a project of their own. */
export async function draftAll(framework) {
  mkdirSync(join(root, '.cache'), { recursive: true });
  const place = mkdtempSync(join(root, '.cache/drafts-'));
  try {
    cpSync(join(root, 'test/draft', framework), join(place, 'src'), { recursive: true });
    writeFileSync(join(place, 'package.json'), '{ "name": "apiary", "type": "module" }');
    writeFileSync(join(place, 'tsconfig.json'), JSON.stringify({ compilerOptions, include: ['src'] }));
    mkdirSync(join(place, 'node_modules'));
    symlinkSync(root, join(place, 'node_modules/simulacra'));
    const begun = performance.now();
    const args = [join(root, 'dist/cli.js'), 'draft', '--all', 'src', '--print', '--processes', '1'];
    const running = promisify(execFile)(process.execPath, args, { cwd: place });
    let most = 0;
    const watch = setInterval(() => (most = Math.max(most, memoryOf(running.child.pid))), 250);
    const { stdout } = await running.catch((failed) => failed);
    clearInterval(watch);
    const seconds = (performance.now() - begun) / 1000;
    const [, passed, of] = /^(\d+) of (\d+) component/m.exec(stdout) ?? [];
    const failing = [...stdout.matchAll(/^(?:fails|broken) +(\w+)/gm)].map(([, name]) => name);
    return {
      framework,
      passed: Number(passed),
      of: Number(of),
      failing,
      most,
      secondsEach: seconds / Number(of),
    };
  } finally {
    if (existsSync(place) && readdirSync(place).length > 0) rmSync(place, { recursive: true, force: true });
  }
}

/** All three, as a section of RESULTS.md. */
export async function drafting() {
  const rows = [];
  for (const framework of ['react', 'vue', 'angular']) rows.push(await draftAll(framework));
  const lines = rows.map(
    ({ framework, passed, of, failing, secondsEach, most }) =>
      `| ${framework} | ${passed} of ${of} | ${secondsEach.toFixed(1)} s | ${most.toFixed(0)} MB | ${failing.join(', ')} |`,
  );
  return `## Drafts

Components written for the purpose (\`test/draft\`), drafted one after the other in a project without a configuration:
how many pass without an edit, what one takes, and the most memory that the command and its process held.

| | Pass | Each | Memory | Not |
| --- | --- | --- | --- | --- |
${lines.join('\n')}
`;
}

const results = join(root, 'bench/RESULTS.md');
if (process.argv[1] === import.meta.filename) {
  const section = await drafting();
  const text = readFileSync(results, 'utf8');
  const others = text.replace(/## Drafts\n[\s\S]*?(?=\nMeasured on )/, '');
  writeFileSync(
    results,
    others.replace(/\nMeasured on /, () => `\n${section}\nMeasured on `),
  );
  console.log(section);
}
