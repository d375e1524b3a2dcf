/** @jest-environment node */
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { componentOf, good, hiveSign, makeProject, quick, readSheet, signStates } from './project';

describe('accepted pictures', () => {
  const project = makeProject(good);
  const compare = () => project.sheet([...quick, '--compare']);
  const accept = () => project.sheet([...quick, '--accept']);
  const failuresIn = () =>
    componentOf(readSheet(project.path('sheet/sheet.json')), 'HiveSign').states.map(
      ({ views: [view] }) => view!.failure?.code,
    );
  const accepted = 'accepted-pictures/src/HiveSign/loaded.300.light.png';

  it('are missing at first, are taken, and are the same then', async () => {
    expect((await compare()).words).toMatch(/SIM-PICTURE-NEW .* 3 not accepted yet/);
    const taken = await accept();
    expect([taken.code, taken.words]).toEqual([
      0,
      expect.stringContaining('3 pictures taken as accepted: accepted-pictures'),
    ]);
    expect((await compare()).code).toBe(0);
  }, 120_000);

  it('are compared: what changed is marked, and can be taken', async () => {
    project.put('src/HiveSign.jsx', hiveSign('Beehive'));
    const changed = await compare();
    expect([changed.code, failuresIn()]).toEqual([1, Array(3).fill('SIM-PICTURE-CHANGED')]);
    expect(changed.words).toMatch(
      /"loaded" looks other than was accepted: [\d.]+ % of its picture changed, and 0\.1 % may/,
    );
    const folder = readdirSync(project.path('sheet/pictures/src/HiveSign')).filter((name) =>
      name.startsWith('loaded'),
    );
    expect(folder.sort()).toEqual([
      'loaded.300.light.accepted.png',
      'loaded.300.light.difference.png',
      'loaded.300.light.png',
    ]);
    expect((await project.sheet([...quick, '--compare', '--tolerance', '0.5'])).code).toBe(0);
    await accept();
    expect((await compare()).code).toBe(0);
  }, 120_000);

  it('are told of by their size, and where they cannot be read', async () => {
    const { width, height } = PNG.sync.read(readFileSync(project.path(accepted)));
    writeFileSync(project.path(accepted), PNG.sync.write(new PNG({ width, height: height + 7 })));
    writeFileSync(project.path('accepted-pictures/src/HiveSign/failed.300.light.png'), 'no picture');
    const { words } = await compare();
    expect(words).toContain(`is ${width} × ${height} and was accepted as ${width} × ${height + 7} pixels`);
    expect(failuresIn()).toEqual([undefined, 'SIM-PICTURE-FILE', 'SIM-PICTURE-CHANGED']);
  }, 60_000);

  it('of a state that is gone go, and of one that is wrong are not taken', async () => {
    project.put(
      'src/HiveSign.states.jsx',
      signStates.replace(/ {2}failed.*\n/, '').replace("role('status')", "role('alert')"),
    );
    rmSync(project.path(accepted));
    const { words } = await accept();
    expect(words).toContain('1 picture taken as accepted, 1 of states that are no more taken away');
    expect(existsSync(project.path('accepted-pictures/src/HiveSign/failed.300.light.png'))).toBe(false);
  }, 60_000);
});

describe('parts of a sheet', () => {
  const project = makeProject({
    ...good,
    'src/A.states.jsx': signStates,
    'src/B.states.jsx': signStates,
  });

  it('are drawn apart, and are one again', async () => {
    for (const part of ['1', '2']) {
      const { code } = await project.sheet([...quick.slice(0, -1), `part-${part}`, '--shard', `${part}/2`]);
      expect(code).toBe(0);
    }
    const missing = await project.sheet(['--merge', 'part-1', '--out', 'whole']);
    expect([missing.code, missing.words]).toEqual([2, expect.stringContaining('part 2/2 was not given')]);
    const twice = await project.sheet(['--merge', 'part-1', 'part-1', 'part-2', '--out', 'whole']);
    expect(twice.words).toMatch(/it has src\/A\.states\.jsx, and so has part-1/);
    expect((await project.sheet(['--merge', 'part-1', 'part-2', '--out', 'whole'])).code).toBe(0);
    const { components, shard } = readSheet(project.path('whole/sheet.json'));
    expect(components.map(({ file }) => file)).toEqual(
      ['A', 'B', 'HiveSign'].map((name) => `src/${name}.states.jsx`),
    );
    expect(shard).toBeUndefined();
    for (const { picture } of components.flatMap(({ states }) => states.flatMap(({ views }) => views)))
      expect(existsSync(project.path('whole', picture!))).toBe(true);
  }, 120_000);
});
