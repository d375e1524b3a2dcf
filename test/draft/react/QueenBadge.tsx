interface QueenBadgeProps {
  colour: 'white' | 'yellow' | 'red';
  marked?: boolean;
}

export function QueenBadge({ colour, marked = false }: QueenBadgeProps) {
  return (
    <p role="status">
      {colour === 'white' ? 'A queen of this year' : `A queen marked ${colour}`}
      {marked && <strong>Marked by hand</strong>}
    </p>
  );
}
