import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Draft } from '../model';
import type { Known } from '../plan';
import type { FailureSeen } from '../run/observed';
import { ofForms } from '../types/known';
import { around, code, object, type Field, type Value } from '../value';
import { type Mended, addWrapper, isCalledIn } from './mended';

const directive = 'FormGroupDirective';

/** The form of Angular that a part of a form stands in: with the groups and controls that its template names. */
export function addForm(known: Known, { given, framework }: Draft, failure: FailureSeen): Mended | undefined {
  const said = `${failure.thrown?.message ?? ''} ${String(failure.fields['threw'] ?? '')}`;
  const isAsked =
    /must be used with a parent formGroup/.test(said) ||
    /^(ControlContainer|FormGroupDirective)$/.test(String(failure.fields['token'] ?? ''));
  if (framework !== 'angular' || !isAsked) return undefined;
  if (given.wrap.some((one) => isCalledIn(one, directive))) return undefined;
  const form = group(controlsIn(templateOf(known)));
  const reference = code(directive, ofForms(directive));
  const wrapper: Value = { kind: 'list', items: [reference, object([['formGroup', form]])] };
  return addWrapper(given, wrapper, 'a form');
}

const group = (fields: readonly Field[]): Value =>
  around('new FormGroup(', object(fields), ')', ofForms('FormGroup'));

/** `formGroupName="address"` holds all that is named after it. */
function controlsIn(template: string): readonly Field[] {
  const named = [...template.matchAll(/\b(formGroupName|formControlName)="([\w$]+)"/g)].map(
    ([, kind, name]) => ({ isGroup: kind === 'formGroupName', name: name! }),
  );
  const own: Field[] = [];
  let inside: Field[] = own;
  for (const { isGroup, name } of named) {
    if (isGroup) own.push([name, group((inside = []))]);
    else
      inside.push([
        name,
        around('new FormControl(', { kind: 'text', text: '' }, ')', ofForms('FormControl')),
      ]);
  }
  return own;
}

function templateOf({ survey }: Known): string {
  const { file, unit } = survey.subject;
  const url = unit.template?.url === undefined ? undefined : join(dirname(file), unit.template.url);
  return readFileSync(url !== undefined && existsSync(url) ? url : file, 'utf8');
}
