import type { Framework } from '../survey/facts';
import type { SurveyNode } from '../survey/graph';
import type { Given } from './model';
import { dashed } from './write/words';
import { code, constant, type Needed, type Value } from './value';

/* What well-known packages need around a component: routers, data clients, stores. */

interface Recipe {
  readonly framework: Framework;
  /** What is imported of a package, `react-router useParams`. */
  readonly when: RegExp;
  readonly wrap?: Value;
  /** Where a provider of the project's own comes first. */
  readonly isLast?: true;
}

const of = (from: string, ...names: readonly string[]): readonly Needed[] =>
  names.map((name) => ({ name, from }));

/** A plugin that is made anew for each test. */
const ownPlugin = (name: string, made: string, ...needs: readonly Needed[]): Value =>
  constant(name, `{ install: (app: App) => void app.use(${made}) }`, ...needs, {
    name: 'App',
    from: 'vue',
    isType: true,
  });

const recipes: readonly Recipe[] = [
  {
    framework: 'react',
    when: /^react-router(-dom)? (use(Navigate|Params|Location|SearchParams|Match|Href|ResolvedPath|Outlet\w*|NavigationType)|Link|NavLink|Navigate|Outlet|Routes|Form)$/,
    wrap: code('MemoryRouter', ...of('react-router', 'MemoryRouter')),
  },
  {
    framework: 'react',
    when: /^@tanstack\/react-query (use\w+)$/,
    // A client for each test; without retries, which would be waited for.
    wrap: constant(
      'WithQueries',
      `({ children }: { children?: ReactNode }) => {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { retry: false } } }));
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}`,
      ...of('@tanstack/react-query', 'QueryClient', 'QueryClientProvider'),
      ...of('react', 'useState'),
      { name: 'ReactNode', from: 'react', isType: true },
    ),
  },
  {
    framework: 'react',
    when: /^react-hook-form use(FormContext|FormState|Controller|Watch|FieldArray|Query)$/,
    isLast: true,
    wrap: constant(
      'InForm',
      `({ children }: { children?: ReactNode }) => {
  const form = useForm();
  return <FormProvider {...form}>{children}</FormProvider>;
}`,
      ...of('react-hook-form', 'FormProvider', 'useForm'),
      { name: 'ReactNode', from: 'react', isType: true },
    ),
  },
  {
    framework: 'react',
    when: /^@apollo\/client(\/react)? use(Query|SuspenseQuery|LazyQuery|Mutation|Subscription|ApolloClient)$/,
    isLast: true,
    wrap: code(
      "[ApolloProvider, { client: new ApolloClient({ link: new HttpLink({ uri: 'http://localhost/graphql' }), cache: new InMemoryCache() }) }]",
      ...of('@apollo/client', 'ApolloClient', 'HttpLink', 'InMemoryCache'),
      ...of('@apollo/client/react', 'ApolloProvider'),
    ),
  },
  {
    framework: 'vue',
    when: /^vue-router (use(Router|Route|Link)|RouterLink|RouterView)$/,
    wrap: ownPlugin(
      'router',
      "createRouter({ history: createMemoryHistory(), routes: [{ path: '/:path(.*)*', component: { render: () => null } }] })",
      ...of('vue-router', 'createMemoryHistory', 'createRouter'),
    ),
  },
  {
    framework: 'vue',
    when: /^pinia (defineStore|storeToRefs)$/,
    wrap: ownPlugin('store', 'createPinia()', ...of('pinia', 'createPinia')),
  },
  {
    framework: 'vue',
    when: /^vue-i18n useI18n$/,
    wrap: code(
      "createI18n({ legacy: false, locale: 'en', missingWarn: false, fallbackWarn: false })",
      ...of('vue-i18n', 'createI18n'),
    ),
  },
  {
    framework: 'vue',
    when: /^@tanstack\/vue-query use\w+$/,
    wrap: code(
      '[VueQueryPlugin, { queryClientConfig: { defaultOptions: { queries: { retry: false } } } }]',
      ...of('@tanstack/vue-query', 'VueQueryPlugin'),
    ),
  },
  {
    framework: 'angular',
    when: /^@angular\/router (Router|ActivatedRoute|RouterLink|RouterLinkActive|RouterOutlet|RouterModule)$/,
    wrap: code('provideRouter([])', ...of('@angular/router', 'provideRouter')),
  },
  {
    framework: 'angular',
    when: /^@angular\/common\/http (HttpClient|httpResource)$/,
    wrap: code('provideHttpClient()', ...of('@angular/common/http', 'provideHttpClient')),
  },
];

/** Parameters of the address that a text reads: `useParams<{ hiveId: string }>()`, `const { hiveId } = useParams()`, `route.params.hiveId`. */
export function paramsIn(source: string): readonly string[] {
  const found = [
    ...source.matchAll(/useParams\s*<\s*\{([^}]*)\}/g),
    ...source.matchAll(/\{([^}]*)\}\s*=\s*(?:useParams|[\w.()]+\.params\b)/g),
  ].flatMap(([, inside = '']) =>
    [...inside.matchAll(/([A-Za-z_$][\w$]*)\??\s*(?=[:,=}]|$)/g)].map(([, name]) => name!),
  );
  const read = [
    ...source.matchAll(/\bparams(?:\.value)?\??\.([A-Za-z_$][\w$]*)/g),
    ...source.matchAll(/\b(?:params|useParams\(\))\[['"]([\w$]+)['"]\]/g),
    ...source.matchAll(/[pP]aramMap\.get\(['"]([\w$]+)['"]\)/g),
  ].map(([, name]) => name!);
  return [...new Set([...found, ...read])].filter((name) => !/^(string|value|get|has|id\?)$/.test(name));
}

/** A router that is at an address with these parameters. */
function routerAt(params: readonly string[]): Value {
  const [path, address] = [pathOf(params), addressOf(params)];
  return constant(
    'AtItsAddress',
    `({ children }: { children?: ReactNode }) => (
  <MemoryRouter initialEntries={['${address}']}>
    <Routes>
      <Route path="${path}" element={children} />
    </Routes>
  </MemoryRouter>
)`,
    ...of('react-router', 'MemoryRouter', 'Route', 'Routes'),
    { name: 'ReactNode', from: 'react', isType: true },
  );
}

/** The same of Vue's. */
function vueRouterAt(params: readonly string[]): Value {
  return constant(
    'router',
    `{
  install: (app: App) => {
    const history = createMemoryHistory();
    history.replace('${addressOf(params)}');
    const component = { render: () => null };
    const routes = [{ path: '${pathOf(params)}', component }, { path: '/:path(.*)*', component }];
    app.use(createRouter({ history, routes }));
  },
}`,
    ...of('vue-router', 'createMemoryHistory', 'createRouter'),
    { name: 'App', from: 'vue', isType: true },
  );
}

const pathOf = (params: readonly string[]): string => params.map((name) => `/:${name}`).join('');
const addressOf = (params: readonly string[]): string =>
  params.map((name) => `/${dashed(name).replace(/-id$/, '')}-1`).join('');

/** What the packages need that a component uses. */
export function predictWrappers(
  nodes: readonly SurveyNode[],
  framework: Framework,
  params: readonly string[],
): Given['wrap'] {
  const used = nodes
    .filter((node) => node.package !== undefined)
    .map((node) => ({ from: node.package!, key: `${node.package} ${node.name}` }));
  const found = recipes.filter(
    (recipe) =>
      recipe.framework === framework && !recipe.isLast && used.some(({ key }) => recipe.when.test(key)),
  );
  return found.map(({ when, wrap }) => {
    const { from } = used.find(({ key }) => when.test(key))!;
    if (params.length === 0 || wrap!.kind !== 'code') return inPackage(wrap!, from);
    if (wrap!.code === 'MemoryRouter') return inPackage(routerAt(params), from);
    return wrap!.constant === 'router' ? vueRouterAt(params) : inPackage(wrap!, from);
  });
}

/** The package that the project itself imports it from: `react-router-dom`, say. */
function inPackage(value: Value, from: string): Value {
  if (value.kind !== 'code') return value;
  return {
    ...value,
    needs: (value.needs ?? []).map((one) =>
      from.replace(/-dom$/, '') === one.from ? { ...one, from } : one,
    ),
  };
}

/** What has to be put around for a name that a failure gives. */
export function wrapperNamed(name: string, framework: Framework): Value | undefined {
  const known: Readonly<Record<string, string>> = {
    HttpClient: '@angular/common/http HttpClient',
    Router: '@angular/router Router',
    ActivatedRoute: '@angular/router ActivatedRoute',
    ChildrenOutletContexts: '@angular/router Router',
    RouterLink: 'vue-router RouterLink',
    RouterView: 'vue-router RouterView',
    'router-link': 'vue-router RouterLink',
    'router-view': 'vue-router RouterView',
  };
  const key = known[name] ?? name;
  return recipes.find((recipe) => recipe.framework === framework && recipe.when.test(key))?.wrap;
}

/** What has to be put around for a package that threw. */
export const wrapperOfPackage = (name: string, framework: Framework): Value | undefined =>
  recipes.find(
    (recipe) =>
      recipe.framework === framework &&
      ['useQuery', 'useNavigate', 'useRouter', 'useI18n', 'defineStore'].some((used) =>
        recipe.when.test(`${name} ${used}`),
      ),
  )?.wrap;
