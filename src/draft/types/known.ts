import type * as Ts from 'typescript';
import { momentOf, type Place } from '../../network/contract/plausible';
import { around, code, object, otherDay, text, type Needed, type Value } from '../value';
import type { Sampling } from './sample';

/* Types that the platform and the frameworks have, which nobody writes out. */

/** True for what holds a value or many, and is itself no plain object. */
export const isHolder = ({ symbol }: Ts.Type): boolean =>
  /^(Ref|ShallowRef|ComputedRef|Signal|WritableSignal|Observable|Map|Set|Date)$/.test(
    (symbol as Ts.Symbol | undefined)?.name ?? '',
  );

const platform: Readonly<Record<string, Value>> = {
  RegExp: code('/hive/'),
  Map: code('new Map()'),
  ReadonlyMap: code('new Map()'),
  Set: code('new Set()'),
  ReadonlySet: code('new Set()'),
  WeakMap: code('new WeakMap()'),
  URL: code("new URL('https://brackenfold.example/')"),
  Error: {
    kind: 'code',
    code: "new Error('The hive is closed')",
    varied: "new Error('The yard is shut')",
  },
  File: code("new File(['…'], 'frame.png', { type: 'image/png' })"),
  Blob: code("new Blob(['…'])"),
  AbortSignal: code('new AbortController().signal'),
};

export function ofPlatform(
  name: string,
  place: Place,
  { isJson }: Sampling,
  inner: () => Value,
): Value | undefined {
  if (name === 'Date') {
    const moment = momentOf(place);
    return isJson
      ? text(moment)
      : { kind: 'code', code: `new Date('${moment}')`, varied: `new Date('${otherDay(moment)}')` };
  }
  if (name === 'Promise') return around('Promise.resolve(', inner(), ')');
  if (Object.hasOwn(platform, name)) return platform[name];
  return /^HTML\w*Element$|^Node$/.test(name) ? code("document.createElement('div')") : undefined;
}

const frameworks: Readonly<Record<string, (inner: () => Value) => Value>> = {
  'react ReactElement': () => ({
    kind: 'code',
    code: '<span>Content</span>',
    varied: '<span>Other content</span>',
  }),
  'react RefObject': () => code('{ current: null }'),
  'react MutableRefObject': () => code('{ current: null }'),
  'react ComponentType': () => code('() => null'),
  'react FunctionComponent': () => code('() => null'),
  'react ForwardRefExoticComponent': () => code('() => null'),
  'react CSSProperties': () => object([]),
  'vue StyleValue': () => object([]),
  'vue VNode': () => text('Content'),
  'vue VNodeChild': () => text('Content'),
  ...Object.fromEntries(
    ['Ref', 'ShallowRef', 'ComputedRef', 'ModelRef'].map((name) => [
      `vue ${name}`,
      (inner: () => Value) => typed('ref', inner(), { name: 'ref', from: 'vue' }),
    ]),
  ),
  ...Object.fromEntries(
    ['Signal', 'WritableSignal', 'InputSignal'].map((name) => [
      `angular ${name}`,
      (inner: () => Value) => typed('signal', inner(), { name: 'signal', from: '@angular/core' }),
    ]),
  ),
  ...Object.fromEntries(
    ['FormControl', 'AbstractControl', 'UntypedFormControl'].map((name) => [
      `angular ${name}`,
      (inner: () => Value) => around('new FormControl(', inner(), ')', ofForms('FormControl')),
    ]),
  ),
  'angular FormGroup': (inner) => around('new FormGroup(', objectOf(inner()), ')', ofForms('FormGroup')),
  'angular FormArray': (inner) => around('new FormArray([', inner(), '])', ofForms('FormArray')),
  'angular UntypedFormGroup': () => code('new FormGroup({})', ofForms('FormGroup')),
  'angular UntypedFormArray': () => code('new FormArray([])', ofForms('FormArray')),
  'angular ElementRef': () =>
    code("new ElementRef(document.createElement('div'))", { name: 'ElementRef', from: '@angular/core' }),
  'angular EventEmitter': () => code('new EventEmitter()', { name: 'EventEmitter', from: '@angular/core' }),
  'angular ParamMap': () =>
    code('convertToParamMap({})', { name: 'convertToParamMap', from: '@angular/router' }),
};

export const ofForms = (name: string): Needed => ({ name, from: '@angular/forms' });

/** Nothing in place of a value that says nothing. */
const objectOf = (value: Value): Value => (value.kind === 'object' ? value : object([]));

export function ofFramework(name: string, { framework }: Sampling, inner: () => Value): Value | undefined {
  if (name === 'Observable') return typed('of', inner(), { name: 'of', from: 'rxjs' });
  if (name === 'BehaviorSubject')
    return around('new BehaviorSubject(', inner(), ')', { name: 'BehaviorSubject', from: 'rxjs' });
  if (/^(Replay)?Subject$/.test(name)) return code(`new ${name}()`, { name, from: 'rxjs' });
  if (name === 'Element')
    return framework === 'react'
      ? frameworks['react ReactElement']!(inner)
      : code("document.createElement('div')");
  return frameworks[`${framework} ${name}`]?.(inner);
}

/** `ref<Alert[]>([…])`: with its type where it has one, as words of a union would become any text. */
function typed(called: string, value: Value, needed: Needed): Value {
  const type = (value.kind === 'list' || value.kind === 'object') && called !== 'of' ? value.type : undefined;
  const name = type && `<${type.local ?? type.name}${value.kind === 'list' ? '[]' : ''}>`;
  const own = type ? [{ ...type, isType: true } as const] : [];
  return around(`${called}${name ?? ''}(`, value, ')', needed, ...own);
}

/** A signal of what has no name, whose words may be of a few only. */
export const signalOf = (made: Value, type: string): Value =>
  made.kind === 'around' && made.before === 'signal(' && /^(list|object)$/.test(made.value.kind)
    ? { ...made, before: `signal<${type}>(` }
    : made;
