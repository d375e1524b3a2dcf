import { pathToFileURL } from 'node:url';
import type TypeScript from 'typescript';

/*
 * The values of `import.meta`, which does not exist in CommonJS.
 *
 * @see https://vite.dev/guide/env-and-mode
 */

const env = { MODE: 'test', DEV: true, PROD: false, SSR: false, BASE_URL: '/' };

const meta = `({ url: "file://" + __filename, env: { ...${JSON.stringify(env)}, ...Object.fromEntries(Object.entries(process.env).filter(([name]) => name.startsWith("VITE_"))) } })`;

/** True for a script that cannot run in CommonJS as it is. */
export const readsMeta = (code: string): boolean => /\bimport\.meta\b/.test(code);

export const replaceMeta =
  (ts: typeof TypeScript): TypeScript.TransformerFactory<TypeScript.SourceFile> =>
  (context) => {
    const visit = (node: TypeScript.Node): TypeScript.Node =>
      ts.isMetaProperty(node) && node.keywordToken === ts.SyntaxKind.ImportKeyword
        ? context.factory.createIdentifier(meta)
        : ts.visitEachChild(node, visit, context);
    return (file) => ts.visitNode(file, visit) as TypeScript.SourceFile;
  };

/** The same for esbuild, which takes values only. */
export const metaOf = (file: string): Readonly<Record<string, string>> => ({
  'import.meta.env': JSON.stringify(env),
  'import.meta.url': JSON.stringify(pathToFileURL(file).href),
});
