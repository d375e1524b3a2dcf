import { makeProject, withoutMemory } from './project';

/* Components of a library of the project's own: what they derive from, and what they may be given. */

const react = makeProject({
  'src/Part.tsx': `import { PureComponent } from 'react';
export abstract class Part<P> extends PureComponent<P> { protected readonly prefix = 'apiary'; }`,
  'src/plates-of-all-yards-of-the-apiary/YardPlate.tsx': `import { Part } from '../Part';
export class YardPlate extends Part<{ yard: string }> {
  override render() { return <h2 className={this.prefix}>{this.props.yard}</h2>; }
}`,
  'src/PlainTable.tsx': `import type { ReactNode } from 'react';
export const PlainTable = ({ children }: { children?: ReactNode }) => <table className="plain">{children}</table>;`,
  'src/NoteArea.tsx': `import { forwardRef, type TextareaHTMLAttributes } from 'react';
export const NoteArea = forwardRef<HTMLTextAreaElement, TextareaHTMLAttributes<HTMLTextAreaElement>>(
  (props, ref) => <textarea aria-label="Note" ref={ref} {...props} />,
);`,
  'src/BloomMark.tsx': `import { createElement } from 'react';
export const BloomMark = ({ title, children }: { title: string; children?: never }) =>
  createElement('svg', { role: 'img', 'aria-label': title }, children);`,
});

let said: { readonly code: number; readonly stdout: string };
beforeAll(async () => {
  said = await react.draft('--all', 'src', '--processes', '2');
}, 200_000);

it.each([
  [
    'a class of a base of its own',
    'plates-of-all-yards-of-the-apiary/YardPlate',
    "role('heading', 'Yard 1')",
  ],
  ['what a table may have inside', 'PlainTable', '<td>Content</td>'],
  ['a field that holds no children', 'NoteArea', 'isolate(NoteArea)'],
  ['a prop that may not be given', 'BloomMark', "role('img', 'Title 1')"],
])('is found: %s', (_, name, written) => {
  expect(withoutMemory(react.read(`src/${name}.test.tsx`)).replace(/\s+/g, ' ')).toContain(written);
});

it('a base of components is none, and what is made of it is named', async () => {
  expect(said.stdout).toMatch(/^4 of 4 components/m);
  const { code, stderr } = await react.draft('src/Part.tsx');
  expect(stderr).toMatch(/No component was found in src\/Part\.tsx/);
  // The line is broken where it is too long.
  expect(stderr).toMatch(/Take a component that uses it: +simulacra\s+draft\s+src\/plates-of-all/);
  expect(code).toBe(2);
});
