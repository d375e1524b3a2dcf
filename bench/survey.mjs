// What a survey of a large project costs, against parsing its files alone.
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { parseSync } from 'oxc-parser';
import { compare } from './measure.mjs';

const project = resolve('.cache/bench-survey');
const copies = 32;
const isRead = (name) => /\.tsx?$/.test(name) && !/\.(states|test|d)\./.test(name);

/** The React example, many times over. */
function makeProject() {
  rmSync(project, { recursive: true, force: true });
  mkdirSync(project, { recursive: true });
  writeFileSync(join(project, 'package.json'), '{ "type": "module" }');
  for (let copy = 0; copy < copies; copy++)
    for (const part of ['react-apiary/src', 'shared'])
      cpSync(join('examples', part), join(project, `yard-${copy}`, part), {
        recursive: true,
        filter: (source) => !/\.(states|test)\.|\.css$|\.yaml$/.test(source),
      });
  return readdirSync(project, { recursive: true })
    .map((name) => join(project, name))
    .filter(isRead);
}

async function readSurvey() {
  const outdir = resolve('.cache/bench-survey-built');
  await build({
    entryPoints: [{ in: 'src/survey/index.ts', out: 'survey' }],
    ...{ bundle: true, format: 'esm', platform: 'node', mainFields: ['module', 'main'], outdir },
    external: ['oxc-parser', 'oxc-resolver'],
    banner: {
      js: "import { createRequire as from } from 'node:module'; const require = from(import.meta.url);",
    },
  });
  const { survey } = await import(pathToFileURL(join(outdir, 'survey.js')).href);
  return survey;
}

export async function surveying() {
  const files = makeProject();
  const survey = await readSurvey();
  const kept = join(project, 'node_modules');
  // The parser hands its tree out when it is asked for, which is most of the work.
  const parsing = () =>
    files.map((file) => {
      const lang = file.endsWith('x') ? 'tsx' : 'ts';
      const text = readFileSync(file, 'utf8');
      return parseSync(`file.${lang}`, text, { lang, preserveParens: false }).program.body.length;
    });
  const anew = () => {
    rmSync(kept, { recursive: true, force: true });
    return survey('.', project);
  };
  const first = await compare({ ours: anew, floor: parsing, rounds: 10 });
  const again = await compare({ ours: () => survey('.', project), floor: parsing, rounds: 10 });
  rmSync(project, { recursive: true, force: true });
  const name = `surveying ${files.length.toLocaleString('en')} files`;
  return [
    { name, against: 'parsing them', goal: 1.5, ...first },
    { name: `${name}, none of them changed since`, against: 'parsing them', ...again },
  ];
}

if (process.argv[1] === import.meta.filename) console.log(await surveying());
