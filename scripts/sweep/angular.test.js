/* global it, afterAll */
require('zone.js');
require('@angular/compiler');
const { isolate } = require('simulacra/angular');
const { provideAnimations } = require('@angular/platform-browser/animations');
const { sweepOne, writeSeen } = require('./sweep.cjs');

const name = process.env.LIBRARY;
const place = `${__dirname}/node_modules/${name}`;
const parts = Object.keys(require(`${place}/package.json`).exports ?? {})
  .map((one) => one.replace(/^\.\//, ''))
  .filter((one) => /^[a-z][\w/-]*$/.test(one) && !/testing|schematics|package|styles|theming/.test(one));
const components = [];
const known = new Set();
for (const part of parts) {
  let exports;
  try {
    exports = require(`${name}/${part}`);
  } catch {
    continue;
  }
  for (const [one, value] of Object.entries(exports))
    if (typeof value === 'function' && value['ɵcmp'] && !known.has(value)) {
      known.add(value);
      components.push([one, value]);
    }
}
it.each(components)(
  '%s',
  (one, component) =>
    sweepOne(one, (options) => isolate(component, { wrap: [provideAnimations()], ...options })),
  20_000,
);
afterAll(writeSeen);
