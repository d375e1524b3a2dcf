import { dashed } from './write/words';
import { around, code, object, text, type Field, type Needed, type Value } from './value';

/* What a component of Angular reads of the route that it is shown at. */

const ofType: Needed = { name: 'ActivatedRouteSnapshot', from: '@angular/router', isType: true };
const of = (name: string): Needed => ({ name, from: '@angular/router' });

/** A route with what some files read of it; undefined where they read nothing that has to be there. */
export function routeRead(files: readonly string[]): readonly [token: Value, value: Value] | undefined {
  const whole = files.join('\n');
  if (!/\bActivatedRoute\b/.test(whole)) return undefined;
  const fields: Field[] = [];
  const snapshot: Field[] = [];
  for (const [member, value] of membersOf(whole)) {
    if (new RegExp(`\\bsnapshot\\??\\.${member}\\b`).test(whole)) snapshot.push([member, value]);
    if (new RegExp(`(?<!snapshot\\??)\\.${member}\\b`).test(whole))
      fields.push([member, around('of(', value, ')', { name: 'of', from: 'rxjs' })]);
  }
  if (snapshot.length > 0)
    fields.unshift([
      'snapshot',
      around('', object(snapshot), ' as Partial<ActivatedRouteSnapshot> as ActivatedRouteSnapshot', ofType),
    ]);
  if (fields.length === 0) return undefined;
  const route = of('ActivatedRoute');
  const stand = around('standIn(ActivatedRoute, ', object(fields), ')', route, {
    name: 'standIn',
    from: 'simulacra',
  });
  return [code('ActivatedRoute', route), stand];
}

/** What is read of the address, with values. */
function membersOf(source: string): readonly (readonly [member: string, value: Value])[] {
  const maps = ['paramMap', 'queryParamMap'].map((map) => [map, inMap(source, map)] as const);
  const plain = ['params', 'queryParams'].map((one) => [one, inObject(source, one)] as const);
  if ([...maps, ...plain].every(([, fields]) => fields.length === 0)) return [];
  return [
    ...maps.map(([map, fields]) => [map, mapOf(fields)] as const),
    ...plain.map(([one, fields]) => [one, object(fields)] as const),
  ];
}

const mapOf = (fields: readonly Field[]): Value =>
  around('convertToParamMap(', object(fields), ')', of('convertToParamMap'));

/** `paramMap.get('id')`, `paramMap.pipe(map((params) => params.get('id')))` */
const inMap = (source: string, map: string): readonly Field[] =>
  fieldsOf(source, new RegExp(`\\b${map}\\b[^;]{0,200}?\\.get\\(\\s*['"]([\\w-]+)['"]\\s*\\)`, 'g'));

/** `params['id']`, `params.pipe(map((all) => all['id']))` */
const inObject = (source: string, plain: string): readonly Field[] =>
  fieldsOf(source, new RegExp(`\\b${plain}\\b[^;]{0,120}?\\[['"]([\\w-]+)['"]\\]`, 'g'));

const fieldsOf = (source: string, read: RegExp): readonly Field[] =>
  [...new Set([...source.matchAll(read)].map(([, name]) => name!))].map(
    (name) => [name, valueOf(name)] as const,
  );

const valueOf = (name: string): Value =>
  /^(page|size|limit|offset|index|year)/i.test(name)
    ? text('1', true)
    : text(`${dashed(name).replace(/-?id$/, '') || 'hive'}-1`);
