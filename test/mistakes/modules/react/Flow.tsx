import { useContext, type ReactNode } from 'react';
import { SeasonContext, useSeason } from './season';

export const Flow = () => <p>{useContext(SeasonContext)!.flow}</p>;
export const GuardedFlow = () => <p>{useSeason().flow}</p>;
export const FlowPage = () => (
  <main>
    <Flow />
  </main>
);
/** Reads a context by the way, and throws for a reason of its own. */
export const Queenless = () => {
  useContext(SeasonContext);
  throw new RangeError('a hive of 90,000 bees');
};
export const FlowFrame = ({ children }: { children?: ReactNode }) => (
  <section aria-label={useContext(SeasonContext)!.flow}>{children}</section>
);
