import type { SurfaceKind } from '@even-bed/contract';
import { groupFacts } from '@even-bed/core/surfaces/groups';
import { Suspense, useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { size, temperature } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Words } from '../ui/Words';
import KindForm from './KindForm';
import { useKindsQuery } from './surfacesApi';

/** What the shop knows of each kind of surface; a lead adds and changes. */
export function KindsScreen() {
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { data, error, refetch } = useKindsQuery();
  const [search, setSearch] = useState('');
  const [edited, setEdited] = useState<SurfaceKind | 'new' | null>(null);
  const failure = errorOf(error);
  if (edited)
    return (
      <Suspense fallback={<Loading what="the form" />}>
        <KindForm kind={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />
      </Suspense>
    );
  const shown = (data ?? []).filter(({ name }) => name.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <Page
      title="Kinds of surfaces"
      testID="kinds"
      crumbs={[{ label: 'Rack', href: '/rack' }]}
      tools={
        isLead ? (
          <ActionButton label="Add a kind" icon="add" onPress={() => setEdited('new')} testID="add-kind" />
        ) : undefined
      }
    >
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the kinds" /> : null}
      <View style={{ flexDirection: 'row', maxWidth: 520 }}>
        <SearchField label="Search kinds" value={search} onChange={setSearch} />
      </View>
      <View>
        {shown.map((kind) => (
          <Row
            key={kind.id}
            testID={`kind-${kind.name}`}
            end={
              isLead ? (
                <ActionButton
                  label="Change"
                  kind="quiet"
                  onPress={() => setEdited(kind)}
                  testID={`change-${kind.name}`}
                />
              ) : undefined
            }
          >
            <Words bold>{kind.name}</Words>
            <Words size="small" tone="steel">
              {[
                groupFacts(kind.group).many,
                size(kind.thickness),
                kind.limit === null ? null : `up to ${temperature(kind.limit)}`,
                kind.sides.join(' / '),
                kind.life ? `${kind.life.expected} ± ${kind.life.spread} ${kind.life.unit}` : null,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Words>
          </Row>
        ))}
      </View>
    </Page>
  );
}
