interface Located {
  readonly message: string;
  readonly locations?: readonly { readonly line: number; readonly column: number }[] | undefined;
}

/** What an error of the package graphql says of a text, and where. @param text undefined where there is none to quote */
export function readTrouble(
  error: Located,
  text: string | undefined,
): { readonly why: string; readonly at: string | undefined; readonly line: string | undefined } {
  const at = error.locations?.[0];
  return {
    why: error.message,
    at: at && `${at.line}:${at.column}`,
    line: at && text?.split('\n')[at.line - 1]?.trim(),
  };
}
