import { useEffect, useState } from 'react';
import { useAlerts } from './useAlerts';

/** One alert every four seconds, from the first again after the last. */
export function AlertTicker() {
  const alerts = useAlerts();
  const [at, setAt] = useState(0);
  const [isPaused, setPaused] = useState(false);
  const { length } = alerts;
  const go = (by: number) => setAt((now) => (now + by + length) % length);

  // Whoever has moved on by hand gets four seconds to read.
  useEffect(() => {
    if (isPaused || length === 0) return undefined;
    const timer = setTimeout(() => setAt((at + 1) % length), 4000);
    return () => clearTimeout(timer);
  }, [at, isPaused, length]);

  if (length === 0) return null;
  return (
    <section className="ticker" aria-label="Alerts">
      <p aria-live="polite">{alerts[at % length]!.text}</p>
      <button type="button" onClick={() => go(-1)}>
        Previous
      </button>
      <button type="button" aria-pressed={isPaused} onClick={() => setPaused(!isPaused)}>
        Pause
      </button>
      <button type="button" onClick={() => go(1)}>
        Next
      </button>
    </section>
  );
}
