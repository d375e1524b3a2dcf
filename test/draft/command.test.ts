import { components, makeProject, withoutMemory } from './project';

const react = makeProject(
  components(
    'react',
    'hives.ts',
    'YardList.tsx',
    'WeightCard.tsx',
    'KeeperName.tsx',
    'keeper.tsx',
    'LiveWeight.tsx',
    'useWeight.ts',
    'scales.ts',
  ),
);
const vue = makeProject(
  components('vue', 'hives.ts', 'YardStore.vue', 'yard.ts', 'KeeperName.vue', 'keeper.ts', 'QueenBadge.vue'),
);
const angular = makeProject(
  components(
    'angular',
    'hives.ts',
    'hive-sheet.ts',
    'hive-api.ts',
    'keeper-name.ts',
    'keeper.ts',
    'weight-card.ts',
  ),
);

type Said = Awaited<ReturnType<typeof react.draft>>;
const all = ['--all', 'src', '--processes', '1'] as const;
let single: Said;
let folders: Record<'react' | 'vue' | 'angular', Said>;
// What does not wait for each other is drafted at once.
beforeAll(async () => {
  const drafting = [vue.draft(...all), angular.draft(...all)] as const;
  single = await react.draft('src/YardList.tsx');
  const ofReact = await react.draft(...all);
  folders = { react: ofReact, vue: await drafting[0], angular: await drafting[1] };
}, 240_000);

describe('a draft passes at once, and says what the component brings', () => {
  it('of each state that its requests bring it into', () => {
    const { code, stderr } = single;
    expect(stderr).toMatch(/^passes .*YardList\.test\.tsx {3}4 tests/);
    expect(code).toBe(0);
    expect(withoutMemory(react.read('src/YardList.test.tsx'))).toMatchSnapshot();
  });

  it.each([
    ['react', react, ['KeeperName', 'LiveWeight', 'WeightCard', 'KeeperProvider'], 4],
    ['vue', vue, ['KeeperName', 'QueenBadge', 'YardStore'], 3],
    ['angular', angular, ['HiveSheet', 'KeeperName', 'WeightCard'], 3],
  ] as const)('of all components of a folder, in %s', (framework, project, names, count) => {
    const { code, stdout } = folders[framework];
    for (const name of names) expect(stdout).toMatch(new RegExp(`^passes +${name} `, 'm'));
    expect(stdout).toContain(`${count} of ${count} components drafted with a test that passes`);
    expect(code).toBe(0);
    const written = project.list().filter((file) => file.includes('.test.') && !file.startsWith('YardList'));
    expect(
      Object.fromEntries(written.map((file) => [file, withoutMemory(project.read(`src/${file}`))])),
    ).toMatchSnapshot();
  });

  it('and no test again where there is one', async () => {
    const { code, stdout } = await vue.draft('--all', 'src', '--processes', '1');
    expect(stdout).toMatch(/^left as is +QueenBadge +QueenBadge\.test\.ts is there/m);
    expect(stdout).toContain('0 of 0 components');
    expect(code).toBe(0);
  });

  it('as declared states', async () => {
    const { code, stdout } = await react.draft('YardList', '--states', '--print');
    expect(code).toBe(0);
    expect(withoutMemory(stdout)).toMatchSnapshot();
    expect(react.list()).not.toContain('YardList.states.tsx');
  });
});

describe('an older draft', () => {
  const fine = (text: string) =>
    `export const Greeting = ({ name, place = 'yard' }: { name: string; place?: string }) => <p>${text}</p>;\n`;
  const project = makeProject({ 'src/Greeting.tsx': fine('Dear {name}') });

  it('is brought up to date, but for the lines that a person has changed', async () => {
    await project.draft('Greeting');
    const first = project.read('src/Greeting.test.tsx');
    expect(first).toContain("toShow(text('Dear Name 1'))");
    project.put(
      'src/Greeting.test.tsx',
      first.replace("it('shows what it is given'", "it('greets the keeper'"),
    );
    project.put('src/Greeting.tsx', fine('Hello {name}'));
    const { code } = await project.draft('Greeting');
    const second = project.read('src/Greeting.test.tsx');
    expect(code).toBe(0);
    expect(second).toContain("it('greets the keeper'");
    expect(second).toContain("toShow(text('Hello Name 1'))");
    expect(second).not.toContain('Dear');
  });

  it('that fails with what a person has changed is left as it is', async () => {
    const changed = project.read('src/Greeting.test.tsx').replaceAll('Hello Name 1', 'Hello Imke');
    project.put('src/Greeting.test.tsx', changed);
    const { code, stderr } = await project.draft('Greeting');
    expect(code).toBe(1);
    expect(stderr).toMatch(/"greets the keeper" fails: Error: SIM-FIND-NONE/);
    expect(project.read('src/Greeting.test.tsx')).toBe(changed);
  });
});
