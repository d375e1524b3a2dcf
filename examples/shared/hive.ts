import data from './hives.json';

/** A hive, as the backend sends it. */
export interface Hive {
  id: string;
  yard: string;
  name: string;
  /** Colour of the box, as CSS has it. */
  colour: string;
  queen: { year: number; marked: boolean };
  /** Frames of brood. */
  brood: number;
  /** Frames of stores. */
  stores: number;
  /** Kilograms. */
  weight: number;
  /** Mites per 100 bees. */
  varroa: number;
  /** Date, as ISO 8601 has it. */
  lastInspection: string;
  tasks: string[];
}

export const allHives: Hive[] = data;

/** The hives of the north yard: Anemone, Borage and Clover. */
export const hives: Hive[] = allHives.filter(({ yard }) => yard === 'north');
