import { ApolloClient, gql, HttpLink, InMemoryCache, type TypedDocumentNode } from '@apollo/client';
import { ApolloProvider, useQuery } from '@apollo/client/react';
import { useState, type ReactNode } from 'react';
import { amounts, distances, inFlower, type Plant } from '../../shared/forage';

const IN_FLOWER = gql(inFlower) as TypedDocumentNode<{ plants: Plant[] }, { within: number }>;

const makeClient = () =>
  new ApolloClient({ link: new HttpLink({ uri: '/graphql' }), cache: new InMemoryCache() });

/** Gives the client of the yard's backend to what is inside. */
export function ForageProvider({ children }: { children: ReactNode }) {
  const [client] = useState(makeClient);
  return <ApolloProvider client={client}>{children}</ApolloProvider>;
}

/** What is in flower, as far as the keeper wants to know. */
export function ForagePanel() {
  const [within, setWithin] = useState(distances[1]!);
  const { data, error, loading, refetch } = useQuery(IN_FLOWER, {
    variables: { within },
    notifyOnNetworkStatusChange: true,
  });
  return (
    <section className="forage" aria-labelledby="forage-title">
      <header>
        <h2 id="forage-title">In flower</h2>
        <label>
          Within
          <select value={within} onChange={(event) => setWithin(Number(event.target.value))}>
            {distances.map((metres) => (
              <option key={metres} value={metres}>
                {metres} m
              </option>
            ))}
          </select>
        </label>
      </header>
      {loading && <p role="status">Looking around</p>}
      {!loading && error && (
        <div role="alert">
          <p>Nobody knows what is in flower</p>
          <button type="button" onClick={() => void refetch().catch(() => undefined)}>
            Ask again
          </button>
        </div>
      )}
      {!loading && data?.plants.length === 0 && <p className="empty">Nothing is in flower that near</p>}
      {!loading && data && data.plants.length > 0 && (
        <ul>
          {data.plants.map(({ id, name, amount, distance, flowers }) => (
            <li key={id}>
              <strong>{name}</strong>: {amounts[amount]}, {distance} m, until {flowers.until}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
