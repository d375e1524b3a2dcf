// Reads the doc comments of everything the package exports, out of the source by the compiler itself.
import ts from 'typescript';

const entries = {
  simulacra: 'src/index.ts',
  'simulacra/react': 'src/react/index.ts',
  'simulacra/vue': 'src/vue/index.ts',
  'simulacra/angular': 'src/angular/index.ts',
  'simulacra/jest': 'src/jest/index.ts',
  'simulacra/har': 'src/har/index.ts',
  'simulacra/serve': 'src/serve/index.ts',
  'simulacra/vite': 'src/serve/vite.ts',
};

const plain = (parts) => ts.displayPartsToString(parts).trim();

/** @returns for each entry what it exports: name, signature, summary, tags and members */
export function readDocComments() {
  const { config } = ts.readConfigFile('tsconfig.json', ts.sys.readFile);
  const { options } = ts.parseJsonConfigFileContent(config, ts.sys, '.');
  const program = ts.createProgram(Object.values(entries), options);
  const checker = program.getTypeChecker();
  return Object.entries(entries).map(([entry, file]) => {
    const module = checker.getSymbolAtLocation(program.getSourceFile(file));
    const exported = checker.getExportsOfModule(module).map((symbol) => describe(symbol, checker));
    return { entry, exported };
  });
}

function describe(symbol, checker) {
  const target = symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  const declaration = target.declarations[0];
  const tags = target.getJsDocTags(checker).map(({ name, text }) => ({ name, text: plain(text ?? []) }));
  const members = ts.isInterfaceDeclaration(declaration)
    ? declaration.members.filter(({ name }) => name)
    : [];
  return {
    name: symbol.name,
    isType: !(target.flags & ts.SymbolFlags.Value),
    declaration: print(declaration),
    summary: plain(target.getDocumentationComment(checker)),
    tags,
    members: members.map((member) => ({
      signature: member.getText().replace(/\s+/g, ' ').replace(/;$/, ''),
      summary: memberComment(member),
    })),
  };
}

const memberComment = (member) =>
  ts
    .getJSDocCommentsAndTags(member)
    .map((doc) =>
      doc
        .getText()
        .replace(/^\/\*\*|\*\/$|^\s*\* ?/gm, '')
        .replace(/\s+/g, ' ')
        .trim(),
    )
    .join(' ')
    .replace(/ ?@example.*$/, '');

function print(declaration) {
  const text = declaration.getText();
  if (ts.isFunctionDeclaration(declaration))
    return (
      text
        .slice(0, text.indexOf(declaration.body?.getText() ?? '\u0000'))
        .replace(/^export /, '')
        .trim() || text.replace(/^export /, '')
    );
  if (ts.isVariableDeclaration(declaration))
    return `const ${text.replace(/ =>[^]*$/, '').replace(' = ', ': ')}`;
  if (ts.isInterfaceDeclaration(declaration)) return `interface ${declaration.name.text}`;
  if (ts.isClassDeclaration(declaration)) return `class ${declaration.name.text}`;
  return text.replace(/^export /, '').replace(/\s+/g, ' ');
}

/** @returns every example of a doc comment, with the entry and the name of what it is an example of */
export function readExamples() {
  const found = new Map();
  for (const { entry, exported } of readDocComments())
    for (const { name, tags } of exported)
      for (const tag of tags)
        if (tag.name === 'example' && tag.text && !found.has(tag.text)) found.set(tag.text, { entry, name });
  return [...found].map(([code, of]) => ({ ...of, code }));
}
