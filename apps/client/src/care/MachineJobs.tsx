import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { Row } from '../ui/Row';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { useJobsQuery, useProceduresQuery } from './jobApi';
import { JobLine } from './JobLine';

const SHOWN = 4;

/** So many of the jobs that only this family knows, in the order in which work asks for them. */
const USUAL = 3;

interface Props {
  machineId: string;
  family: 'filament' | 'resin';
  mayDo: boolean;
  now: number;
}

/** Jobs of a machine, those under way first, those that are usual for its family, and the way to any other. */
export function MachineJobs({ machineId, family, mayDo, now }: Props) {
  const router = useRouter();
  const { data: jobs = [] } = useJobsQuery({ machineId, limit: 50 });
  const { data: procedures = [] } = useProceduresQuery(undefined, { skip: !mayDo });
  const usual = procedures.filter((known) => known.family === family).slice(0, USUAL);
  const printing = usePrinting();
  const open = jobs.filter(({ ended }) => ended === null).length;
  const sorted = [...jobs].sort((p, q) => Number(p.ended !== null) - Number(q.ended !== null));
  if (jobs.length === 0 && (!mayDo || printing)) return null;
  return (
    <Section title="JOBS" testID="machine-jobs" folded={open > 0 ? `${open} under way` : 'none under way'} open>
      {sorted.slice(0, SHOWN).map((job) => (
        <JobLine key={job.id} job={job} now={now} />
      ))}
      {(printing ? [] : usual).map(({ id, title, minutes }) => (
        <Row
          key={id}
          href={`/jobs/new?procedure=${id}&machine=${machineId}`}
          end={
            <Words size="small" tone="steel">
              {`${minutes} min`}
            </Words>
          }
          testID={`usual-${id}`}
        >
          <Words>{title}</Words>
        </Row>
      ))}
      {mayDo ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label={usual.length > 0 ? 'Another job' : 'Begin a job'}
            icon="list"
            onPress={() => router.push(`/jobs?machine=${machineId}`)}
            testID="begin-a-job"
          />
        </View>
      ) : null}
    </Section>
  );
}
