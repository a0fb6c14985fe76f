import { timeTaken } from '@even-bed/words/span';
import type { Print } from '@even-bed/contract';
import { placesInWords } from '@even-bed/core/wear/platePlaces';
import { FAILURE_WORDS } from '@even-bed/core/wear/printWords';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { dayAndTime } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { usePrintsPagesInfiniteQuery } from './wearApi';

/** The prints of a machine or on a surface, the latest first. */
export function PrintsPart({ of }: { of: { machineId: string } | { surfaceId: string } }) {
  const { data, hasNextPage, fetchNextPage, isFetching } = usePrintsPagesInfiniteQuery({ ...of, limit: 20 });
  const prints = data?.pages.flatMap(({ items }) => items) ?? [];
  const failed = prints.filter(({ held }) => !held).length;
  if (prints.length === 0) return null;
  return (
    <Section
      title={`PRINTS${failed > 0 ? `: ${failed} OF THE LAST ${prints.length} FAILED` : ''}`}
      testID="prints"
      folded={failed > 0 ? '' : `the last ${prints.length} held`}
    >
      {prints.slice(0, data && data.pages.length > 1 ? undefined : 6).map((print) => (
        <PrintLine key={print.id} print={print} of={of} />
      ))}
      {hasNextPage || prints.length > 6 ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Older prints"
            kind="quiet"
            busy={isFetching}
            onPress={() => void fetchNextPage()}
            testID="older-prints"
          />
        </View>
      ) : null}
    </Section>
  );
}

interface LineProps {
  print: Print;
  /** Whose page it stands on: that much goes unsaid. */
  of: { machineId?: string; surfaceId?: string };
}

/** One print as a line. */
export function PrintLine({ print, of }: LineProps) {
  const { held, failure, places, material, grams, duration, side, surfaceTag, machineName, note } = print;
  const facts = [
    of.machineId === undefined ? machineName : null,
    of.surfaceId === undefined ? surfaceTag : null,
    side ? `side ${side}` : null,
    material || null,
    grams === null ? null : `${Math.round(grams)} g`,
    duration === null ? null : timeTaken(Math.round(duration / 60) * 60),
    placesInWords(places) || null,
    note || null,
  ];
  return (
    <Row lead={<Signal kind={held ? 'ready' : 'due'} />} testID={`print-${print.id}`} href={`/prints/${print.id}`}>
      <Words>{`${held ? 'Held' : `Failed${failure ? `: ${FAILURE_WORDS[failure]}` : ''}`} · ${dayAndTime(print.endedAt)}`}</Words>
      <Words size="small" tone="steel">
        {facts.filter(Boolean).join(' · ')}
      </Words>
    </Row>
  );
}
