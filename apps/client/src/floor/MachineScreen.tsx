import type { MachineOverview } from '@even-bed/contract';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { againstSentence } from '@even-bed/words/readiness';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { lazy, Suspense, type ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useChecksQuery } from '../level/levelApi';
import { useLastHeights } from './useLastHeights';
import { useBeginCheck } from '../level/useBeginCheck';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { BedPlan } from '../ui/BedPlan';
import { length, lengthFigure, lengthUnit, size, upperFirst, fineUnit } from '../ui/formatHeight';
import { shortDate } from '../ui/formatTime';
import { currentManner } from '../ui/manner';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { SPACE, useHasTwoColumns, useIsWide, usePalette } from '../ui/theme';
import { usePrinting } from '../ui/usePrinting';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useMachinesQuery } from '../fleet/fleetApi';
import { FloorList } from './FloorList';
import { MachineFactList } from '../fleet/MachineFactList';
import { canBeLevelled, machineState, plateOf, type MachineState } from '../fleet/machineState';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { HISTORY } from './history';
import { RuleEditor } from './RuleEditor';

const RangeTrend = lazy(() => import('../ui/charts').then(({ RangeTrend: chart }) => ({ default: chart })));

interface Props {
  mayDo: boolean;
  isLead: boolean;
  /** What other areas show first is still on its way: the page comes when its upper part can come whole. */
  coming?: boolean;
  /** So is what stands in the second column of a wide screen. */
  restComing?: boolean;
  /** Parts of other areas: above the level's, and below it. */
  first?: (machine: MachineOverview) => ReactNode;
  last?: (machine: MachineOverview) => ReactNode;
}

/** A machine's page; on a wide screen the floor stays at its left. */
export function MachineScreen({ coming = false, ...parts }: Props) {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const wide = useIsWide();
  const palette = usePalette();
  const { data: machines = [] } = useMachinesQuery(undefined, { skip: !wide });
  const { data: machine, error, refetch } = useKnownMachine(machineId);
  const failure = errorOf(error);
  const page =
    machine && !coming ? (
      <MachinePage key={machine.id} machine={machine} {...parts} />
    ) : (
      <Page title="Machine" crumbs={[{ label: 'Floor', href: '/floor' }]}>
        {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the machine" />}
      </Page>
    );
  if (!wide) return page;
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      <ScrollView
        style={{ width: 340, flexGrow: 0, borderRightWidth: 1, borderRightColor: palette.hairline }}
        contentContainerStyle={{ padding: 16, gap: SPACE.m }}
        tabIndex={0}
        role="complementary"
        aria-label="All machines"
      >
        <FloorList machines={machines} selectedId={machineId} />
      </ScrollView>
      <View style={{ flex: 1 }}>{page}</View>
    </View>
  );
}

function MachinePage({
  machine,
  mayDo,
  isLead,
  restComing,
  first,
  last: lastParts,
}: Props & { machine: MachineOverview }) {
  const router = useRouter();
  const now = useNow();
  const wide = useIsWide();
  const two = useHasTwoColumns();
  const { begin, draftId } = useBeginCheck(machine);
  const { points, contours } = useLastHeights(machine);
  const state = machineState(machine, now, draftId !== null);
  const levellable = canBeLevelled(machine);
  const last = machine.lastCheck;
  return (
    <Page
      title={machine.name}
      testID="machine"
      crumbs={[{ label: `Floor · ${machine.areaName}`, href: '/floor' }]}
      state={<Signal kind={state.signal} word={state.words} />}
      actions={
        mayDo ? (
          <>
            <ActionButton
              label="Inspect"
              icon="look"
              onPress={() => router.push(`/inspect?machine=${machine.id}`)}
              testID="inspect-machine"
            />
            {levellable ? (
              <ActionButton
                label={draftId || machine.openCheckId ? 'Go on with the check' : 'Check the level'}
                kind="main"
                grow
                onPress={() => begin()}
                testID="check-level"
              />
            ) : (
              <ActionButton
                label="Begin a job"
                kind="main"
                grow
                onPress={() => router.push(`/jobs?machine=${machine.id}`)}
                testID="job-here"
              />
            )}
          </>
        ) : undefined
      }
    >
      <Columns
        left={
          <>
            <AgainstPrinting against={state.readiness.against} now={now} />
            <BedPlan
              plate={plateOf(machine)}
              adjusters={machine.adjusters}
              points={points}
              contours={contours}
              {...(last ? { aim: last.aim } : {})}
              maxHeight={wide ? 330 : levellable ? 240 : 150}
              label={`Plate of ${machine.name}, ${size(machine.plateWidth)} by ${size(machine.plateDepth)}, ${machine.adjusters.length} adjusters`}
            />
            <Words size="small" tone="steel" align="center">
              {last && contours
                ? `Last reading, ${shortDate(last.endedAt, now)}. ${upperFirst(fineUnit())}, + higher, nearer the nozzle; 0 is the mean.`
                : 'The plate from above. Dashed: the print area.'}
            </Words>
            {levellable || machine.family === 'resin' ? null : (
              <Words tone="steel">
                {machine.adjusters.length === 0
                  ? 'This machine has no adjusters written down. With three or more of them its turns can be worked out here.'
                  : 'At least three adjusters are needed to work out turns.'}
              </Words>
            )}
            {levellable ? <RuleEditor machine={machine} now={now} mayChange={isLead} /> : null}
            {first?.(machine)}
          </>
        }
        right={
          restComing && two ? (
            <Loading what="the rest" />
          ) : (
            <>
              <History machine={machine} now={now} />
              {lastParts?.(machine)}
              <MachineFactList machine={machine} />
              {mayDo ? (
                <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap' }}>
                  <ActionButton
                    label="Edit facts"
                    icon="edit"
                    onPress={() => router.push(`/floor/${machine.id}/edit`)}
                    testID="edit-machine"
                  />
                  <ActionButton
                    label="Label"
                    icon="label"
                    onPress={() => router.push(`/labels?tags=${machine.tag}`)}
                    testID="machine-label"
                  />
                </View>
              ) : null}
            </>
          )
        }
      />
    </Page>
  );
}

/** All that stands against printing on it, the weightiest first. */
function AgainstPrinting({ against, now }: { against: MachineState['readiness']['against']; now: number }) {
  if (against.length === 0) return null;
  return (
    <Section title="BEFORE IT PRINTS" testID="against">
      {against.map((one) => (
        <Words key={one.code} testID={`against-${one.code}`}>
          {againstSentence(one, currentManner(), now)}
        </Words>
      ))}
    </Section>
  );
}

function History({ machine, now }: { machine: MachineOverview; now: number }) {
  const printing = usePrinting();
  const { data = [] } = useChecksQuery({ machineId: machine.id, state: 'ended', limit: HISTORY });
  const finished = data.filter(({ outcome }) => outcome === 'finished');
  if (finished.length === 0) return null;
  const aim = aimOf(machine);
  return (
    <Section
      title={`LEVEL HISTORY, RANGE IN ${lengthUnit().toUpperCase()}`}
      testID="level-history"
      folded={`${length(finished[0]!.after!)}, ${shortDate(finished[0]!.endedAt!, now)}`}
    >
      {finished.length > 2 ? (
        <Suspense fallback={printing ? null : <View style={{ height: 172 }} />}>
          <RangeTrend
            aim={aim}
            label={`Range at the end of the last ${finished.length} checks, aim ${length(aim)}`}
            points={[...finished].reverse().map(({ endedAt, after }) => ({ at: endedAt!, value: after! }))}
          />
        </Suspense>
      ) : null}
      {finished.slice(0, 5).map((check) => (
        <Row
          key={check.id}
          href={`/level/${check.id}`}
          lead={<Signal kind={check.after! <= check.aim ? 'ready' : 'due'} />}
          end={<Words figures bold>{`${lengthFigure(check.before!)} → ${lengthFigure(check.after!)}`}</Words>}
        >
          <Words>{shortDate(check.endedAt!, now)}</Words>
          <Words size="small" tone="steel">
            {check.after! <= check.aim ? 'within the aim' : `over the aim of ${lengthFigure(check.aim)}`}
          </Words>
        </Row>
      ))}
    </Section>
  );
}
