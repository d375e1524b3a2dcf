import 'simulacra/jest';
import { fail, hold, label, role, text } from 'simulacra';
import { isolate } from 'simulacra/react';
import { hives, type Hive } from '../../examples/shared/hive';

// recipe: react-router
import type { ReactNode } from 'react';
import { Link, MemoryRouter, Route, Routes, useParams } from 'react-router';

const HivePage = () => (
  <p>
    Hive {useParams()['hiveId']} <Link to="/">Back</Link>
  </p>
);
const atHive = ({ children }: { children?: ReactNode }) => (
  <MemoryRouter initialEntries={['/hives/h7']}>
    <Routes>
      <Route path="/hives/:hiveId" element={children} />
      <Route path="*" element={null} />
    </Routes>
  </MemoryRouter>
);

test('a page is given its address, and where it leads can be asserted', async () => {
  const page = await isolate(HivePage, { wrap: [atHive] });
  expect(page).toShow(text(/Hive h7/));
  await page.click(role('link', 'Back'));
  expect(page.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
// end

// recipe: TanStack Query
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';

function HiveNames() {
  const { data, error, isPending } = useQuery({
    queryKey: ['hives'],
    queryFn: async (): Promise<Hive[]> => {
      const response = await fetch('/api/hives');
      if (!response.ok) throw new Error(`The yard answered ${response.status}`);
      return (await response.json()) as Hive[];
    },
  });
  if (isPending) return <p role="status">Loading</p>;
  return error ? <p role="alert">{error.message}</p> : <p>{data.map(({ name }) => name).join(', ')}</p>;
}
// A client of its own for each test; without retries, which would be waited for.
const queries = (): [typeof QueryClientProvider, { client: QueryClient }] => [
  QueryClientProvider,
  { client: new QueryClient({ defaultOptions: { queries: { retry: false } } }) },
];

test('a query is loading, then shows what the network answered', async () => {
  const answer = hold<Hive[]>();
  const names = await isolate(HiveNames, { wrap: [queries()], network: { 'GET /api/hives': answer } });
  expect(names).toShow(role('status', 'Loading'));
  await answer.release(hives);
  expect(names).toShow(text('Anemone, Borage, Clover'));
});

test('a query that failed says so', async () => {
  const names = await isolate(HiveNames, { wrap: [queries()], network: { 'GET /api/hives': fail(503) } });
  expect(names).toShow(role('alert', 'The yard answered 503'));
});
// end

// recipe: Apollo Client
import { ApolloClient, gql, HttpLink, InMemoryCache } from '@apollo/client';
import { ApolloProvider, useQuery as useGraph } from '@apollo/client/react';

const inFlower = gql`
  query InFlower {
    inFlower {
      name
    }
  }
`;
function ForagePanel() {
  const { data, error, loading } = useGraph<{ inFlower: { name: string }[] }>(inFlower);
  if (loading) return <p role="status">Looking for flowers</p>;
  return <p>{error ? 'Nobody knows' : data?.inFlower.map(({ name }) => name).join(', ')}</p>;
}
const apollo = (): [typeof ApolloProvider, { client: ApolloClient }] => {
  const link = new HttpLink({ uri: 'http://localhost/graphql' });
  return [ApolloProvider, { client: new ApolloClient({ link, cache: new InMemoryCache() }) }];
};

test('a GraphQL query is answered at its address', async () => {
  const answer = { data: { inFlower: [{ __typename: 'Plant', name: 'Heather' }] } };
  const panel = await isolate(ForagePanel, { wrap: [apollo()], network: { 'POST /graphql': answer } });
  expect(panel).toHaveShown(role('status', 'Looking for flowers'));
  expect(panel).toShow(text('Heather'));
});

test('a GraphQL query fails with errors in the answer', async () => {
  const answer = { errors: [{ message: 'No plant is known' }] };
  const panel = await isolate(ForagePanel, { wrap: [apollo()], network: { 'POST /graphql': answer } });
  expect(panel).toShow(text('Nobody knows'));
});
// end

// recipe: a Redux store
import { Provider, useDispatch, useSelector } from 'react-redux';
import { legacy_createStore as createStore } from 'redux';

interface Yard {
  opened: string[];
}
const reduce = (yard: Yard = { opened: [] }, action: { type: string; hiveId?: string }): Yard =>
  action.type === 'open' ? { opened: [...yard.opened, action.hiveId!] } : yard;

function OpenHives() {
  const opened = useSelector(({ opened }: Yard) => opened);
  const dispatch = useDispatch();
  return <button onClick={() => dispatch({ type: 'open', hiveId: 'h3' })}>{opened.length} open</button>;
}

test('a component works on a real store that begins where the test says', async () => {
  const store = createStore(reduce, { opened: ['h1'] });
  const open = await isolate(OpenHives, { wrap: [<Provider key="store" store={store} children={null} />] });
  await open.click(role('button', '1 open'));
  expect(open).toShow(role('button', '2 open'));
  expect(store.getState()).toEqual({ opened: ['h1', 'h3'] });
});
// end

// recipe: the theme of a component library
import Button from '@mui/material/Button';
import { createTheme, ThemeProvider, useTheme } from '@mui/material/styles';

const honey = createTheme({ palette: { primary: { main: '#a8660a' } } });
const HoneyButton = () => <Button variant="contained">{useTheme().palette.primary.main}</Button>;

test('a component is drawn in the theme of the application', async () => {
  const button = await isolate(HoneyButton, { wrap: [[ThemeProvider, { theme: honey }]] });
  expect(button).toShow(role('button', '#a8660a'));
});

test('the components of the library can be stubbed like any other', async () => {
  const button = await isolate(HoneyButton, { wrap: [[ThemeProvider, { theme: honey }]], stub: [Button] });
  expect(button.part(Button).props).toMatchObject([{ variant: 'contained' }]);
});
// end

// recipe: react-hook-form
import { FormProvider, useForm, useFormContext } from 'react-hook-form';

function VarroaField() {
  const { formState, register } = useFormContext<{ varroa: string }>();
  const { errors } = formState;
  return (
    <>
      <label>
        Varroa <input {...register('varroa', { required: 'Count the mites first' })} />
      </label>
      {errors.varroa && <span role="alert">{errors.varroa.message}</span>}
    </>
  );
}
const logged: string[] = [];
function InForm({ children }: { children?: ReactNode }) {
  const form = useForm<{ varroa: string }>({ defaultValues: { varroa: '' } });
  return (
    <FormProvider {...form}>
      <form onSubmit={(event) => void form.handleSubmit(({ varroa }) => logged.push(varroa))(event)}>
        {children}
        <button>Log</button>
      </form>
    </FormProvider>
  );
}

test('a field by itself has the form it belongs to around it', async () => {
  const field = await isolate(VarroaField, { wrap: [InForm] });
  await field.press('Enter', label('Varroa'));
  expect(field).toShow(role('alert', 'Count the mites first'));
  await field.type(label('Varroa'), '4');
  await field.press('Enter');
  expect(field).not.toShow(role('alert'));
  expect(logged).toEqual(['4']);
});
// end

// recipe: a row of a table
const WeightRow = ({ name, kilograms }: { name: string; kilograms: number }) => (
  <tr>
    <th scope="row">{name}</th>
    <td>{kilograms} kg</td>
  </tr>
);
const inTable = ({ children }: { children?: ReactNode }) => (
  <table>
    <tbody>{children}</tbody>
  </table>
);

test('a row stands in a table of the test', async () => {
  const row = await isolate(WeightRow, { props: { name: 'Anemone', kilograms: 31.2 }, wrap: [inTable] });
  expect(row).toShow(role('row', 'Anemone 31.2 kg'));
  expect(row).toShow(role('rowheader', 'Anemone'));
});
// end
