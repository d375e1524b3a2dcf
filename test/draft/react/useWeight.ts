import { useEffect, useState } from 'react';
import { listen } from './scales';

export function useWeight(): { kilograms: number; isLive: boolean } {
  const [kilograms, setKilograms] = useState(0);
  useEffect(() => listen(setKilograms), []);
  return { kilograms, isLive: kilograms > 0 };
}
