// Paired measuring: every candidate is run in turn, many times over, in one process.
import { takeDown } from 'simulacra';

/** One turn of the event loop, as a subject takes it to come to rest. */
export const turn = () => new Promise((resolve) => setImmediate(resolve));

/** How long some work takes, in milliseconds; by a clock that virtual time does not move. */
export const took = async (work) => {
  const start = process.hrtime.bigint();
  await work();
  return Number(process.hrtime.bigint() - start) / 1e6;
};

/** A subject that is put up and taken down again, by a framework's `isolate`. */
export const isolatedBy = (isolate) => (component, options) => async () => {
  await isolate(component, options);
  await takeDown();
};

const ofLastTwo = (times) => times.at(-1) + times.at(-2);

export const middle = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)];

/**
 * Runs two ways of doing the same thing in batches, with what they leave to be collected counted: a call by
 * itself leaves its garbage to those after it.
 */
export const compareBatches = ({ ours, floor, size = 50, rounds = 30 }) => {
  const batch = (work) => async () => {
    for (let n = 0; n < size; n++) await work();
    globalThis.gc();
  };
  return compare({ ours: batch(ours), floor: batch(floor), rounds, warmUp: 4 });
};

/**
 * Runs two ways of doing the same thing alternately. @returns the middle of the times of each, in
 * milliseconds, and the middle of the ratios of each pair of rounds
 */
export async function compare({ ours, floor, rounds, warmUp = Math.ceil(rounds / 10) }) {
  const times = { ours: [], floor: [], ratios: [] };
  for (let round = -warmUp; round < rounds; round++) {
    // Whoever goes second finds the caches warm and the other's garbage, so they take turns.
    const order = round % 2 === 0 ? [ours, floor] : [floor, ours];
    const each = new Map();
    for (const work of order) each.set(work, await took(work));
    if (round < 0) continue;
    times.ours.push(each.get(ours));
    times.floor.push(each.get(floor));
    // One round in either order makes a pair.
    if (round % 2 === 1) times.ratios.push(ofLastTwo(times.ours) / ofLastTwo(times.floor));
  }
  return { ours: middle(times.ours), floor: middle(times.floor), ratio: middle(times.ratios) };
}
