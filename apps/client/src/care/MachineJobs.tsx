import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { useJobsQuery } from './jobApi';
import { JobLine } from './JobLine';

const SHOWN = 4;

/** Jobs of a machine, those under way first, and the way to begin one. */
export function MachineJobs({ machineId, mayDo, now }: { machineId: string; mayDo: boolean; now: number }) {
  const router = useRouter();
  const { data: jobs = [] } = useJobsQuery({ open: false, machineId });
  const sorted = [...jobs].sort((p, q) => Number(p.ended !== null) - Number(q.ended !== null));
  if (jobs.length === 0 && !mayDo) return null;
  return (
    <Section title="JOBS" testID="machine-jobs">
      {sorted.slice(0, SHOWN).map((job) => (
        <JobLine key={job.id} job={job} now={now} />
      ))}
      {mayDo ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Begin a job"
            icon="list"
            onPress={() => router.push(`/jobs?machine=${machineId}`)}
            testID="begin-a-job"
          />
        </View>
      ) : null}
    </Section>
  );
}
