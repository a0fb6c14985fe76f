import { useMachinesQuery } from '../fleet/fleetApi';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Words } from '../ui/Words';
import { BedPick } from './BedPick';
import { benchBed, PLAIN_BED, type BedAsk } from './benchBeds';
import { FeelHeights, NOT_FELT } from './FeelHeights';
import type { FeltEntry } from './levelSlice';
import { useLearnedQuery } from './levelApi';
import { useBench } from './useBench';

interface Bench {
  bed: BedAsk;
  felt: FeltEntry;
}

/** Paper and feel without a record: any bed, nothing written down. */
export function FeelScreen() {
  const { data: machines, isLoading } = useMachinesQuery();
  const [bench, change, ready] = useBench<Bench>('feel', { bed: PLAIN_BED, felt: NOT_FELT });
  const { data: learned } = useLearnedQuery({ id: bench.bed.machineId ?? '' }, { skip: bench.bed.machineId === null });
  const bed = benchBed(bench.bed, machines ?? [], learned?.adjusters);
  return (
    <Page
      title="Paper and feel"
      crumbs={[{ label: 'Tools', href: '/tools' }]}
      state={
        <Words size="small" tone="steel">
          not recorded
        </Words>
      }
      testID="feel-tool"
    >
      {!ready || isLoading ? (
        <Loading what="the tool" />
      ) : (
        <>
          {bench.felt.begun ? null : <BedPick ask={bench.bed} onChange={(next) => change({ ...bench, bed: next })} />}
          {bed.adjusters.length < 3 ? (
            <Words tone="stop">This machine has fewer than three adjusters: none to feel for.</Words>
          ) : (
            <FeelHeights bed={bed} felt={bench.felt} onChange={(felt) => change({ ...bench, felt })} />
          )}
        </>
      )}
    </Page>
  );
}
