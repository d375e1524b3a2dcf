import { useQuery } from '@tanstack/react-query';
import { getJson } from './hives';

interface Plant {
  name: string;
  metres: number;
}

export function ForageTable() {
  const { data, error, isPending } = useQuery({
    queryKey: ['plants'],
    queryFn: () => getJson<Plant[]>('/api/plants'),
  });
  if (isPending) return <p role="status">Looking around</p>;
  if (error) return <p role="alert">Nobody knows what is in flower</p>;
  return (
    <table aria-label="In flower">
      <tbody>
        {data.map(({ name, metres }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{metres} m</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
