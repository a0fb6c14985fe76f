import type { ProcedureEntry } from '@even-bed/contract';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useAppSelector } from '../state/store';
import { Failed, Loading } from '../ui/Loading';
import { ActionButton } from '../ui/ActionButton';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useJobsQuery, useProceduresQuery } from './jobApi';
import { JobLine } from './JobLine';

/** Jobs under way, and those that can be begun. */
export function JobsScreen() {
  const now = useNow();
  const router = useRouter();
  const { machine: machineId } = useLocalSearchParams<{ machine?: string }>();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const [search, setSearch] = useState('');
  const { data: procedures, error, refetch } = useProceduresQuery();
  const { data: open = [] } = useJobsQuery({ open: true });
  const { data: machines = [] } = useMachinesQuery();
  const machine = machines.find(({ id }) => id === machineId);
  const failure = errorOf(error);
  const words = search.trim().toLowerCase();
  const fits = ({ family, title, about }: ProcedureEntry) =>
    (!machine || family === 'any' || family === machine.family) && `${title} ${about}`.toLowerCase().includes(words);
  return (
    <Page
      title={machine ? `A job on ${machine.name}` : 'Jobs'}
      crumbs={machine ? [{ label: machine.name, href: `/floor/${machine.id}` }] : [{ label: 'Bench', href: '/bench' }]}
      tools={
        isLead ? (
          <ActionButton
            label="The shop’s own"
            icon="edit"
            kind="quiet"
            onPress={() => router.push('/procedures')}
            testID="to-procedures"
          />
        ) : undefined
      }
      testID="jobs"
    >
      {open.length > 0 && !machine ? (
        <Section title="UNDER WAY" testID="jobs-open">
          {open.map((job) => (
            <JobLine key={job.id} job={job} now={now} />
          ))}
        </Section>
      ) : null}
      <View style={{ flexDirection: 'row', maxWidth: 520 }}>
        <SearchField label="Search jobs" value={search} onChange={setSearch} />
      </View>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!procedures && !failure ? <Loading what="the jobs" /> : null}
      <View>
        {(procedures ?? []).filter(fits).map(({ id, title, about, minutes, family, version }) => (
          <Row
            key={id}
            href={`/jobs/new?procedure=${id}${machineId ? `&machine=${machineId}` : ''}`}
            end={
              <Words size="small" tone="steel">
                {`${minutes} min`}
              </Words>
            }
            testID={`procedure-${version === 0 ? id : title}`}
          >
            <Words bold>{title}</Words>
            <Words size="small" tone="steel">
              {`${family === 'any' ? '' : `${family === 'resin' ? 'Resin' : 'Filament'}. `}${about}${version === 0 ? '' : ` The shop’s own, version ${version}.`}`}
            </Words>
          </Row>
        ))}
      </View>
    </Page>
  );
}
