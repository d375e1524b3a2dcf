import { useEffect, useState } from 'react';

export function SmokeClock({ minutes = 3 }: { minutes?: number }) {
  const [left, setLeft] = useState(minutes);
  useEffect(() => {
    const timer = setInterval(() => setLeft((now) => Math.max(0, now - 1)), 60_000);
    return () => clearInterval(timer);
  }, []);
  return <p role="timer">{left === 0 ? 'The smoker is out' : `${left} minutes of smoke left`}</p>;
}
