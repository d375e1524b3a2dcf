import type { States } from '../states/declare';
import { readStates } from '../states/sets';
import { readRunner } from './runner';

/** How declared states are tested. */
export interface TestStatesOptions {
  /**
   * Whether the outline of each state is compared with the one that was accepted: a text beside the file that
   * declares them (`HiveBoard.looks.txt`), which a run with `ACCEPT_LOOKS=1` writes. Where there is such a text, it
   * is compared unless this is false; where this is true, there has to be one.
   */
  readonly looks?: boolean;
  /**
   * Whether each branch of the component has to be reached by a state, where the runner counts coverage (with
   * `coverageProvider: 'babel'`, which is the usual one). Unless this is true or false, what is not reached is printed.
   */
  readonly branches?: boolean;
}

/**
 * Makes a test of each declared state, one that they can be told apart, and one that all they declare is of use.
 *
 * @throws SIM-STATES-GIVEN
 * @example
 * testStates(
 *   states(HiveBoard, { props: { yard: 'north' }, stub: [HiveCard] }, {
 *     loading: { network: { 'GET /api/hives': hold() }, shows: [role('status', 'Loading hives')] },
 *     loaded: { network: { 'GET /api/hives': hives }, counts: [[part(HiveCard), 3]] },
 *   }),
 * );
 */
export function testStates(states: States, options: TestStatesOptions = {}): void {
  const set = readStates(states, 'testStates()');
  const { describe, it, expect } = readRunner();
  // Read only when a test runs.
  let reading: Promise<import('../states/verification').Verification> | undefined;
  const read = () =>
    (reading ??= import('../states/verification').then(
      ({ Verification }) => new Verification(states, 'testStates()'),
    ));
  describe!(set.component, () => {
    for (const { name } of set.states)
      it!(name, async () => {
        const { hasLooks, compareLooks } = await import('./looks');
        const isCompared = hasLooks(set, options.looks);
        const { outline } = await (await read()).verify(name, { isOutlined: isCompared });
        if (isCompared) compareLooks(set, name, outline, expect!);
      });
    if (set.states.length > 1) it!('its states are told apart', async () => (await read()).tellApart());
    it!('all that its states declare is of use', async () => {
      await (await read()).useAll();
      if (options.branches === false) return;
      const { complainOfBranches } = await import('./branches');
      const complaint = complainOfBranches(set);
      if (complaint && options.branches) throw complaint;
      if (complaint) console.info(complaint.message);
    });
  });
}
