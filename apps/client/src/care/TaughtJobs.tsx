import type { Taught } from '@even-bed/contract';
import { taughtJobWords } from '@even-bed/words/taught';
import { shortDate } from '../ui/formatTime';
import { currentManner } from '../ui/manner';
import { Row } from '../ui/Row';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';

/** Finished jobs on others, with what each taught. */
export function TaughtJobs({ jobs }: { jobs: Taught['jobs'] }) {
  const now = useNow();
  if (jobs.length === 0) return <Words tone="steel">None yet.</Words>;
  return jobs.map((job) => (
    <Row
      key={job.jobId}
      href={`/jobs/${job.jobId}`}
      end={
        <Words size="small" tone="steel">
          {shortDate(job.endedAt, now)}
        </Words>
      }
      testID={`taught-${job.procedureId}-${job.machineName}`}
    >
      <Words bold>{`${job.machineName}: ${job.title}`}</Words>
      {taughtJobWords(job, currentManner()).map((sentence) => (
        <Words key={sentence} size="small" tone="steel">
          {sentence}
        </Words>
      ))}
    </Row>
  ));
}
