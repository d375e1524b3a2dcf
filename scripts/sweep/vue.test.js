/* global it, afterAll */
const { isolate } = require('simulacra/vue');
const { sweepOne, writeSeen } = require('./sweep.cjs');

const library = load(process.env.LIBRARY);
function load(name) {
  // Vuetify and PrimeVue export their components one file each.
  if (name === 'vuetify') return require('vuetify/components');
  if (name !== 'primevue') return require(name);
  const { readdirSync, existsSync } = require('node:fs');
  const place = `${__dirname}/node_modules/primevue`;
  return Object.fromEntries(
    readdirSync(place)
      .filter((one) => existsSync(`${place}/${one}/package.json`) && existsSync(`${place}/${one}/index.d.ts`))
      .flatMap((one) => {
        try {
          const { default: component } = require(`primevue/${one}`);
          return component?.name && /^[A-Z]/.test(component.name) ? [[component.name, component]] : [];
        } catch {
          return [];
        }
      }),
  );
}
const plugin = {
  vuetify: () => [require('vuetify').createVuetify()],
  primevue: () => [[require('primevue/config').default, {}]],
}[process.env.LIBRARY];

const isComponent = (value) =>
  typeof value === 'object' &&
  value !== null &&
  ('setup' in value || 'render' in value || 'template' in value);
const components = Object.entries(library).filter(
  ([name, value]) => /^[A-Z]/.test(name) && isComponent(value),
);
it.each(components)(
  '%s',
  (name, component) =>
    sweepOne(name, (options) => isolate(component, { ...(plugin && { wrap: plugin() }), ...options })),
  20_000,
);
afterAll(writeSeen);
