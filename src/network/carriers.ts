import type { Environment } from '../core/environment';
import { ownerOfCall } from '../core/ownership';
import { explain } from './errors';
import { baseAddress } from './globals';
import { reportNobody } from './nobody';
import { printAddress } from './print-address';

/** Reports that a module is loaded from an address, which no route answers. */
export function refuseImport(address: string): Error {
  const asked = `GET ${printAddress(new URL(address, baseAddress()))}`;
  return refuse(asked, 'import()', (owner, from) =>
    explain('SIM-CARRIER-REFUSED', { asked, from, subject: owner.name }),
  );
}

/** Reports that a request would block the page until it is answered. */
export const refuseSync = (asked: string): Error =>
  refuse(asked, 'XMLHttpRequest', (owner, from) =>
    explain('SIM-REQUEST-SYNC', { asked, from, subject: owner.name }),
  );

function refuse(
  asked: string,
  carrier: string,
  word: (owner: Environment, from: string | undefined) => Error,
): Error {
  const owner = ownerOfCall();
  if (!owner || owner.state === 'down') return reportNobody(asked, carrier, owner);
  const from = owner.running();
  owner.chronicle.add('unmatched', asked, { detail: `refused: ${carrier}`, from, trigger: true });
  const error = word(owner, from);
  owner.fail(error);
  return error;
}
