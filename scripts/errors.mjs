// Writes docs/errors.md: every code with what its message says, out of the registry itself.
import { writeFile } from 'node:fs/promises';
import { build } from 'esbuild';
import ts from 'typescript';

const { outputFiles } = await build({
  entryPoints: ['src/registry.ts'],
  bundle: true,
  format: 'esm',
  write: false,
});
const { registry } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
);

// Any field that is asked for stands for itself, so that the wording can be read without an occasion.
const field = (name) =>
  new Proxy(
    Object.assign(() => '', {}),
    {
      get: (_, key) => {
        if (key === Symbol.toPrimitive || key === 'toString') return () => `‹${name}›`;
        if (key === 'toJSON') return () => `‹${name}›`;
        if (key === 'length') return 1;
        if (key === Symbol.iterator) return undefined;
        if (key === 'replace') return () => `‹${name}›`;
        if (key === 'slice' || key === 'map' || key === 'join') return () => [`‹${name}›`];
        return typeof key === 'string' ? (/^\d+$/.test(key) ? field(name) : field(key)) : undefined;
      },
    },
  );
const fields = new Proxy({}, { get: (_, key) => field(String(key)) });

/** The facts of each failure, as the compiler knows them: `token: string`, one after the other. */
const shapes = new Map();
function factsByCode() {
  const { config } = ts.readConfigFile('tsconfig.json', ts.sys.readFile);
  const { options } = ts.parseJsonConfigFileContent(
    { ...config, include: [], files: ['src/registry.ts'] },
    ts.sys,
    '.',
  );
  const program = ts.createProgram(['src/registry.ts'], options);
  const checker = program.getTypeChecker();
  const file = program.getSourceFile('src/registry.ts');
  const [symbol] = checker
    .getExportsOfModule(checker.getSymbolAtLocation(file))
    .filter((one) => one.name === 'FailureFields');
  const facts = checker.getDeclaredTypeOfSymbol(symbol);
  const printed = (type) =>
    checker
      .typeToString(type, undefined, ts.TypeFormatFlags.NoTruncation)
      .replace(/ \| undefined$/, '')
      .replaceAll('"', "'");
  const readMember = (member) => {
    const type = checker.getTypeOfSymbolAtLocation(member, file);
    noteShapes(type);
    return `${member.name}${member.flags & ts.SymbolFlags.Optional ? '?' : ''}: ${printed(type)}`;
  };
  // A type that the facts name is told of, too.
  function noteShapes(type) {
    for (const one of type.isUnion()
      ? type.types
      : [checker.getIndexTypeOfType(type, ts.IndexKind.Number) ?? type]) {
      const symbol = one.aliasSymbol ?? one.symbol;
      const from = symbol?.declarations?.[0]?.getSourceFile().fileName ?? '';
      if (!/\/src\/|^src\//.test(from) || symbol.name.startsWith('__') || shapes.has(symbol.name)) continue;
      shapes.set(symbol.name, '');
      shapes.set(symbol.name, `{ ${one.getProperties().map(readMember).join('; ')} }`);
    }
  }
  return new Map(
    facts.getProperties().map((code) => {
      const type = checker.getTypeOfSymbolAtLocation(code, file);
      const members = (type.isUnion() ? type.types : [type]).flatMap((one) => one.getProperties());
      return [code.name, [...new Set(members.map(readMember))]];
    }),
  );
}

const facts = factsByCode();
const detail = (code) =>
  facts
    .get(code)
    .map((fact) => `- \`${fact}\``)
    .join('\n');

const lines = Object.entries(registry).map(([code, word]) => {
  let head;
  try {
    ({ head } = word(fields));
  } catch {
    head = 'See docs/mistakes.md.';
  }
  return `| \`${code}\` | ${String(head).replace(/\|/g, '\\|').replace(/"‹|›"/g, '"').replace(/[‹›]/g, '_')} |`;
});
await writeFile(
  'docs/errors.md',
  `# Codes of failures\n\nEvery failure has a stable code (\`error.code\`) and its facts as data (\`error.fields\`). Words between\nunderscores stand for what a message names. How the messages read in full is in\n[mistakes.md](mistakes.md).\n\n| Code | What it says |\n| --- | --- |\n${lines.join('\n')}\n\n## The facts of each\n\nIn TypeScript \`error instanceof SimulacraError\` makes \`error.fields\` the type that belongs to \`error.code\`.\n\nEvery failure also has \`error.happened\`, the lines of the chronicle up to it. Where your own code threw, \`error.thrown\` has\nits \`name\`, its \`message\`, the \`property\` that could not be read or called, and the \`file\`, \`line\` and \`column\` in \`at\`.\n\`JSON.stringify(error)\` has all of it.\n\n${Object.keys(
    registry,
  )
    .map((code) => `### \`${code}\`\n\n${detail(code)}`)
    .join(
      '\n\n',
    )}\n\n## The types they name\n\n${[...shapes].map(([name, shape]) => `- \`${name}\`: \`${shape}\``).join('\n')}\n`,
);
