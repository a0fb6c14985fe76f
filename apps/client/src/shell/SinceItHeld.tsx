import type { BookKind, Print } from '@even-bed/contract';
import { useMemo } from 'react';
import { useBookQuery } from '../book/bookApi';
import { Facts } from '../ui/Facts';
import { dayAndTime } from '../ui/formatTime';
import { Loading } from '../ui/Loading';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { usePrintsQuery } from '../wear/wearApi';

/** Lines that tell of prints themselves, not of what was done between them. */
const OF_PRINTS: readonly BookKind[] = ['print-logged', 'print-described', 'print-withdrawn', 'prints-added'];
const SHOWN = 20;

const lay = ({ surfaceTag, side }: Print) =>
  surfaceTag ? `${surfaceTag}${side ? `, side ${side}` : ''}` : 'not recorded';

/** A print that failed beside the last one on this machine that held: what was different, and what was done between. */
export function SinceItHeld({ print }: { print: Print }) {
  const { machineId, surfaceId, endedAt } = print;
  const held = usePrintsQuery({ machineId, held: true, to: endedAt - 1, limit: 1 });
  const before = held.data?.[0];
  const between = { from: before?.endedAt ?? 0, to: endedAt, limit: 60 };
  const ofMachine = useBookQuery({ ...between, machineId }, { skip: !before });
  const ofSurface = useBookQuery({ ...between, surfaceId }, { skip: !before || surfaceId === null });
  const lines = useMemo(() => {
    const all = [...(ofMachine.data ?? []), ...(ofSurface.data ?? [])].filter(({ kind }) => !OF_PRINTS.includes(kind));
    return [...new Map(all.map((line) => [line.id, line])).values()].sort((p, q) => q.at - p.at);
  }, [ofMachine.data, ofSurface.data]);
  if (held.isLoading || ofMachine.isLoading || ofSurface.isLoading) return <Loading what="what was different" />;
  if (!before)
    return (
      <Section title="CHANGES SINCE THE LAST GOOD PRINT" testID="since-held">
        <Words>No earlier print that held is recorded for this machine: there is nothing to compare with.</Words>
      </Section>
    );
  const pairs: [name: string, was: string, is: string][] = [
    ['Surface', lay(before), lay(print)],
    ['Material', before.material || 'not recorded', print.material || 'not recorded'],
  ];
  return (
    <Section title="CHANGES SINCE THE LAST GOOD PRINT" testID="since-held">
      <Words>{`The last print that held on this machine ended on ${dayAndTime(before.endedAt)}.`}</Words>
      <Facts
        rows={pairs.map(([name, was, is]) => [name, was === is ? `the same: ${is}` : `was ${was}, now ${is}`] as const)}
      />
      <Words bold>{lines.length === 0 ? 'Nothing was recorded between the two.' : 'Recorded between the two'}</Words>
      {lines.slice(0, SHOWN).map(({ id, at, text }) => (
        <Row key={id} href={`/book/${id}`}>
          <Words>{text}</Words>
          <Words size="small" tone="steel">
            {dayAndTime(at)}
          </Words>
        </Row>
      ))}
      {lines.length > SHOWN ? <Words tone="steel">{`and ${lines.length - SHOWN} more in the book`}</Words> : null}
    </Section>
  );
}
