import { gql } from '@apollo/client';
import { loadDevMessages, loadErrorMessages } from '@apollo/client/dev';
import { useQuery as useForage } from '@apollo/client/react';
import { useQueryClient } from '@tanstack/react-query';
import { useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { SimulacraError } from 'simulacra';
import { isolate } from 'simulacra/react';

beforeAll(() => {
  loadDevMessages();
  loadErrorMessages();
});

const forage = gql`
  query Forage {
    forage {
      plant
    }
  }
`;
const hooks: Readonly<Record<string, () => unknown>> = {
  useForage: () => useForage(forage),
  useNavigate,
  useQueryClient,
  useStore,
};
const failureOf = async (hook: string) => {
  const Board = () => {
    hooks[hook]!();
    return null;
  };
  const failure: unknown = await isolate(Board).catch((thrown: unknown) => thrown);
  if (!(failure instanceof SimulacraError) || failure.code !== 'SIM-WRAP-MISSING') throw failure;
  return failure as SimulacraError & { fields: { provider?: unknown } };
};

it.each([
  ['useNavigate', { name: 'MemoryRouter', from: 'react-router', requires: [] }],
  [
    'useStore',
    {
      ...{ name: 'Provider', from: 'react-redux' },
      requires: [{ name: 'store', type: 'Store<unknown, Action<string>, unknown>' }],
    },
  ],
  [
    'useQueryClient',
    {
      ...{ name: 'QueryClientProvider', from: '@tanstack/react-query' },
      requires: [{ name: 'client', type: 'QueryClient' }],
    },
  ],
  [
    'useForage',
    {
      ...{ name: 'ApolloProvider', from: '@apollo/client/react' },
      requires: [{ name: 'client', type: 'ApolloClient' }],
    },
  ],
])('a program is told what the provider of a hook is and requires: %s', async (hook, provider) => {
  const { fields } = await failureOf(hook);
  expect(fields.provider).toEqual(provider);
});

it('reads the types of a package only when a program asks', async () => {
  const failure = await failureOf('useStore');
  expect(Object.keys(failure.fields)).not.toContain('provider');
  expect(JSON.stringify(failure)).not.toContain('requires');
});
