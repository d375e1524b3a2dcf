/** A plant in flower, as the panel asks for it. */
export interface Plant {
  __typename: 'Herb' | 'Tree';
  id: string;
  name: string;
  /** Metres from the yard. */
  distance: number;
  amount: 'LITTLE' | 'SOME' | 'PLENTY';
  /** Days, as ISO 8601 has them. */
  flowers: { __typename: 'Period'; from: string; until: string };
}

/** What is asked of the yard's backend. */
export const inFlower = `
  query InFlower($within: Int!) {
    plants(within: $within) {
      __typename
      id
      name
      distance
      amount
      flowers {
        __typename
        from
        until
      }
    }
  }
`;

/** Distances to choose from, in metres. */
export const distances = [500, 1500, 3000];

export const amounts = { LITTLE: 'a little', SOME: 'some', PLENTY: 'plenty' } as const;

const plant = (
  id: string,
  kind: Plant['__typename'],
  name: string,
  rest: Pick<Plant, 'distance' | 'amount'>,
  from: string,
  until: string,
): Plant => ({ __typename: kind, id, name, ...rest, flowers: { __typename: 'Period', from, until } });

/** What grows around the yard, the nearest first. */
export const plants: Plant[] = [
  plant('p1', 'Herb', 'White clover', { distance: 200, amount: 'PLENTY' }, '2031-05-10', '2031-08-31'),
  plant('p2', 'Tree', 'Small-leaved lime', { distance: 900, amount: 'SOME' }, '2031-06-20', '2031-07-10'),
  plant('p3', 'Herb', 'Viper’s bugloss', { distance: 2400, amount: 'LITTLE' }, '2031-05-25', '2031-09-15'),
];
