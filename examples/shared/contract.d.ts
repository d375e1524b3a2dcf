/* Made by simulacra types of openapi.yaml, schema.graphql. */

export type Hive = {
  id: string;
  name: string;
  yard: 'north' | 'east' | 'south';
  colour: string;
  queen: {
    year: number;
    marked: boolean;
  };
  brood: number;
  stores: number;
  weight: number;
  varroa: number;
  lastInspection: string | null;
  tasks: string[];
};

export type Inspection = {
  varroa: number;
  note?: string;
};

export type Problem = {
  type?: string;
  title?: string;
  status?: number;
  detail?: string;
  instance?: string;
  [key: string]: unknown;
};

/** What grows around the yard, as far as a bee flies. */
export type Query = {
  __typename: 'Query';
  /** What is in flower within a distance in metres, the nearest first. */
  plants: Plant[];
};

export type Subscription = {
  __typename: 'Subscription';
  /** Each plant that comes into flower. */
  bloom: Plant;
};

export type Plant = Herb | Tree;

export type Herb = {
  __typename: 'Herb';
  id: string;
  name: string;
  distance: number;
  amount: Amount;
  flowers: Period;
};

export type Tree = {
  __typename: 'Tree';
  id: string;
  name: string;
  distance: number;
  amount: Amount;
  flowers: Period;
  /** Metres. */
  height: number | null;
};

/** How much there is to gather. */
export type Amount = 'LITTLE' | 'SOME' | 'PLENTY';

export type Period = {
  __typename: 'Period';
  from: unknown;
  until: unknown;
};

/** What an operation selects of a type. */
export type Partly<T> = T extends readonly (infer I)[]
  ? readonly Partly<I>[]
  : T extends object
    ? { readonly [K in keyof T]?: Partly<T[K]> }
    : T;

/** What each route answers when all goes well. */
export interface Answers {
  'GET /api/hives': Hive[];
  'GET /api/hives/:hiveId': Hive;
  'POST /api/hives/:hiveId/inspections': undefined;
  'POST /api/photos': {
    url: string;
  };
  'PUT /api/photos/:photoId': undefined;
  [operation: `QUERY ${string}`]: Partly<Query>;
  [operation: `SUBSCRIPTION ${string}`]: Partly<Subscription>;
}
