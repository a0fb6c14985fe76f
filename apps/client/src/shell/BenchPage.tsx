import { lazy, Suspense } from 'react';
import { useMachinesQuery } from '../fleet/fleetApi';
import { BenchScreen } from '../bench/BenchScreen';
import { Loading } from '../ui/Loading';
import { useIsWide } from '../ui/theme';

// Only wide screens show the floor beside the bench: a phone doesn't load its plates for the first view.
const FloorPlates = lazy(() => import('../floor/FloorPlates').then(({ FloorPlates: plates }) => ({ default: plates })));

/** The bench; on a wide screen with the floor beside it. */
export function BenchPage() {
  const wide = useIsWide();
  const { data: machines = [] } = useMachinesQuery();
  return (
    <BenchScreen
      floor={
        wide && machines.length > 0 ? (
          <Suspense fallback={<Loading what="the floor" />}>
            <FloorPlates machines={machines} />
          </Suspense>
        ) : null
      }
    />
  );
}
