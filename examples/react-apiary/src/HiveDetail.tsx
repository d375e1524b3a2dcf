import { Link, useParams } from 'react-router';
import { InspectionForm } from './InspectionForm';
import { PhotoDrop } from './PhotoDrop';
import { ScaleFeed } from './ScaleFeed';
import { useHive } from './useHive';

/** The hive the address names. */
export function HiveDetail() {
  const { hiveId = '' } = useParams();
  const found = useHive(hiveId);
  return (
    <section className="detail" aria-label="Hive">
      <Link to="/">Back to the board</Link>
      {found.state === 'loading' && <p role="status">Looking for the hive</p>}
      {found.state === 'failed' && <p role="alert">There is no such hive</p>}
      {found.state === 'loaded' && (
        <>
          <h2>{found.hive.name}</h2>
          <ScaleFeed hiveId={hiveId} />
          <InspectionForm hiveId={hiveId} />
          <PhotoDrop hiveId={hiveId} />
        </>
      )}
    </section>
  );
}
