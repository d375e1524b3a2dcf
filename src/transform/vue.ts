import { basename } from 'node:path';
import { FlattenMap } from '@jridgewell/trace-mapping';
import remapping from '@jridgewell/remapping';
import type * as Sfc from 'vue/compiler-sfc';
import { processScript } from './script';
import { keyOfFile, transpile, type Transformed, type TransformOptions } from './transformer';
import { typescript } from './typescript';
import { versionIn } from './version';
import { partsOf, readFor } from './vue-parts';

/*
 * A transformer for Jest that makes a single-file component run: its script (of either kind) and its
 * template, with a map back to the lines of the file. Styles are left out; class names of CSS modules
 * are the names themselves.
 */

export function process(code: string, file: string, options: TransformOptions = {}): Transformed {
  if (!file.endsWith('.vue')) return processScript(code, file, options, 'vue');
  const { compiler, descriptor, script, id } = partsOf(code, file, options);
  const template = compileTemplate(compiler, descriptor, script, id);
  const parts = [
    { text: script?.content ?? 'const component = {}', map: script?.map },
    { text: template?.code.replace('export function render', 'function render') ?? '', map: template?.map },
    { text: ending(descriptor, file, template !== undefined), map: undefined },
  ];
  const joined = parts.map(({ text }) => text).join('\n');
  const ts = typescript(file);
  const jsx = ts.JsxEmit.ReactJSX;
  const isTsx = /x$/.test(script?.lang ?? '');
  const name = `${file}.${isTsx ? 'tsx' : 'ts'}`;
  const rewritten = options.seam?.(joined, name);
  const result = transpile(ts, rewritten?.code ?? joined, name, options, {
    options: { jsx, jsxImportSource: 'vue', verbatimModuleSyntax: false },
  });
  return { code: result.code, map: chain(result.map, rewritten?.makeMap().toString(), parts, file) };
}

export const getCacheKey = (code: string, file: string, options: TransformOptions = {}): string =>
  keyOfFile(code, file, options, versionIn(file, 'vue') ?? '', ...readFor(code, file, options));

function compileTemplate(
  compiler: typeof Sfc,
  descriptor: Sfc.SFCDescriptor,
  script: Sfc.SFCScriptBlock | undefined,
  id: string,
): Sfc.SFCTemplateCompileResults | undefined {
  const { template, filename, slotted } = descriptor;
  if (!template) return undefined;
  const isTyped = /^tsx?$/.test(script?.lang ?? '');
  const compiled = compiler.compileTemplate({
    source: template.content,
    filename,
    id,
    slotted,
    scoped: false,
    ...(template.ast && { ast: template.ast }),
    ...(template.map && { inMap: template.map }),
    ...(template.lang && { preprocessLang: template.lang }),
    compilerOptions: {
      ...(script?.bindings && { bindingMetadata: script.bindings }),
      ...(isTyped && { expressionPlugins: ['typescript'] }),
    },
  });
  const [failure] = compiled.errors;
  if (failure) throw typeof failure === 'string' ? new SyntaxError(failure) : failure;
  return compiled;
}

function ending({ styles }: Sfc.SFCDescriptor, file: string, hasTemplate: boolean): string {
  const modules = styles
    .filter(({ module }) => module)
    .map(
      ({ module }) =>
        `${JSON.stringify(module === true ? '$style' : module)}: new Proxy({}, { get: (_, name) => name })`,
    );
  // A script that ends without a semicolon would call what comes first here.
  return [
    ';',
    ...(hasTemplate ? ['(component as any).render = render;'] : []),
    ...(modules.length > 0 ? [`(component as any).__cssModules = { ${modules.join(', ')} };`] : []),
    `(component as any).__name ??= ${JSON.stringify(basename(file, '.vue'))};`,
    `(component as any).__file = ${JSON.stringify(file)};`,
    'export default component;',
  ].join(' ');
}

type Map = Sfc.SFCScriptBlock['map'];

// The parts follow each other in the output. Each has its own source map, TypeScript adds another, and the
// code may have been rewritten in between.
function chain(
  outer: object | null,
  between: string | undefined,
  parts: readonly { readonly text: string; readonly map: Map | undefined }[],
  file: string,
): object | null {
  if (!outer) return null;
  let line = 0;
  const sections: { offset: { line: number; column: number }; map: never }[] = [];
  for (const { text, map } of parts) {
    if (map) sections.push({ offset: { line, column: 0 }, map: map as never });
    line += text.split('\n').length;
  }
  const inner = new FlattenMap({ version: 3, file, sections } as never);
  const below = between === undefined ? [inner] : [JSON.parse(between) as never, inner];
  let depth = 0;
  const whole = remapping(outer as never, () => (below[depth++] ?? null) as never);
  return JSON.parse(whole.toString()) as object;
}
