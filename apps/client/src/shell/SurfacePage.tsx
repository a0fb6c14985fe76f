import type { SurfaceGroup } from '@even-bed/core';
import { useLocalSearchParams } from 'expo-router';
import { useBookPagesInfiniteQuery } from '../book/bookApi';
import { useInspectionsQuery, usePhotosQuery } from '../care/careApi';
import { SeenPart } from '../care/SeenPart';
import { ShapeGlance } from '../level/ShapeGlance';
import { useShapesQuery } from '../level/shapeApi';
import { useAppSelector } from '../state/store';
import { SurfaceScreen } from '../surfaces/SurfaceScreen';
import { useNow } from '../ui/useNow';
import { usePrintsPagesInfiniteQuery } from '../wear/wearApi';
import { PrintsPart } from '../wear/PrintLines';

/** Surfaces that are stiff enough to have a shape of their own. */
const SHAPED: readonly SurfaceGroup[] = ['platform', 'glass', 'laminate', 'base'];

/** A surface's page with what the other areas know of it. */
export function SurfacePage() {
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const { surfaceId } = useLocalSearchParams<{ surfaceId: string }>();
  const rest = [
    useShapesQuery({ surfaceId }),
    usePrintsPagesInfiniteQuery({ surfaceId, limit: 20 }),
    useInspectionsQuery({ surfaceId, limit: 50 }),
    usePhotosQuery({ surfaceId, limit: 50 }),
    useBookPagesInfiniteQuery({ surfaceId }),
  ];
  return (
    <SurfaceScreen
      restComing={rest.some(({ isLoading }) => isLoading)}
      parts={({ id, kind: { group } }) => (
        <>
          {SHAPED.includes(group) ? (
            <ShapeGlance of={{ surfaceId: id }} kind={group === 'platform' ? 'platform' : 'surface'} now={now} />
          ) : null}
          <PrintsPart of={{ surfaceId: id }} />
          <SeenPart subject={{ surfaceId: id }} mayDo={mayDo} now={now} />
        </>
      )}
    />
  );
}
