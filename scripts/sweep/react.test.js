/* global it, afterAll */
const { isolate } = require('simulacra/react');
const { createElement } = require('react');
const { sweepOne, writeSeen } = require('./sweep.cjs');

const library = require(process.env.LIBRARY);
// What a page of the library has around all of it.
const around = {
  '@mantine/core':
    () =>
    ({ children }) =>
      createElement(library.MantineProvider, null, children),
  '@chakra-ui/react':
    () =>
    ({ children }) =>
      createElement(library.ChakraProvider, { value: library.defaultSystem }, children),
  '@radix-ui/themes':
    () =>
    ({ children }) =>
      createElement(library.Theme, null, children),
}[process.env.LIBRARY]?.();

const isComponent = (value) =>
  (typeof value === 'function' && !String(value).startsWith('class')) ||
  /forward_ref|memo/.test(String(value?.$$typeof));
const known = new Set();
const isNew = ([, component]) => !known.has(component) && known.add(component);
const components = Object.entries(library).flatMap(([name, value]) =>
  /^[A-Z](?!.*(Context|Provider)$)/.test(name)
    ? isComponent(value)
      ? [[name, value]]
      : value && typeof value === 'object' && !value.$$typeof
        ? Object.entries(value)
            .filter(([part, inner]) => /^[A-Z]/.test(part) && isComponent(inner))
            .map(([part, inner]) => [`${name}.${part}`, inner])
        : []
    : [],
);
it.each(components.filter(isNew))(
  '%s',
  (name, component) =>
    sweepOne(name, (options) =>
      isolate(component, { props: { children: 'Anemone' }, ...(around && { wrap: [around] }), ...options }),
    ),
  20_000,
);
afterAll(writeSeen);
