/* What components of each framework lean on, by what is hard in it. */

export interface Case {
  /** What is written, by file; the first is surveyed. */
  readonly files: Readonly<Record<string, string>>;
  readonly leans: readonly string[];
  /** What it takes and tells, and what it renders of what it is given. */
  readonly takes?: Readonly<Record<string, readonly string[]>>;
}

const board = (body: string, more = '') =>
  `${more}\nexport function Board({ yard, id }) { ${body} return <p>{yard}</p>; }`;

export const react: Readonly<Record<string, Case>> = {
  'two exports of a file that is loaded late, each in a part of its own': {
    files: {
      'Board.tsx': `import { lazy, Suspense } from 'react';
        const Sheet = lazy(() => import('./parts').then(({ Sheet }) => ({ default: Sheet })));
        const Ledger = lazy(() => import('./parts').then((parts) => ({ default: parts.Ledger })));
        export const Board = () => <Suspense><Sheet /><Ledger /></Suspense>;`,
      'parts.tsx': `export const Sheet = () => { fetch('/api/sheet'); return <p />; };
        export const Ledger = () => { fetch('/api/ledger'); return <p />; };`,
    },
    leans: ['request GET /api/ledger', 'request GET /api/sheet'],
  },
  'one file that is loaded late from two places': {
    files: {
      'Board.tsx': `import { lazy } from 'react';
        const First = lazy(() => import('./Sheet')); const Other = lazy(() => import('./Sheet'));
        export const Cover = () => <First />; export const Board = () => <Other />;`,
      'Sheet.tsx': `export default function Sheet() { fetch('/api/sheet'); return <p />; }`,
    },
    leans: ['request GET /api/sheet'],
  },
  'fetch, with a method and an address made of parts': {
    files: {
      'Board.tsx': board(
        `const base = '/api/hives'; useEffect(() => { fetch(\`\${base}/\${id}/notes?sort=\${yard}\`, { method: 'POST' }); });`,
        `import { useEffect } from 'react';`,
      ),
    },
    leans: ['request POST /api/hives/:id/notes'],
  },
  'addresses from a constant of another file, with the place of the service left out': {
    files: {
      'Board.tsx': board(`fetch(ROOT + '/hives/' + id);`, `import { ROOT } from './addresses';`),
      'addresses.ts': `const server = import.meta.env.VITE_SERVER; export const ROOT = \`\${server}/api\`;`,
    },
    leans: ['request GET /api/hives/:id'],
  },
  'a function of the project that asks for what its caller names': {
    files: {
      'Board.tsx': board(
        `getJson('/api/hives'); api.remove(\`/api/hives/\${id}\`);`,
        `import { getJson, api } from './api';`,
      ),
      'api.ts': `export const getJson = (path) => request('GET', path);
        function request(method, path) { return fetch(path, { method }); }
        export const api = { remove: (path) => fetch(path, { method: 'DELETE' }), read: (path) => fetch(path) };`,
    },
    leans: ['request DELETE /api/hives/:id', 'request GET /api/hives'],
  },
  'a client package, made once and used by another name': {
    files: {
      'Board.tsx': board(
        `client.get('/hives/' + id); client.post('/hives', {});`,
        `import { client } from './client';`,
      ),
      'client.ts': `import axios from 'axios'; export const client = axios.create({ baseURL: '/api' });`,
    },
    leans: ['package axios', 'request GET /hives/:id', 'request POST /hives'],
  },
  'what looks like a client and is none': {
    files: {
      'Board.tsx': board(
        `const known = new Map(); known.get('/hives'); cache.get('/hives');`,
        `import { cache } from './cache';`,
      ),
      'cache.ts': `export const cache = new Map();`,
    },
    leans: [],
  },
  'a context, through a hook, a barrel and a path alias': {
    files: {
      'src/Board.tsx': board(`const { keeper } = useSession();`, `import { useSession } from '@/session';`),
      'src/session/index.ts': `export * from './session';`,
      'src/session/session.tsx': `import { createContext, useContext } from 'react';
        export const SessionContext = createContext(null); export const useSession = () => useContext(SessionContext);`,
      'tsconfig.json': `{ "compilerOptions": { "paths": { "@/*": ["./src/*"] } } }`,
    },
    leans: ['context SessionContext'],
  },
  'clocks, chance, storage and the page': {
    files: {
      'Board.tsx': board(
        `
        const now = Date.now(); const day = new Date(); const said = new Date(2031, 4, 4);
        const timer = window.setInterval(tick, 100); setTimeout(() => 0); requestAnimationFrame(tick);
        localStorage.getItem('yard'); window.sessionStorage.clear(); document.cookie = 'yard=1';
        new IntersectionObserver(tick); window.matchMedia('(min-width: 1px)'); Math.random();
        window.location.href = '/'; window.bees = 1;`,
        `const tick = () => 0;`,
      ),
    },
    leans: [
      'chance Math.random',
      'clock Date.now',
      'clock new Date()',
      'global sets window.bees',
      'navigation location.href',
      'page feature IntersectionObserver',
      'page feature matchMedia',
      'storage document.cookie',
      'storage localStorage',
      'storage sessionStorage',
      'timer requestAnimationFrame',
      'timer setInterval',
      'timer setTimeout',
    ],
  },
  'names of the file that only look like globals': {
    files: {
      'Board.tsx': board(
        `fetch('/api'); localStorage.getItem('a'); { const setTimeout = () => 0; setTimeout(); }`,
        `import { fetch } from './own'; const localStorage = new Map();`,
      ),
      'own.ts': `export const fetch = () => 0;`,
    },
    leans: [],
  },
  'sockets and streams of events': {
    files: {
      'Board.tsx': board(
        `new WebSocket(\`wss://\${location.host}/live/\${id}\`); new EventSource('/api/alerts');`,
      ),
    },
    leans: ['event stream EventSource /api/alerts', 'socket WebSocket /live/:id'],
  },
  'a store, a query and a route, each from its package': {
    files: {
      'Board.tsx': board(
        `const yards = useYards(); const { data } = useQuery({ queryFn: () => fetch('/api/hives') }); const go = useNavigate();`,
        `import { useQuery } from '@tanstack/react-query'; import { useNavigate } from 'react-router'; import { useYards } from './yards';`,
      ),
      'yards.ts': `import { createStore } from 'redux'; export const useYards = createStore(() => ({}));`,
    },
    leans: [
      'package createStore',
      'package useNavigate',
      'package useQuery',
      'request GET /api/hives',
      'store useYards',
    ],
  },
  'what a file does when it is loaded, and its imports': {
    files: {
      'Board.tsx': board(`log(yard);`, `import { log } from './log'; import './start';`),
      'log.ts': `const socket = new WebSocket('/log'); export const log = (text) => socket.send(text);`,
      'start.ts': `import { connect } from './log2'; connect(); window.started = true;`,
      'log2.ts': `export function connect() { setInterval(() => 0, 1000); }`,
    },
    leans: [
      'global calls connect()',
      'global sets window.started',
      'socket WebSocket /log',
      'timer setInterval',
    ],
  },
  'a variable of a file that is changed': {
    files: {
      'Board.tsx': board(`count += 1; next();`, `import { next } from './next'; let count = 0;`),
      'next.ts': `let at = 0; export const next = () => { at++; return at; };`,
    },
    leans: [
      'global changes at, which all users of the file share',
      'global changes count, which all users of the file share',
    ],
  },
  'documents of GraphQL': {
    files: {
      'Board.tsx': board(
        `const [found] = useForage({ query: FORAGE });`,
        `import { FORAGE } from './documents'; import { useForage } from './forage';`,
      ),
      'documents.ts':
        'import { gql } from "@urql/core"; export const FORAGE = gql`# What is in flower, at its best?\nquery Forage($yard: ID!) { forage(yard: $yard) { name } }`;',
      'forage.ts': `export const useForage = () => [];`,
    },
    leans: ['request QUERY Forage'],
  },
  'a class component': {
    files: {
      'Board.tsx': `import { Component } from 'react'; export class Board extends Component { componentDidMount() { fetch('/api/hives'); } render() { return <p/>; } }`,
    },
    leans: ['request GET /api/hives'],
  },
  'components that are wrapped, kept or made by createElement': {
    files: {
      'Board.tsx': `import { memo, forwardRef, createElement } from 'react'; import { Card } from './Card'; import { withYard } from './withYard';
        const Inner = forwardRef((props, ref) => createElement(Card, { ref })); export const Board = memo(withYard(Inner));`,
      'Card.tsx': `export default class {}; export const Card = () => { setTimeout(() => 0); return <p/>; };`,
      'withYard.tsx': `export const withYard = (Wrapped) => (props) => { fetch('/api/yard'); return <Wrapped {...props} />; };`,
    },
    leans: ['request GET /api/yard', 'timer setTimeout'],
  },
};

export const vue: Readonly<Record<string, Case>> = {
  'script setup: composables, a key, a store and a request': {
    files: {
      'Board.vue': `<script setup lang="ts">
import { inject, ref } from 'vue';
import HiveCard from './HiveCard.vue';
import { SessionKey } from './session';
import { useYards } from './yards';
import { useHives } from './useHives';
const props = defineProps<{ yard: string }>();
const session = inject(SessionKey);
const yards = useYards();
const { hives } = useHives(() => props.yard);
</script>
<template><HiveCard v-for="hive in hives" :key="hive.id" /><p v-if="a < b">{{ session.keeper }}</p></template>`,
      'HiveCard.vue': `<template><p>{{ Date.now() }}</p><RouterLink to="/">Home</RouterLink></template>`,
      'session.ts': `import type { InjectionKey } from 'vue'; export const SessionKey: InjectionKey<object> = Symbol('session');`,
      'yards.ts': `import { defineStore } from 'pinia'; export const useYards = defineStore('yards', {});`,
      'useHives.ts': `export function useHives(yard) { fetch('/api/hives?yard=' + yard()); return {}; }`,
    },
    leans: [
      'package RouterLink',
      'package defineStore',
      'request GET /api/hives',
      'store useYards',
      'token SessionKey',
    ],
  },
  'options: what they inject, by a text and by a key': {
    files: {
      'Board.vue': `<template><p>{{ session }}</p></template>
<script>
import { SessionKey } from './session';
export default { inject: { session: SessionKey, yard: { from: 'yard', default: null }, scale: { default: null } } };
</script>`,
      'session.ts': `export const SessionKey = Symbol('session');`,
    },
    leans: ["token 'scale'", "token 'yard'", 'token SessionKey'],
  },
  'options: injected by a list': {
    files: {
      'Board.vue': `<template><p>{{ yard }}</p></template><script>export default { inject: ['yard'] };</script>`,
    },
    leans: ["token 'yard'"],
  },
  'options: components by name, a mixin, injected by a text': {
    files: {
      'Board.vue': `<script>
import HiveCard from './HiveCard.vue'; import mixin from './mixin'; import { inject } from 'vue';
export default { components: { HiveCard }, mixins: [mixin], setup() { return { session: inject('session') }; }, mounted() { this.$router.push('/'); } };
</script>
<template><hive-card /></template>`,
      'HiveCard.vue': `<script setup>setInterval(() => 0, 1000);</script><template><p/></template>`,
      'mixin.js': `export default { created() { fetch('/api/mixed'); } };`,
    },
    leans: ['navigation $router', 'request GET /api/mixed', 'timer setInterval', "token 'session'"],
  },
  'defineComponent with JSX': {
    files: {
      'Board.tsx': `import { defineComponent } from 'vue'; import { Card } from './Card';
        export const Board = defineComponent({ setup() { fetch('/api/hives'); return () => <Card />; } });`,
      'Card.tsx': `import { defineComponent } from 'vue'; export const Card = defineComponent(() => { setTimeout(() => 0); return () => <p/>; });`,
    },
    leans: ['request GET /api/hives', 'timer setTimeout'],
  },
  'props, events, a model and slots, by macros': {
    files: {
      'Board.vue': `<script setup lang="ts">
defineProps<{ yard: string; open?: boolean }>(); defineEmits<{ opened: [id: string]; (event: 'closed'): void }>(); defineModel('search');
</script>
<template><slot /><slot name="empty" /></template>`,
    },
    leans: [],
    takes: { inputs: ['yard', 'open', 'search'], outputs: ['opened', 'closed'], slots: ['default', 'empty'] },
  },
  'props and events, by options': {
    files: {
      'Board.vue': `<script>export default { props: { yard: String }, emits: ['opened'] };</script><template><p>{{ yard }}</p></template>`,
    },
    leans: [],
    takes: { inputs: ['yard'], outputs: ['opened'] },
  },
};

export const angular: Readonly<Record<string, Case>> = {
  'inject(), a service and its client': {
    files: {
      'board.ts': `import { Component, inject, input } from '@angular/core'; import { HiveCard } from './hive-card'; import { Hives } from './hives'; import { Unused } from './unused';
        @Component({ selector: 'hive-board', imports: [HiveCard, Unused], template: \`@for (hive of hives.all(); track hive) { <hive-card [hive]="hive" /> }\` })
        export class Board { yard = input(''); hives = inject(Hives); }`,
      'hives.ts': `import { HttpClient } from '@angular/common/http'; import { Injectable, inject } from '@angular/core';
        @Injectable({ providedIn: 'root' }) export class Hives { #http = inject(HttpClient); all() { return this.#http.get(\`/api/hives\`); } }`,
      'hive-card.ts': `import { Component } from '@angular/core'; @Component({ selector: 'hive-card', template: '<p></p>' }) export class HiveCard { constructor() { setTimeout(() => 0); } }`,
      'unused.ts': `import { Component } from '@angular/core'; @Component({ selector: 'un-used', template: '' }) export class Unused { at = Date.now(); }`,
    },
    leans: ['request GET /api/hives', 'service Hives', 'timer setTimeout'],
  },
  'a module, a constructor, a token, a pipe and a file for the template': {
    files: {
      'board.ts': `import { Component, Inject } from '@angular/core'; import { Hives } from './hives'; import { UNITS } from './units';
        @Component({ selector: 'hive-board', templateUrl: './board.html' })
        export class Board { constructor(private hives: Hives, @Inject(UNITS) readonly units) {} }`,
      'board.html': `<button hiveTip>{{ weight | kilos }}</button>@defer (on viewport) { <hive-card /> }`,
      'hives.ts': `import { HttpClient } from '@angular/common/http'; import { Injectable } from '@angular/core';
        @Injectable() export class Hives { constructor(private http: HttpClient) {} drop(id) { return this.http.delete('/api/hives/' + id); } }`,
      'units.ts': `import { InjectionToken } from '@angular/core'; export const UNITS = new InjectionToken('units');`,
      'parts.ts': `import { Component, Directive, Pipe } from '@angular/core';
        @Component({ selector: 'hive-card', template: '' }) export class HiveCard { at = performance.now(); }
        @Directive({ selector: '[hiveTip]' }) export class HiveTip { open() { window.open('/'); } }
        @Pipe({ name: 'kilos' }) export class Kilos { transform() { return localStorage.getItem('unit'); } }`,
      'board.module.ts': `import { NgModule } from '@angular/core'; import { Board } from './board'; import { PartsModule } from './parts.module';
        @NgModule({ declarations: [Board], imports: [PartsModule] }) export class BoardModule {}`,
      'parts.module.ts': `import { NgModule } from '@angular/core'; import { HiveCard, HiveTip, Kilos } from './parts';
        const all = [HiveCard, HiveTip, Kilos]; @NgModule({ declarations: all, exports: [...all] }) export class PartsModule {}`,
    },
    leans: [
      'clock performance.now',
      'navigation window.open',
      'request DELETE /api/hives/:id',
      'service Hives',
      'storage localStorage',
      'token UNITS',
    ],
  },
  'addresses that begin with what an object or a field of the class says': {
    files: {
      'board.ts': `import { Component, inject } from '@angular/core'; import { Hives } from './hives';
        @Component({ selector: 'hive-board', template: '' }) export class Board { hives = inject(Hives); }`,
      'hives.ts': `import { HttpClient } from '@angular/common/http'; import { Injectable } from '@angular/core'; import { environment } from './environment';
        @Injectable() export class Hives { private readonly own = '/api/yards'; constructor(private http: HttpClient) {}
          all() { return this.http.get(\`\${environment.apiUrl}/hives\`, { params: {} }); }
          yards() { return this.http.get(this.own); } yard(id) { return this.http.put(\`\${this.own}/\${id}\`, {}); } }`,
      'environment.ts': `export const environment = { production: false, apiUrl: 'https://brackenfold.example/api' };`,
    },
    leans: [
      'request GET /api/yards',
      'request GET https://brackenfold.example/api/hives',
      'request PUT /api/yards/:id',
      'service Hives',
    ],
  },
  httpResource: {
    files: {
      'board.ts': `import { Component } from '@angular/core'; import { httpResource } from '@angular/common/http';
        @Component({ selector: 'hive-board', template: '' }) export class Board { all = httpResource(() => ({ url: \`/api/hives/\${this.id()}\` })); one = httpResource(() => '/api/yard'); }`,
    },
    leans: ['request GET /api/hives/:id', 'request GET /api/yard'],
  },
  'inputs, outputs, what it is given and what it refers to': {
    files: {
      'board.ts': `import { Component, Input, Output, EventEmitter, input, output, model, viewChild } from '@angular/core'; import { HiveCard } from './hive-card';
        @Component({ selector: 'hive-board', template: '<ng-content /><ng-content select="[empty]" />' })
        export class Board { yard = input.required<string>(); search = model(''); opened = output(); @Input() old = ''; @Output() closed = new EventEmitter(); card = viewChild(HiveCard); }`,
      'hive-card.ts': `import { Component } from '@angular/core'; @Component({ selector: 'hive-card', template: '' }) export class HiveCard { at = Date.now(); }`,
    },
    leans: ['clock Date.now'],
    takes: {
      inputs: ['yard', 'search', 'old'],
      outputs: ['opened', 'closed'],
      slots: ['default', '[empty]'],
    },
  },
};
