import type { ProcedureEntry } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useProceduresQuery } from './jobApi';
import { keepReadIn } from './readIn';

/** The jobs as documents: those that ship, to copy; the shop's own, to change; and one to be read in. */
export function ProceduresScreen() {
  const router = useRouter();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const [search, setSearch] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const { data, error, refetch } = useProceduresQuery();
  const failure = errorOf(error);
  const words = search.trim().toLowerCase();
  const shown = (data ?? []).filter(({ title, about }) => `${title} ${about}`.toLowerCase().includes(words));
  const readIn = async () => {
    setFault(null);
    const file = await pickFile('application/json,.json');
    if (!file) return;
    const refused = await keepReadIn(await file.text());
    if (refused) setFault(refused);
    else router.push('/procedures/read-in');
  };
  const list = (entries: ProcedureEntry[]) =>
    entries.map(({ id, title, about, version }) => (
      <Row
        key={id}
        href={`/procedures/${id}`}
        end={
          <Words size="small" tone="steel">
            {version === 0 ? 'ships' : `version ${version}`}
          </Words>
        }
        testID={`procedure-${version === 0 ? id : title}`}
      >
        <Words bold>{title}</Words>
        <Words size="small" tone="steel">
          {about}
        </Words>
      </Row>
    ));
  return (
    <Page
      title="Jobs as the shop does them"
      crumbs={[{ label: 'Jobs', href: '/jobs' }]}
      tools={
        isLead ? (
          <ActionButton label="Read one in" icon="file" onPress={() => void readIn()} testID="read-in" />
        ) : undefined
      }
      testID="procedures"
    >
      <View style={{ flexDirection: 'row', maxWidth: 520 }}>
        <SearchField label="Search" value={search} onChange={setSearch} />
      </View>
      {fault ? (
        <Words tone="stop" live testID="read-in-fault">
          {fault}
        </Words>
      ) : null}
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the jobs" /> : null}
      {data ? (
        <>
          <Section title="THE SHOP’S OWN" testID="own-procedures">
            {shown.every(({ version }) => version === 0) ? (
              <Words tone="steel">None yet. Open one that ships, copy it, and change the copy.</Words>
            ) : null}
            {list(shown.filter(({ version }) => version > 0))}
          </Section>
          <Section title="THOSE THAT SHIP">{list(shown.filter(({ version }) => version === 0))}</Section>
        </>
      ) : null}
    </Page>
  );
}
