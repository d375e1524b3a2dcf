export const WeightRow = ({ name, kilograms }: { name: string; kilograms: number }) => (
  <tr>
    <th scope="row">{name}</th>
    <td>{kilograms} kg</td>
  </tr>
);
