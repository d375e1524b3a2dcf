export function TaskList({ tasks }: { tasks: { id: string; title: string; done: boolean }[] }) {
  if (tasks.length === 0) return <p>Nothing needs doing</p>;
  return (
    <ul aria-label="Tasks">
      {tasks.map(({ id, title, done }) => (
        <li key={id}>
          <label>
            <input type="checkbox" defaultChecked={done} /> {title}
          </label>
        </li>
      ))}
    </ul>
  );
}
