import { View } from 'react-native';
import { length } from '../ui/formatHeight';
import { clockTime } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import type { CheckDraft, DraftRound } from './levelSlice';

/** The readings of a check so far: range after range, with the turns between them. */
export function RoundList({ draft }: { draft: CheckDraft }) {
  return (
    <Section title="THIS CHECK" testID="round-list">
      <View>
        {draft.rounds.map((round) => (
          <Row
            key={round.id}
            end={
              <Words bold figures>
                {`${length(round.range)}`}
              </Words>
            }
          >
            <Words>{`Reading ${round.seq}, ${clockTime(round.takenAt)}`}</Words>
            <Words size="small" tone="steel">
              {turnedWords(round)}
            </Words>
          </Row>
        ))}
      </View>
    </Section>
  );
}

function turnedWords({ made }: DraftRound): string {
  if (made === null) return 'turns still to make';
  const turned = made.filter(({ turns }) => turns !== 0).length;
  if (turned === 0) return 'nothing turned after it';
  return `${turned} ${turned === 1 ? 'adjuster' : 'adjusters'} turned after it`;
}
