import { noteOperations } from '@even-bed/contract/level/noteOperations';
import type { MachineOverview } from '@even-bed/contract';
import type { MeasuredLevel } from '@even-bed/core';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { levelRangeWords, levelWayMark, levelWayWords } from '@even-bed/words/levels';
import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { crumbsOf } from '../fleet/machineState';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { length } from '../ui/formatHeight';
import { shortDate } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { SpanTrend } from '../ui/SpanTrend';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { LookAgainPart } from './LookAgainPart';
import { useLevelsQuery } from './noteApi';

const SIGNALS: Record<MeasuredLevel['verdict'], SignalKind> = { even: 'ready', uneven: 'due', unproven: 'hold' };

/** A machine's level over time, whatever the way it was found, each with how well it is known. */
export function LevelsScreen() {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const { data: machine } = useKnownMachine(machineId);
  const { data, error, refetch } = useLevelsQuery({ id: machineId });
  const failure = errorOf(error);
  const crumbs = crumbsOf(machine);
  if (!machine || !data)
    return (
      <Page title="Its level over time" crumbs={crumbs}>
        {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="its levels" />}
      </Page>
    );
  return (
    <Page title={`${machine.name}: its level over time`} crumbs={crumbs} testID="levels">
      <Columns
        left={<Drawn machine={machine} items={data.items} />}
        right={
          <>
            <LookAgainPart again={data.again} drifts={machine.family === 'filament'} />
            <Listed machine={machine} items={data.items} />
          </>
        }
      />
    </Page>
  );
}

function Drawn({ machine, items }: { machine: MachineOverview; items: readonly MeasuredLevel[] }) {
  // An aim is for what a probe or paper measures: tugs know no hundredths.
  const aim = machine.family === 'resin' ? null : aimOf(machine);
  const measured = [...items].reverse().filter(({ least }) => least !== null);
  if (measured.length === 0)
    return (
      <Words tone="steel" testID="no-levels">
        Nothing was measured yet. A check, paper and feel, quarter sheets or a skirt each leave a line here.
      </Words>
    );
  const ways = [...new Set(measured.map(({ way }) => way))];
  return (
    <View style={{ gap: 10 }}>
      <SpanTrend
        aim={aim}
        label={`Highest less lowest over the last ${measured.length} levels, each from the least to the most it can be`}
        spans={measured.map(({ id, at, least, most, way, verdict }) => ({
          id,
          at,
          least: least!,
          most,
          mark: levelWayMark(way),
          good: verdict === 'even',
        }))}
      />
      <Words size="small" tone="steel">
        {`Highest less lowest, ${currentManner().units}: each bar from the least to the most it can be; pale and open above where it isn’t known. ${aim === null ? '' : `Dashed: the aim, ${length(aim)}. `}${ways.map((way) => `${levelWayMark(way)} ${levelWayWords(way)}`).join(', ')}.`}
      </Words>
    </View>
  );
}

function Listed({ machine, items }: { machine: MachineOverview; items: readonly MeasuredLevel[] }) {
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const takeBack = (id: string) =>
    later(noteOperations.withdrawLevelNote, {
      params: { id },
      body: { at: rightNow() },
      key: uuid(),
      what: `${machine.name}: a level taken back`,
      at: `/floor/${machine.id}/level`,
    });
  return (
    <Section title="EVERY ONE OF THEM" testID="level-list">
      {items.length === 0 ? <Words tone="steel">None yet.</Words> : null}
      {items.map((item) => (
        <View key={item.id} testID={`level-${item.way}`}>
          <Row
            {...(item.kind === 'check' ? { href: `/level/${item.id}` as const } : {})}
            lead={<Signal kind={SIGNALS[item.verdict]} />}
            end={
              item.kind === 'note' && mayDo ? (
                <ActionButton
                  label="Take back"
                  kind="quiet"
                  onPress={() => takeBack(item.id)}
                  testID={`back-${item.id}`}
                />
              ) : undefined
            }
          >
            <Words>{`${shortDate(item.at, now)}, ${levelWayWords(item.way)}`}</Words>
            <Words size="small" tone="steel">
              {levelRangeWords(item, currentManner())}
            </Words>
          </Row>
        </View>
      ))}
    </Section>
  );
}
