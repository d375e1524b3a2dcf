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

describe('what is a component', () => {
  const sources: Readonly<Record<string, readonly [source: string, components: readonly string[]]>> = {
    'a class of a base of its own': [
      `import { Part } from './base'; export class Card extends Part { render() { return <p/>; } }`,
      ['Card'],
    ],
    'a class that renders by a function, without elements': [
      `import { createElement } from 'react'; import { BaseComponent } from './base';
       export class Card extends BaseComponent { render = () => createElement('p'); }`,
      ['Card'],
    ],
    'no base of components': [
      `import { Component } from 'react'; export abstract class Part extends Component { declare props: object; }`,
      [],
    ],
    'no base whose classes render': [
      `import { Component } from 'react'; export abstract class Part extends Component { abstract render(): string; }`,
      [],
    ],
    'no class that renders something else': [
      `import { Surface } from './surface'; export class Chart extends Surface { render() { this.draw(); } }`,
      [],
    ],
    'no base of Angular components': [
      `import { inject } from '@angular/core'; import { BaseComponent } from './base';
       export class Card extends BaseComponent { render() { return inject(String); } }`,
      [],
    ],
    'what a function of the file makes': [
      `import { createElement, forwardRef } from 'react';
       function heading(tag) { return forwardRef((props, ref) => createElement(tag, { ...props, ref })); }
       export const H1 = heading('h1'); export const Title = heading('h2');`,
      ['H1', 'Title'],
    ],
    'nothing that only holds what such a function makes, or is that function': [
      `import { forwardRef } from 'react';
       function heading(tag) { return forwardRef(() => tag); }
       export const Headings = { first: heading('h1') }; export const Title = heading;`,
      [],
    ],
    'nothing that a plain function makes': [
      `const list = () => ['north', 'south']; export const YARDS = list(); export const First = list()[0];`,
      [],
    ],
  };
  const kinds = makeProject({
    'Card.stories.tsx': 'export const Resting = () => <p/>;',
    ...Object.fromEntries(Object.values(sources).map(([source], index) => [`kind-${index}.tsx`, source])),
  });
  it('nothing in a file of stories', async () => {
    expect((await kinds.survey('.', '--json')).stdout).not.toContain('Resting');
  });
  it.each(Object.entries(sources).map(([name, [, names]], index) => [name, index, names] as const))(
    '%s',
    async (_, index, names) => {
      const { stdout, stderr } = await kinds.survey('.', '--json');
      const { components } = JSON.parse(stdout) as { components: readonly RowData[] };
      const found = components.filter(({ file }) => file === `kind-${index}.tsx`);
      expect({ names: found.map(({ name }) => name).sort(), stderr }).toEqual({ names, stderr: '' });
    },
  );
});
