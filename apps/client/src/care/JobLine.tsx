import type { JobEntry } from '@even-bed/contract';
import { dayAndTime, shortDate } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { jobSignal, jobStands } from './jobWords';

/** One job in a list: where it stands, and until when it waits. */
export function JobLine({ job, now }: { job: JobEntry; now: number }) {
  const { kind, waits } = jobSignal(job, now);
  return (
    <Row
      href={`/jobs/${job.id}`}
      lead={<Signal kind={kind} />}
      end={
        <Words size="small" bold={waits}>
          {job.ended
            ? shortDate(job.endedAt ?? job.startedAt, now)
            : waits
              ? dayAndTime(job.waitUntil!)
              : `${job.step}/${job.steps}`}
        </Words>
      }
      testID={`job-${job.machineName}-${job.title}`}
    >
      <Words bold>{`${job.machineName} · ${job.title.toLowerCase()}`}</Words>
      <Words size="small" tone="steel">
        {job.ended
          ? job.ended === 'done'
            ? 'Done'
            : 'Stopped'
          : `${jobStands(job, waits)}${job.holderName ? ` · ${job.holderName}` : ''}`}
      </Words>
    </Row>
  );
}
