import type { DocumentNode, FieldNode, OperationDefinitionNode, SelectionSetNode } from 'graphql';
import { isError } from '../../core/is-error';
import type { Operation } from '../operations';

/** What a server sends for one operation. @see https://spec.graphql.org/#sec-Response-Format */
export interface Result {
  readonly data: unknown;
  readonly errors?: readonly GraphQLFailure[];
}

interface GraphQLFailure {
  readonly message: string;
  readonly path?: readonly (string | number)[];
  readonly extensions?: object;
}

type Path = readonly (string | number)[];

/** The result that a value stands for: an error in it fails its field, an error alone the operation. */
export function makeResult(value: unknown): Result {
  if (isError(value)) return { data: null, errors: [wordFailure(value, undefined)] };
  const errors: GraphQLFailure[] = [];
  const data = withoutErrors(value, [], errors);
  return errors.length > 0 ? { data, errors } : { data };
}

function withoutErrors(value: unknown, path: Path, errors: GraphQLFailure[]): unknown {
  if (isError(value)) {
    errors.push(wordFailure(value, path));
    return null;
  }
  if (Array.isArray(value)) return value.map((item, at) => withoutErrors(item, [...path, at], errors));
  if (typeof value !== 'object' || value === null || 'toJSON' in value) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]) => [key, withoutErrors(item, [...path, key], errors)]),
  );
}

function wordFailure(error: Error, path: Path | undefined): GraphQLFailure {
  const { message, extensions } = error as Error & { extensions?: object };
  return {
    message,
    ...(path && { path }),
    ...(extensions && Object.keys(extensions).length > 0 && { extensions }),
  };
}

/** A field that was selected, and that a result does not have. */
export interface Lacking {
  /** `plants[0].name` */
  readonly path: string;
  /** What the object has instead. */
  readonly has: readonly string[];
}

/**
 * Finds what an operation selects and its result lacks. What is selected for some types only is looked for where the
 * result names that type.
 */
export function findLacking(
  document: DocumentNode,
  { name, variables }: Operation,
  data: unknown,
): Lacking[] {
  const operations = document.definitions.filter(
    (one): one is OperationDefinitionNode => one.kind === 'OperationDefinition',
  );
  const operation = operations.find((one) => one.name?.value === name) ?? operations[0];
  if (!operation || data === null || data === undefined) return [];
  const lacking: Lacking[] = [];
  const isLeftOut = (node: FieldNode | SelectionSetNode['selections'][number]): boolean =>
    (node.directives ?? []).some((directive) => {
      const [condition] = directive.arguments ?? [];
      if (!condition || !/^(include|skip)$/.test(directive.name.value))
        return directive.name.value === 'defer';
      const { value } = condition;
      const holds =
        value.kind === 'BooleanValue'
          ? value.value
          : value.kind === 'Variable' && Boolean(variables[value.name.value]);
      return directive.name.value === 'include' ? !holds : holds;
    });
  const fits = (condition: string | undefined, object: Record<string, unknown>, isRoot: boolean) =>
    condition === undefined || object['__typename'] === condition || isRoot;
  const look = (value: unknown, selections: SelectionSetNode, path: string): void => {
    if (Array.isArray(value)) return value.forEach((item, at) => look(item, selections, `${path}[${at}]`));
    if (typeof value !== 'object' || value === null) return;
    const object = value as Record<string, unknown>;
    for (const selection of selections.selections) {
      if (isLeftOut(selection)) continue;
      if (selection.kind === 'Field') {
        const key = (selection.alias ?? selection.name).value;
        if (selection.name.value === '__typename') continue;
        const at = path === '' ? key : `${path}.${key}`;
        if (object[key] === undefined) lacking.push({ path: at, has: Object.keys(object) });
        else if (selection.selectionSet) look(object[key], selection.selectionSet, at);
        continue;
      }
      const fragment =
        selection.kind === 'InlineFragment'
          ? selection
          : document.definitions.find(
              (one) => one.kind === 'FragmentDefinition' && one.name.value === selection.name.value,
            );
      if (!fragment || !('selectionSet' in fragment) || !fragment.selectionSet) continue;
      const condition = 'typeCondition' in fragment ? fragment.typeCondition?.name.value : undefined;
      if (fits(condition, object, path === '')) look(object, fragment.selectionSet, path);
    }
  };
  look(data, operation.selectionSet, '');
  return lacking;
}
