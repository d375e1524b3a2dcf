import { singular } from './words';
import type { Value } from '../value';
import type { Writing } from './print';

/** True for a file without types. */
export const isPlain = ({ target }: Writing): boolean => /\.[cm]?jsx?$/.test(target);
export const withoutTypes = (written: string): string =>
  written.replace(/: \{ children\?: ReactNode \}|\(app: App\)/g, (type) =>
    type.includes('app') ? '(app)' : '',
  );

/** What a route is about: `hives` of `GET /api/hives`, `hive` of `GET /api/hives/:hiveId`. */
export function nameOfRoute(route: string): string {
  const path = route.replace(/^\S+ /, '').replace(/\?.*$/, '');
  const parts = path.split('/').filter((part) => part !== '' && !part.startsWith('*'));
  const last = parts.at(-1) ?? '';
  const words = parts.filter((part) => /^[A-Za-z][\w-]*$/.test(part));
  const name = words.at(-1) ?? 'answer';
  return last.startsWith(':') ? singular(name) : name;
}

export const constantName = (field: string): string => {
  const name = field.replace(/[^A-Za-z0-9]+(.)?/g, (_, letter: string | undefined) =>
    (letter ?? '').toUpperCase(),
  );
  return /^[a-z]/i.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : 'value';
};

export const hasFixed = (value: Value): boolean => {
  switch (value.kind) {
    case 'text':
      return value.isFixed === true;
    case 'list':
      return value.items.some(hasFixed);
    case 'object':
      return value.fields.some(([, one]) => hasFixed(one));
    case 'around':
      return hasFixed(value.value);
    default:
      return false;
  }
};

export const reserved = [
  'default',
  'class',
  'function',
  'new',
  'delete',
  'import',
  'export',
  'package',
  'isolate',
  'expect',
  'it',
  'describe',
  'states',
  'role',
  'text',
  'label',
  'part',
  'hold',
  'fail',
  'spy',
];
