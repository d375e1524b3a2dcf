/** What a keeper has seen in a hive. */
export interface Inspection {
  hiveId: string;
  /** Mites per 100 bees. */
  varroa: number;
  note: string;
}

/** Where inspections are kept. */
export interface Inspections {
  /** @throws Refused */
  log(inspection: Inspection): Promise<void>;
}

/** What is wrong with an inspection, in the words of whoever keeps them. */
export class Refused extends Error {}

/** Why a count cannot be right, if it cannot. */
export function doubtOf(varroa: string): string | undefined {
  if (varroa.trim() === '') return 'Count the mites first';
  const count = Number(varroa);
  return count >= 0 && count <= 100 ? undefined : 'There are 0 to 100 mites per 100 bees';
}

/** Logs at the yard's own backend, whose refusals are problem details (RFC 9457). */
export async function logInspection({ hiveId, ...rest }: Inspection): Promise<void> {
  const response = await fetch(`/api/hives/${hiveId}/inspections`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(rest),
  });
  if (response.ok) return;
  const { detail, title } = (await response.json()) as { detail?: string; title: string };
  throw new Refused(detail ?? title);
}
