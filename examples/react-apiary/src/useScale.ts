import { useEffect, useState } from 'react';
import { listenToScale } from '../../shared/scales';

export interface Scale {
  /** The last weight it told; undefined before the first. */
  kilograms: number | undefined;
  live: boolean;
}

/** What the scale under a hive tells, as it tells it. */
export function useScale(hiveId: string): Scale {
  const [told, setTold] = useState<{ hiveId: string; kilograms: number }>();
  useEffect(() => listenToScale(hiveId, (kilograms) => setTold({ hiveId, kilograms })), [hiveId]);
  const kilograms = told?.hiveId === hiveId ? told.kilograms : undefined;
  return { kilograms, live: kilograms !== undefined };
}
