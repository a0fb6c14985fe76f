import { useLocalSearchParams } from 'expo-router';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { CheckRecord } from './CheckRecord';
import { CheckSending } from './CheckSending';
import { GetHeights } from './GetHeights';
import { useCheckQuery } from './levelApi';
import { PlanTurns } from './PlanTurns';

const CRUMBS = [{ label: 'Floor', href: '/floor' as const }];

/** A level check by its address: under way on this device, or as the server keeps it. */
export function LevelCheckScreen() {
  const { checkId } = useLocalSearchParams<{ checkId: string }>();
  const draft = useAppSelector((state) => state.level.drafts[checkId]);
  const { data, error, refetch } = useCheckQuery(
    { id: checkId },
    {
      skip: draft !== undefined,
      refetchOnMountOrArgChange: true,
    },
  );
  if (draft?.end) return <CheckSending draft={draft} />;
  if (draft) {
    return draft.stage === 'turning' ? (
      <PlanTurns key={draft.rounds.length} draft={draft} />
    ) : (
      <GetHeights draft={draft} />
    );
  }
  if (data) return <CheckRecord check={data} />;
  const failure = errorOf(error);
  return (
    <Page title="Level check" crumbs={CRUMBS}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the check" />}
    </Page>
  );
}
