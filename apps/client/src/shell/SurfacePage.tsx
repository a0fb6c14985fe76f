import { SeenPart } from '../care/SeenPart';
import { useAppSelector } from '../state/store';
import { SurfaceScreen } from '../surfaces/SurfaceScreen';
import { useNow } from '../ui/useNow';
import { PrintsPart } from '../wear/PrintLines';

/** A surface's page with what the other areas know of it. */
export function SurfacePage() {
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  return (
    <SurfaceScreen
      parts={({ id }) => (
        <>
          <PrintsPart of={{ surfaceId: id }} mayDo={mayDo} />
          <SeenPart subject={{ surfaceId: id }} mayDo={mayDo} now={now} />
        </>
      )}
    />
  );
}
