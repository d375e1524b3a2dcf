export function Today({ keeper }: { keeper: string }) {
  const hour = new Date().getHours();
  const day = new Date().toLocaleDateString('en', { weekday: 'long', timeZone: 'UTC' });
  return (
    <h2>
      {hour < 12 ? 'Good morning' : 'Good day'}, {keeper}: it is {day}
    </h2>
  );
}
