// Writes docs/recipes.md out of the tests in test/recipes, so that every recipe is one that was run.
import { readFileSync, writeFileSync } from 'node:fs';

const frameworks = { React: 'react.test.tsx', Vue: 'vue.test.ts', Angular: 'angular.test.ts' };
const parts = Object.entries(frameworks).map(([framework, file]) => {
  const text = readFileSync(`test/recipes/${file}`, 'utf8');
  const recipes = [...text.matchAll(/^\/\/ recipe: (.*)\n([^]*?)^\/\/ end$/gm)].map(
    ([, name, code]) => `### ${name}\n\n\`\`\`tsx\n${code.trim()}\n\`\`\``,
  );
  return [`## ${framework}`, ...recipes].join('\n\n');
});
writeFileSync(
  'docs/recipes.md',
  `# Recipes

Routers, data clients, stores, forms and component libraries are used for real wherever that is easy: put the package's own provider
around the subject with \`wrap\`, and answer the network. Each recipe is a test that \`npm test\` runs; this page is made of them by \`npm run docs\`.
Everything that is not imported here comes from \`simulacra\` and the framework's entry.

${parts.join('\n\n')}
`,
);
