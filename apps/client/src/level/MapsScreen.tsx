import type { MachineOverview } from '@even-bed/contract';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import type { BedContours, HeightPoint } from '@even-bed/core';
import { changeWords, partWords } from '@even-bed/words/shape';
import { useLocalSearchParams } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { crumbsOf } from '../fleet/machineState';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { BedPlan } from '../ui/BedPlan';
import { length, upperFirst, fineUnit } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Signal } from '../ui/Signal';
import { useIsWide } from '../ui/theme';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { planOf } from './planOf';
import { useShapeOptions, type ShapeSource } from './shapeSources';
import { WhoseShape } from './WhoseShape';

const work = (input: Parameters<ReturnType<typeof shaper>['maps']>[0]) => shaper().maps(input);

/** Two maps of one bed side by side, what changed between them, and whose shape it is: the bed's or the sheet's. */
export function MapsScreen() {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const { data: machine } = useKnownMachine(machineId);
  const now = useNow();
  const { options, ready } = useShapeOptions({ machineId, surfaceId: null }, now);
  const maps = options.filter(({ by }) => by === 'map');
  const [first, setFirst] = useState<string | null>(null);
  const [second, setSecond] = useState<string | null>(null);
  const after = maps.find(({ id }) => id === second) ?? maps[0] ?? null;
  const before = maps.find(({ id }) => id === first) ?? maps.find(({ id }) => id !== after?.id) ?? null;
  const wide = useIsWide();
  const crumbs = crumbsOf(machine);
  return (
    <Page title={machine ? `${machine.name}: its maps` : 'Maps'} crumbs={crumbs} testID="maps">
      {!machine || !ready ? (
        <Loading what="its maps" />
      ) : maps.length === 0 ? (
        <Words tone="steel" testID="no-maps">
          No map yet: a level check with a probe leaves one at each reading.
        </Words>
      ) : (
        <>
          {before && after ? (
            <>
              <View style={{ flexDirection: wide ? 'row' : 'column', gap: 12, maxWidth: 760 }}>
                <View style={{ flex: wide ? 1 : undefined }}>
                  <Pick
                    label="Before"
                    options={maps.map(({ id, label }) => ({ value: id, label }))}
                    value={before.id}
                    onChange={setFirst}
                    testID="map-before"
                  />
                </View>
                <View style={{ flex: wide ? 1 : undefined }}>
                  <Pick
                    label="After"
                    options={maps.map(({ id, label }) => ({ value: id, label }))}
                    value={after.id}
                    onChange={setSecond}
                    testID="map-after"
                  />
                </View>
              </View>
              <Compared
                key={`${before.id} ${after.id}`}
                machine={machine}
                before={before.source()}
                after={after.source()}
              >
                <WhoseShape machine={machine} />
              </Compared>
            </>
          ) : (
            <>
              <Words tone="steel">One map only: a second one can be compared with it.</Words>
              <WhoseShape machine={machine} />
            </>
          )}
        </>
      )}
    </Page>
  );
}

/** Two maps beside each other. @param children what stands below, once there is something above it */
function Compared({
  machine,
  before,
  after,
  children,
}: {
  machine: MachineOverview;
  before: ShapeSource;
  after: ShapeSource;
  children: ReactNode;
}) {
  const wide = useIsWide();
  const worked = useWorked(
    { before: before.points, after: after.points, ...(after.noise === null ? {} : { noise: after.noise }) },
    work,
  );
  if (worked.kind === 'failed')
    return (
      <>
        <Words tone="stop">{worked.message}</Words>
        {children}
      </>
    );
  if (worked.kind !== 'done') return <Loading what="what changed" />;
  const { change, difference, ...drawn } = worked.result;
  const aim = aimOf(machine);
  const plan = (title: string, contours: BedContours | null, points: readonly HeightPoint[], testID: string) => (
    <View style={{ flex: wide ? 1 : undefined, minWidth: 0, gap: 4 }}>
      <Words size="small" bold tone="steel">
        {title}
      </Words>
      <BedPlan
        plate={planOf(machine)}
        contours={contours}
        points={points}
        aim={aim}
        maxHeight={340}
        label={title}
        testID={testID}
      />
    </View>
  );
  return (
    <View style={{ gap: 12 }} testID="map-change">
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
        <Signal
          kind={
            change.verdict === 'same'
              ? 'ready'
              : change.verdict === 'untold' || change.verdict === 'apart'
                ? 'hold'
                : 'due'
          }
        />
        <View style={{ flex: 1 }}>
          <Words size="turn" bold live testID="change-words">
            {changeWords(change, currentManner())}
          </Words>
        </View>
      </View>
      {change.verdict === 'changed' && change.shape
        ? change.shape.parts.map((part, i) => (
            <Words key={i} size="small">
              {`· ${partWords(part, currentManner())}`}
            </Words>
          ))
        : null}
      <Words size="small" tone="steel">
        {`${change.points.length} places in common; by the mean ${length(Math.abs(change.lift), 3)} ${change.lift < 0 ? 'lower' : 'higher'}. ${upperFirst(fineUnit())}, tilt taken out.`}
      </Words>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: 16 }}>
        {plan(`BEFORE: ${before.label}`, drawn.before.contours, drawn.before.points, 'plan-before')}
        {plan(`AFTER: ${after.label}`, drawn.after.contours, drawn.after.points, 'plan-after')}
        {difference
          ? plan(
              'WHAT CHANGED',
              difference,
              change.points.map((point, i) => ({ ...point, z: change.shapeChange[i]! })),
              'plan-change',
            )
          : null}
      </View>
      {children}
    </View>
  );
}
