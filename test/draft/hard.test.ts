import { makeProject, withoutMemory } from './project';

/* What a component needs that neither its types nor its failure says outright. */

const react = makeProject({
  'src/NotedWeight.tsx': `export function NotedWeight({ title, label }: { title?: string; label?: string }) {
  if (!title && !label) console.warn('A weight needs a title or a label.');
  return <meter aria-label={title ?? label} value={4} max={9} />;
}`,
  'src/OldCard.tsx': `export function OldCard() {
  console.warn('OldCard is going away. Use HiveCard.');
  return <h2>Hive</h2>;
}`,
  'src/YardTabs.tsx': `import { createContext, type ReactNode } from 'react';
export const YardTabsContext = createContext<{ readonly chosen: string } | null>(null);
export const YardTabs = ({ value = '', children }: { value?: string; children?: ReactNode }) => (
  <YardTabsContext.Provider value={{ chosen: value }}>{children}</YardTabsContext.Provider>
);`,
  'src/YardTab.tsx': `import { useContext, type ReactNode } from 'react';
import { YardTabsContext } from './YardTabs';
export function YardTab({ value, children }: { value: string; children?: ReactNode }) {
  const tabs = useContext(YardTabsContext);
  if (!tabs) throw new Error('Put YardTab into a yard tabs component.');
  return tabs.chosen === value ? <section aria-label="Yard">{children}</section> : null;
}`,
  'src/GlyphButton.tsx': `import { Glyph } from './Glyph';
export const GlyphButton = ({ icon }: { icon: string }) => <button type="button"><Glyph name={\`\${icon}-outline\`} /></button>;`,
  'src/FrostSign.tsx': `export function FrostSign({ title, isFatal }: { title: string; isFatal?: boolean; note?: string }) {
  if (isFatal) process.exit(3);
  return <h2>{title}</h2>;
}`,
  'src/SignedNote.tsx': `export const SignedNote = ({ keeper }: { keeper: string }) => (
  <aside>
    <svg aria-hidden="true" /> Signed by <b>{keeper}</b>
  </aside>
);`,
  'src/Glyph.tsx': `export const Glyph = ({ name }: { name: string }) => <svg aria-hidden="true" data-name={name} />;`,
  'src/KitNote.tsx': `import { useKit } from 'yard-kit';
export const KitNote = () => <p>Measured in {useKit().unit}</p>;`,
  'src/FrameSelect.tsx': `import { Children, type ReactElement, type ReactNode } from 'react';
export function FrameSelect({ value, children }: { value?: string; children?: ReactNode }) {
  const chosen = Children.toArray(children).find((one) => (one as ReactElement<{ value?: string }>).props.value === value);
  return <div role="group" aria-label="Frames" data-chosen={Boolean(chosen)}>{children}</div>;
}`,
  'node_modules/yard-kit/package.json': '{ "name": "yard-kit", "main": "index.js", "types": "index.d.ts" }',
  'node_modules/yard-kit/index.js': `const { createContext, createElement, useContext } = require('react');
const Kit = createContext(null);
exports.KitProvider = ({ unit, children }) => createElement(Kit.Provider, { value: { unit } }, children);
exports.useKit = () => {
  const kit = useContext(Kit);
  if (!kit) throw new Error('useKit() must be called inside a KitProvider.');
  return kit;
};`,
  'node_modules/yard-kit/index.d.ts': `import type { ReactNode } from 'react';
export declare const KitProvider: (props: { unit: string; children?: ReactNode }) => ReactNode;
export declare const useKit: () => { unit: string };`,
});

const vue = makeProject({
  'src/StepList.vue': `<template><div role="tablist"><slot /></div></template>
<script>
export default { props: { value: String }, provide() { return { $steps: this }; } };
</script>`,
  'src/StepItem.vue': `<template><section v-if="isChosen" aria-label="Step"><slot /></section></template>
<script>
export default {
  props: { value: String },
  inject: { $steps: { default: null } },
  computed: { isChosen() { return this.$steps.value === this.value; } },
};
</script>`,
  'src/UnitsText.vue': `<template><p>In {{ $units.name }}</p></template>
<script>
import { round } from 'yard-units';
export default { methods: { round } };
</script>`,
  'src/ShelfRow.vue': `<template><section><h3>Shelf</h3><frame-count v-yard-focus /></section></template>`,
  'src/BaseField.vue': `<script>
export default { props: { hint: String } };
</script>`,
  'src/WeightField.vue': `<template><input :value="modelValue" :aria-label="hint"></template>
<script>
import { base } from 'yard-units/base';
import BaseField from './BaseField.vue';
export default { extends: BaseField, mixins: [base] };
</script>`,
  'src/DayRow.vue': `<template><ul><li v-for="day in days" :key="day">{{ day.getDate() }}</li></ul></template>
<script lang="ts">
import { defineComponent } from 'vue'
export default defineComponent({ props: { days: { type: Array<Date>, required: true } } })
</script>`,
  'src/YardNode.vue': `<script>
import { h } from 'vue'
import YardTree from './YardTree.vue'
const YardNode = {
  name: 'YardNode',
  props: { name: String, open: Boolean },
  render() { return h('li', [this.name, this.open ? h(YardTree) : null]) },
}
export default YardNode
</script>`,
  'src/YardTree.vue': `<template><ul><YardNode name="North" /></ul></template>
<script>
import YardNode from './YardNode.vue';
export default { components: { [YardNode.name]: YardNode } };
</script>`,
  'node_modules/yard-units/package.json': JSON.stringify({
    name: 'yard-units',
    exports: { '.': './index.js', './plugin': './plugin.js', './base': './base.js' },
  }),
  'node_modules/yard-units/index.js': 'exports.round = Math.round;',
  'node_modules/yard-units/base.js': 'exports.base = { props: { modelValue: { default: undefined } } };',
  'node_modules/yard-units/plugin.js': `Object.defineProperty(exports, '__esModule', { value: true });
const plugin = { install(app) { app.config.globalProperties.$units = { name: 'kilograms' }; } };
exports.default = plugin; // as default`,
});

let said: Record<'react' | 'vue', { readonly code: number; readonly stdout: string }>;
beforeAll(async () => {
  const all = ['--all', 'src', '--processes', '1'];
  const [ofReact, ofVue] = await Promise.all([react.draft(...all), vue.draft(...all)]);
  said = { react: ofReact, vue: ofVue };
}, 240_000);

it.each([
  ['a prop that a warning names', react, 'NotedWeight.test.tsx', "props: { title: 'Title 1'"],
  ['a warning of its own, whatever it is given', react, 'OldCard.test.tsx', "logs: ['OldCard is going away"],
  [
    'a parent that the failure speaks of',
    react,
    'YardTab.test.tsx',
    "wrap: [[YardTabs, { value: 'Value 1' }]]",
  ],
  [
    'nothing to see but what a child is given',
    react,
    'GlyphButton.test.tsx',
    'part(Glyph).props).toMatchObject(',
  ],
  ['a state that ends the process', react, 'FrostSign.test.tsx', "toShow(role('heading', 'Title 1'))"],
  ['a text beside what has no words', react, 'SignedNote.test.tsx', "text('Signed by Keeper 1')"],
  ['a provider of a package', react, 'KitNote.test.tsx', "wrap: [[KitProvider, { unit: 'Unit 1' }]]"],
  ['an element inside of it', react, 'FrameSelect.test.tsx', '<button type="button">Content</button>'],
  ['a parent whose value it injects', vue, 'StepItem.test.js', 'wrap: [StepList]'],
  ['a plugin of a package', vue, 'UnitsText.test.js', "import Units from 'yard-units/plugin'"],
  [
    'a component and a directive that nobody registers',
    vue,
    'ShelfRow.test.js',
    "stub: ['FrameCount', 'v-yard-focus']",
  ],
  [
    'props that it inherits from a package',
    vue,
    'WeightField.test.js',
    "toHaveProperty('value', 'Model value 1')",
  ],
  ['a list of what a constructor says', vue, 'DayRow.test.ts', 'days: [new Date('],
  ['files that import each other', vue, 'YardNode.test.js', "import './YardTree.vue'"],
])('is found: %s', (_, project, file, written) => {
  expect(withoutMemory(project.read(`src/${file}`))).toContain(written);
});

it('a component without a template is left out, and told of where it is asked for', async () => {
  expect(said.vue.stdout).toMatch(/^left as is +BaseField +it has no template of its own/m);
  const { code, stderr } = await vue.draft('BaseField');
  expect(stderr).toMatch(/BaseField in src\/BaseField.vue has no template and no render\s+function/);
  expect(stderr).toMatch(/Draft one that is made of it: +WeightField/);
  expect(code).toBe(2);
});
