import { Redirect, useLocalSearchParams } from 'expo-router';
import { errorOf } from '../api/errorOf';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { useKnownTag } from './useKnown';

/** The address that stands in the code of a label: it leads on to the page of whoever has the tag. */
export function TagScreen() {
  const { tag } = useLocalSearchParams<{ tag: string }>();
  const { data, error, refetch } = useKnownTag(tag);
  const failure = errorOf(error);
  if (data) return <Redirect href={data.kind === 'surface' ? `/rack/${data.id}` : `/floor/${data.id}`} />;
  return (
    <Page title={tag} testID="tag" crumbs={[{ label: 'Rack', href: '/rack' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the page of this tag" />}
    </Page>
  );
}
