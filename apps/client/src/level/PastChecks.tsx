import { lengthFigure } from '../ui/formatHeight';
import { shortDate } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useChecksQuery } from './levelApi';

const SHOWN = 6;

/** The last finished checks of a machine, for comparison. */
export function PastChecks({ machineId }: { machineId: string }) {
  const now = useNow();
  const { data = [] } = useChecksQuery({ machineId, state: 'ended', limit: SHOWN });
  const finished = data.filter(({ outcome }) => outcome === 'finished');
  if (finished.length === 0) return null;
  return (
    <Section title="BEFORE THIS" testID="past-checks">
      {finished.map(({ id, endedAt, before, after, aim }) => (
        <Row
          key={id}
          href={`/level/${id}`}
          lead={<Signal kind={after! <= aim ? 'ready' : 'due'} />}
          end={<Words figures>{`${lengthFigure(before!)} → ${lengthFigure(after!)}`}</Words>}
        >
          <Words size="small">{shortDate(endedAt!, now)}</Words>
        </Row>
      ))}
    </Section>
  );
}
