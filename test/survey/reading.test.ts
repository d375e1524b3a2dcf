/** @jest-environment node */
import { angular, react, vue, type Case } from './cases';
import { leavesOf, makeProject, type RowData } from './project';

const all = Object.entries({
  ...prefixed('React', react),
  ...prefixed('Vue', vue),
  ...prefixed('Angular', angular),
});

function prefixed(framework: string, cases: Readonly<Record<string, Case>>): Record<string, Case> {
  return Object.fromEntries(Object.entries(cases).map(([name, one]) => [`${framework}: ${name}`, one]));
}

/* Each case is a folder of its own; one call surveys all of them. */
const folderOf = (index: number) => `case-${index}`;
const files = all.flatMap(([, one], index) =>
  Object.entries(one.files).map(([name, text]) => [`${folderOf(index)}/${name}`, text]),
);
const project = makeProject(Object.fromEntries(files) as Record<string, string>);

describe('what a component leans on', () => {
  let found: { readonly components: readonly RowData[]; readonly problems: readonly unknown[] };
  beforeAll(async () => {
    const { stdout, stderr } = await project.survey('.', '--json');
    expect(stderr).toBe('');
    found = JSON.parse(stdout) as typeof found;
  });

  it.each(all.map(([name, one], index) => [name, one, index] as const))('%s', (_, one, index) => {
    const file = `${folderOf(index)}/${Object.keys(one.files)[0]!}`;
    const data = found.components.find((component) => component.file === file && component.name === 'Board');
    expect(data && leavesOf(data)).toEqual([...one.leans].sort());
    expect(data).toMatchObject(one.takes ?? {});
  });

  it('finds nothing to complain of', () => {
    expect(found.problems).toEqual([]);
  });
});
