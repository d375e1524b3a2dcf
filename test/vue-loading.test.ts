import 'simulacra/jest';
import { createPinia, defineStore } from 'pinia';
import Button from 'primevue/button';
import PrimeVue from 'primevue/config';
import { Toggle } from 'reka-ui';
import { role } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { sync } from '../src/transform/vue-resolve';
import { defineComponent, h, ref, type Component } from 'vue';
import { createMemoryHistory, createRouter, RouterView } from 'vue-router';

/* What comes as standard modules, with styles, or in a build for servers too, loads by the one line. */

const useMood = defineStore('mood', () => ({ mood: ref('Save') }));
const router = createRouter({
  history: createMemoryHistory(),
  routes: [{ path: '/', component: { template: '<button>Save</button>' } }],
});

const cases: [string, Component, readonly object[]][] = [
  ['reka-ui', { render: () => h(Toggle, () => 'Save') }, []],
  ['primevue', { render: () => h(Button, { label: 'Save' }) }, [PrimeVue]],
  [
    'pinia',
    { setup: () => ({ of: useMood() }), template: '<button>{{ of.mood }}</button>' },
    [createPinia()],
  ],
  ['vue-router', { render: () => h(RouterView) }, [router]],
];

it.each(cases)('%s', async (_, component, wrap) => {
  const subject = await isolate(defineComponent(component as object), { wrap: wrap as never });
  expect(subject).toShow(role('button', 'Save'));
  expect(subject.chronicle.of('logged')).toEqual([]);
});

it('is a style that says nothing', async () => {
  // @ts-expect-error a style has no types
  await expect(import('./conformance/shut.css')).resolves.toBeDefined();
});

describe('a package that has a build for servers', () => {
  const found: Record<string, string> = {
    'quasar require': '/yard/node_modules/quasar/dist/quasar.server.prod.cjs',
    'quasar browser': '/yard/node_modules/quasar/dist/quasar.client.js',
    'vuetify require': '/yard/node_modules/vuetify/dist/vuetify.cjs',
    '@vue/server-renderer require': '/yard/node_modules/@vue/server-renderer/dist/server-renderer.cjs.js',
  };
  const resolve = (name: string) =>
    sync(name, {
      conditions: ['require'],
      defaultResolver(path, { conditions }) {
        const file = found[`${path} ${conditions?.[0]}`];
        if (!file) throw new Error(`Cannot find ${path}`);
        return file;
      },
    });
  it.each([
    ['quasar', 'quasar.client.js'],
    ['vuetify', 'vuetify.cjs'],
    ['@vue/server-renderer', 'server-renderer.cjs.js'],
  ])('%s', (name, file) => expect(resolve(name).split('/').at(-1)).toBe(file));

  it('and none for browsers stays what it is', () => {
    delete found['quasar browser'];
    expect(resolve('quasar')).toBe(found['quasar require']);
  });
});
