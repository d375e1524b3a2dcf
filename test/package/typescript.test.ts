import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

const root = join(__dirname, '../..');
const transformer = createRequire(__filename)(join(root, 'dist/react-transform.cjs')) as {
  process(code: string, file: string, options: object): { code: string };
};

/** A project whose TypeScript is a program only, as it is from version 7 on. */
function makeProject(hasOther: boolean): string {
  const place = mkdtempSync(join(root, '.cache/typescript-'));
  const own = join(place, 'node_modules/typescript');
  mkdirSync(own, { recursive: true });
  writeFileSync(join(own, 'package.json'), '{ "name": "typescript", "version": "7.0.2", "main": "main.js" }');
  writeFileSync(join(own, 'main.js'), "module.exports = { version: '7.0.2' };");
  const scope = join(place, 'node_modules/@typescript');
  if (hasOther) {
    mkdirSync(scope);
    symlinkSync(join(root, 'node_modules/typescript'), join(scope, 'typescript6'));
  }
  return place;
}

describe('a project with TypeScript 7', () => {
  const places = { alone: makeProject(false), together: makeProject(true) };
  afterAll(() => {
    for (const place of Object.values(places)) rmSync(place, { recursive: true, force: true });
  });
  const load = (place: string) =>
    transformer.process(
      'export const weight = (kg: number): string => `${kg} kg`;',
      join(place, 'weight.ts'),
      {
        config: {},
        transformerConfig: {},
      },
    );

  it('is told what to install beside it', () => {
    expect(() => load(places.alone)).toThrow(
      /TypeScript 7\.0\.2 can no longer be called by other\s+programs/,
    );
    expect(() => load(places.alone)).toThrow('npm install --save-dev @typescript/typescript6');
  });

  it('is loaded by that', () => {
    expect(load(places.together).code).toContain('exports.weight');
  });
});
