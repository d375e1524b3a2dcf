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
  'src/BloomChart.tsx': `import { useEffect, useRef } from 'react';
export function BloomChart({ plant }: { plant: string }) {
  const drawing = useRef<HTMLCanvasElement>(null);
  useEffect(() => drawing.current!.getContext('2d')!.fillRect(0, 0, 4, 4), [plant]);
  return <figure><canvas ref={drawing} /><figcaption>Bloom of {plant}</figcaption></figure>;
}`,
  'src/YardNodes.tsx': `enum Shade { Sun = 'sun', Wood = 'wood' }
interface Node { readonly label: string }
export { Shade, type Node };
export const YardNodes = ({ root, shade = Shade.Sun }: { root: Node; shade?: Shade }) => <p>{root.label} in the {shade}</p>;`,
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
  'src/YardMark.vue': `<template><i :class="['mark', sign && 'mark-' + sign]" /></template>
<script lang="ts">
import { defineComponent } from 'vue';
export default defineComponent({ props: { sign: String } });
</script>`,
  'src/Scale.vue': `<template><div><slot /></div></template>
<script>
export default { data: () => ({ isScale: true }) };
</script>`,
  'src/YardTick.vue': `<template><span>{{ at }}</span></template>
<script>
export default {
  props: { at: { type: String, required: true } },
  created() { if (!this.$parent?.$data?.isScale) throw new Error('You should wrap byTick on a byScale'); },
};
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

const angular = makeProject({
  'src/environment.ts': `export const environment = { apiUrl: 'https://brackenfold.example/api' };`,
  'src/hive.ts': `export enum Season { Spring = 'spring', Winter = 'winter' }
export interface Hive { name: string; hatched: Date; frames: string[]; }`,
  'src/hive.service.ts': `import { HttpClient } from '@angular/common/http';
import { Injectable } from '@angular/core';
import { environment } from './environment';
import type { Hive } from './hive';
@Injectable({ providedIn: 'root' })
export class HiveService {
  private readonly url = \`\${environment.apiUrl}/hives\`;
  constructor(private readonly http: HttpClient) {}
  one(id: string) { return this.http.get<Hive>(\`\${this.url}/\${id}\`, { params: new URLSearchParams([['all', '1']]) as never }); }
}`,
  'src/hive-page.component.ts': `import { Component } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute } from '@angular/router';
import { HiveService } from './hive.service';
@Component({ selector: 'hive-page', template: \`<h1>{{ yard }}</h1>@if (hive(); as h) { <h2>{{ h.name }}</h2><p>{{ h.frames.length }} frames</p> }\` })
export class HivePageComponent {
  readonly yard = this.route.snapshot.paramMap.get('yard');
  readonly hive = toSignal(this.hives.one(this.route.snapshot.params['hiveId']));
  constructor(private readonly hives: HiveService, private readonly route: ActivatedRoute) {}
}`,
  'src/ask-dialog.ts': `import { Component, Inject } from '@angular/core';
import { YARD_DATA, YardRef } from 'yard-dialog';
export interface AskData { question: string; isGrave?: boolean }
@Component({ selector: 'ask-dialog', template: '<h2>{{ data.question }}</h2><button (click)="ref.close(true)">Yes</button>' })
export class AskDialog { constructor(readonly ref: YardRef<boolean>, @Inject(YARD_DATA) readonly data: AskData) {} }`,
  'src/shout.pipe.ts': `import { Pipe } from '@angular/core';
@Pipe({ name: 'shout', standalone: false }) export class ShoutPipe { transform(words: string) { return words.toUpperCase(); } }`,
  'src/old-card.ts': `import { Component, Input } from '@angular/core';
@Component({ selector: 'old-card', standalone: false, template: '<h3 *ngIf="name">{{ name | shout }}</h3>' })
export class OldCard { @Input({ required: true }) name!: string; }`,
  'src/app.module.ts': `import { NgModule } from '@angular/core';
import { BrowserModule } from '@angular/platform-browser';
import { OldCard } from './old-card';
import { ShoutPipe } from './shout.pipe';
@NgModule({ declarations: [OldCard, ShoutPipe], imports: [BrowserModule] }) export class AppModule {}`,
  'src/base-field.ts': `import { Directive, Input } from '@angular/core';
import { FormControl } from '@angular/forms';
@Directive() export abstract class BaseField<T> { @Input({ required: true }) control!: FormControl<T>; @Input({ required: true, alias: 'caption' }) label!: string; }`,
  'src/number-field.ts': `import { Component, Input } from '@angular/core';
import { ReactiveFormsModule } from '@angular/forms';
import { BaseField } from './base-field';
import { Season } from './hive';
@Component({ selector: 'number-field', imports: [ReactiveFormsModule], template: '<label>{{ label }} in {{ season }} <input type="number" [formControl]="control"></label>' })
export class NumberField extends BaseField<number | null> { @Input() season = Season.Spring; }`,
  'src/address-group.ts': `import { Component } from '@angular/core';
import { ControlContainer, FormGroupDirective, ReactiveFormsModule } from '@angular/forms';
@Component({ selector: 'address-group', imports: [ReactiveFormsModule], viewProviders: [{ provide: ControlContainer, useExisting: FormGroupDirective }],
  template: '<fieldset formGroupName="address"><legend>Address</legend><label>Road <input formControlName="road"></label></fieldset>' })
export class AddressGroup {}`,
  'src/yard-toasts.ts': `import { Component, Injectable, inject, signal } from '@angular/core';
@Injectable({ providedIn: 'root' }) export class Toasts { readonly all = signal<{ id: number; text: string; level: 'low' | 'high' }[]>([]); }
@Component({ selector: 'yard-toasts', template: '@for (one of toasts.all(); track one.id) { <p [class]="one.level">{{ one.text }}</p> }' })
export class YardToasts { readonly toasts = inject(Toasts); }`,
  'src/data-table.ts': `import { Component, input } from '@angular/core';
export interface Column<T> { key: keyof T & string; label: string }
@Component({ selector: 'data-table', template: '<table><tr>@for (one of columns(); track one.key) { <th>{{ one.label }}</th> }</tr></table>' })
export class DataTable<T extends object> { columns = input.required<Column<T>[]>(); rows = input<T[]>([]); }`,
  'node_modules/yard-dialog/package.json':
    '{ "name": "yard-dialog", "main": "index.js", "types": "index.d.ts" }',
  'node_modules/yard-dialog/index.js': `const { InjectionToken } = require('@angular/core');
exports.YARD_DATA = new InjectionToken('YardMdcData');
exports.YardRef = class YardRef { close() { throw new Error('There is no dialog'); } };`,
  'node_modules/yard-dialog/index.d.ts': `import { InjectionToken } from '@angular/core';
export declare const YARD_DATA: InjectionToken<any>;
export declare class YardRef<R> { readonly opened: Promise<Event>; close(result?: R): void; }`,
});

let said: Record<'react' | 'vue' | 'angular', { readonly code: number; readonly stdout: string }>;
beforeAll(async () => {
  const all = ['--all', 'src', '--processes', '1'];
  const drafting = [react, vue, angular].map((project) => project.draft(...all));
  const [ofReact, ofVue, ofAngular] = await Promise.all(drafting);
  said = { react: ofReact!, vue: ofVue!, angular: ofAngular! };
}, 400_000);

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
  ['a canvas', react, 'BloomChart.test.tsx', 'HTMLCanvasElement.prototype.getContext ='],
  ['types that are called as others are', react, 'YardNodes.test.tsx', "root: Node = { label: 'Node 1' }"],
  ['what only the eye sees', vue, 'YardMark.test.ts', ".getAttribute('class')).toBe('mark mark-Sign 1')"],
  ['a parent whose name begins otherwise', vue, 'YardTick.test.js', 'wrap: [Scale]'],
  [
    'an address out of an object and a field',
    angular,
    'hive-page.component.test.ts',
    "'GET https://brackenfold.example/api/hives/:id': hive",
  ],
  [
    'the route that it reads',
    angular,
    'hive-page.component.test.ts',
    "convertToParamMap({ yard: 'yard-1' })",
  ],
  ['what a package injects', angular, 'ask-dialog.test.ts', "[YARD_DATA, { question: 'Question 1' }]"],
  ['a module that declares it', angular, 'old-card.test.ts', 'wrap: [AppModule]'],
  ['a control, and the name of a field', angular, 'number-field.test.ts', 'control: new FormControl('],
  ['a word of an enum', angular, 'number-field.test.ts', 'season: Season.Winter'],
  ['the form that it is a part of', angular, 'address-group.test.ts', 'address: new FormGroup({ road: new'],
  ['what a service holds', angular, 'yard-toasts.test.ts', "signal<ReturnType<Toasts['all']>>(["],
  ['names of what is not known yet', angular, 'data-table.test.ts', "as never, label: 'Column 1'"],
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
