import type * as Ts from 'typescript';
import type { Place } from '../../network/contract/plausible';
import type { TypeScript } from './service';

/* What kind of a type something has. */

/** True for what can be rendered. */
export const isNode = (type: Ts.UnionType): boolean =>
  type.aliasSymbol?.name === 'ReactNode' ||
  type.aliasSymbol?.name === 'VNodeChild' ||
  type.types.some(({ symbol }) => symbol?.name === 'ReactPortal' || symbol?.name === 'ReactElement');

/** True for what only a browser makes: an event, the window. */
export const isOfPage = ({ symbol }: Ts.Type): boolean =>
  (symbol as Ts.Symbol | undefined)?.declarations?.some((one) =>
    /[\\/]lib\.dom[\w.]*\.d\.ts$/.test(one.getSourceFile().fileName),
  ) === true;

export const isKeyOf = (type: Ts.Type, ts: TypeScript): boolean =>
  type.isIntersection()
    ? type.types.some((one) => isKeyOf(one, ts))
    : (type.flags & ts.TypeFlags.Index) !== 0;

export const hasParameters = (type: Ts.Type): boolean =>
  (type.aliasTypeArguments?.length ?? 0) > 0 || ((type as Ts.TypeReference).typeArguments?.length ?? 0) > 0;

export const ownerOf = (name: string, { field, owner }: Place): string =>
  name && !name.startsWith('__')
    ? name.replace(/^I(?=[A-Z])|(Type|Model|Dto|Data|Props)$/g, '') || name
    : field || owner;

/** True for what is declared in the project itself. */
export const isOwn = (symbol: Ts.Symbol | undefined): boolean => {
  const [declared] = symbol?.declarations ?? [];
  return (
    declared !== undefined &&
    !/[\\/]node_modules[\\/]|[\\/]lib\.[\w.]+\.d\.ts$/.test(declared.getSourceFile().fileName)
  );
};
