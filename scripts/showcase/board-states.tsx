import { testStates } from 'simulacra/jest';
import { fail, hold, part, role } from 'simulacra';
import { states } from 'simulacra/react';
import { hives } from '../../examples/shared/hive';
import { HiveBoard } from '../../examples/react-apiary/src/HiveBoard';
import { HiveCard } from '../../examples/react-apiary/src/HiveCard';

const board = states(
  HiveBoard,
  { props: { yard: 'north' }, stub: [HiveCard] },
  {
    loading: { network: { 'GET /api/hives': hold() }, shows: [role('status', 'Loading hives')] },
    failed: { network: { 'GET /api/hives': fail(503) }, shows: [role('button', 'Try again')] },
    loaded: { network: { 'GET /api/hives': hives }, shows: [part(HiveCard)] },
    'one hive': { network: { 'GET /api/hives': hives.slice(1, 2) }, counts: [[part(HiveCard), 1]] },
  },
);
testStates(board);
