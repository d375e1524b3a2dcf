import { everyArrival, label, role, verifyStates, type Arrivals, type StatesReport } from 'simulacra';
import { isolate } from 'simulacra/react';
import { useRef, useState } from 'react';
import { hives } from '../shared/hive';
import board from './src/HiveBoard.states';

/** The names of the declared states. */
export const names: readonly string[] = Object.keys(board);

/** Brings the declared states of the board about, as a user's own command does. */
export const verify = (only: readonly string[]): Promise<StatesReport> =>
  verifyStates(board, { only, outlines: true });

const find = async (letters: string): Promise<string> => {
  const response = await fetch(`/api/hives?q=${letters}`);
  return ((await response.json()) as { name: string }[]).map(({ name }) => name).join(', ');
};

/** Looks for hives while one types. Whichever answer comes last is shown, whatever was asked last. */
export function HiveFinder({ isMended = false }: { isMended?: boolean }) {
  const [found, setFound] = useState('');
  const asked = useRef('');
  const look = async (letters: string) => {
    asked.current = letters;
    const names = await find(letters);
    if (!isMended || asked.current === letters) setFound(names);
  };
  return (
    <label>
      Find a hive
      <input type="search" onChange={({ target }) => void look(target.value)} />
      <output>{found}</output>
    </label>
  );
}

const scenario = (isMended: boolean) => async () => {
  const finder = await isolate(HiveFinder, {
    props: { isMended },
    network: {
      'GET /api/hives?q=:q': (request) => {
        const letters = new URL(request.url).searchParams.get('q')!.toLowerCase();
        return hives.filter(({ name }) => name.toLowerCase().includes(letters));
      },
    },
  });
  await finder.type(label('Find a hive'), 'ove');
  const shown = finder.texts(role('status')).join();
  if (shown !== 'Clover') throw new Error(`"ove" was typed, and ${shown || 'nothing'} is shown`);
};

/** A finder with a race in it, and its mended twin. */
export async function race(): Promise<{ failure: Error | undefined; mended: Arrivals }> {
  const failure = await everyArrival(scenario(false)).then(
    () => undefined,
    (reason: Error) => reason,
  );
  return { failure, mended: await everyArrival(scenario(true)) };
}
