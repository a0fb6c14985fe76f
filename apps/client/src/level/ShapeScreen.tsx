import type { ParseOptions } from '@even-bed/core';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { extentOf } from '@even-bed/core/level/HeightPoint';
import { partWords, shapeWords } from '@even-bed/words/shape';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { BedPlan } from '../ui/BedPlan';
import { Columns } from '../ui/Columns';
import { Facts } from '../ui/Facts';
import { length, upperFirst, fineUnit } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import type { ShapeLook } from '../workers/shapes.worker';
import { isSaid, PastedHeights } from './PastedHeights';
import { ShapeCures } from './ShapeCures';
import { planOf, touchesOf } from './planOf';
import { useChosen, useShapeOptions, type ShapeSource } from './shapeSources';
import { useNamedSubject, useShapeSubject, type ShapeSubject } from './shapeSubject';
import { useBench } from './useBench';
import { WaysToHeights } from './WaysToHeights';

interface Bench {
  machineId: string | null;
  source: string | null;
  pasted: string;
  /** How what was pasted is to be read, as far as somebody has said. */
  reading: ParseOptions;
}
const look = (input: Parameters<ReturnType<typeof shaper>['look']>[0]) => shaper().look(input);
const read = (input: Parameters<ReturnType<typeof shaper>['read']>[0]) => shaper().read(input);

/** Flat or not, and of what shape: from a map, a survey by light, or heights pasted in. */
export function ShapeScreen() {
  const named = useNamedSubject();
  const now = useNow();
  const [bench, change, ready] = useBench<Bench>(`shape ${named.key}`, {
    machineId: named.machineId,
    source: null,
    pasted: '',
    reading: {},
  });
  const subject = useShapeSubject({ machineId: bench.machineId, surfaceId: named.surfaceId });
  const { machines } = subject;
  const { options, ready: known } = useShapeOptions(subject, now);
  const pasted = useWorked(bench.pasted.trim() === '' ? null : { text: bench.pasted, reading: bench.reading }, read);
  const heights =
    pasted.kind === 'done' && !pasted.stale && isSaid(pasted.result, bench.reading) ? pasted.result : null;
  const typed: ShapeSource | null = heights && {
    id: 'pasted',
    label: 'Pasted in',
    by: 'pasted',
    points: heights.points,
    noise: null,
  };
  const chosen = useChosen(options, bench.source);
  const source = bench.source === null ? (typed ?? chosen) : chosen;
  const choices = [...(typed ? [typed] : []), ...options];
  return (
    <Page title="Flat or not" crumbs={subject.crumbs} testID="shape">
      {!ready || !known ? (
        <Loading what="what is known" />
      ) : (
        <>
          <View style={{ gap: 12, maxWidth: 520 }}>
            {named.surfaceId === null ? (
              <Pick
                label="Machine"
                options={[
                  { value: '', label: 'None: pasted heights' },
                  ...machines.map(({ id, name }) => ({ value: id, label: name })),
                ]}
                value={bench.machineId ?? ''}
                onChange={(id) => change({ ...bench, machineId: id === '' ? null : id, source: null })}
                testID="shape-machine"
              />
            ) : null}
            {choices.length > 0 ? (
              <Pick
                label="By which heights"
                options={choices.map(({ id, label }) => ({ value: id, label }))}
                value={source?.id ?? null}
                onChange={(id) => change({ ...bench, source: id === 'pasted' ? null : id })}
                testID="shape-source"
              />
            ) : (
              <WaysToHeights
                subject={subject}
                gives="Finds the shape of a plate, how far it is from flat, and what each cure would leave."
                pasteHere={bench.machineId === null}
              />
            )}
            {bench.machineId === null ? (
              <PastedHeights
                text={bench.pasted}
                reading={bench.reading}
                worked={pasted}
                onText={(text) => {
                  // Other text asks its own questions.
                  const { answers: _, ...reading } = bench.reading;
                  change({ ...bench, pasted: text, reading, source: null });
                }}
                onReading={(reading) => change({ ...bench, reading })}
              />
            ) : null}
          </View>
          {source && source.points.length > 0 ? <Looked key={source.id} source={source} subject={subject} /> : null}
        </>
      )}
    </Page>
  );
}

function Looked({ source, subject }: { source: ShapeSource; subject: ShapeSubject }) {
  const { machine } = subject;
  const worked = useWorked({ map: source.points, ...(source.noise === null ? {} : { noise: source.noise }) }, look);
  if (worked.kind === 'failed') return <Words tone="stop">{worked.message}</Words>;
  if (worked.kind !== 'done') return <Loading what="the shape" />;
  const plate = machine ? planOf(machine) : plainPlate(source);
  return (
    <Columns
      left={<Drawing found={worked.result} source={source} plate={plate} aim={machine ? aimOf(machine) : 0.1} />}
      right={
        <>
          <Figures found={worked.result} source={source} />
          <ShapeCures
            map={source.points}
            noise={source.noise}
            machineId={subject.machineId}
            surfaceId={subject.surfaceId}
            from={source.by === 'light' ? 'light' : 'map'}
          />
        </>
      }
    />
  );
}

/** A plate of which only its readings are known. */
const plainPlate = ({ points }: ShapeSource) => {
  const { x1, y1 } = extentOf(points);
  const [width, depth] = [Math.max(50, x1), Math.max(50, y1)];
  return { width: width + 10, depth: depth + 10, originX: 0, originY: 0, printWidth: width, printDepth: depth };
};

function Drawing({
  found,
  source,
  plate,
  aim,
}: {
  found: ShapeLook;
  source: ShapeSource;
  plate: ReturnType<typeof plainPlate>;
  aim: number;
}) {
  const { flatness, drawn } = found;
  return (
    <View style={{ gap: 8 }}>
      <BedPlan
        plate={plate}
        points={source.by === 'light' ? [] : drawn.points}
        contours={drawn.contours}
        touches={touchesOf(flatness, source.points)}
        aim={aim}
        label="The bed from above, its tilt taken out, with the places that two planes touch"
        testID="shape-plan"
      />
      <Words size="small" tone="steel">
        {`${upperFirst(fineUnit())}, tilt taken out. Full wedge: the upper plane touches here; hollow: the lower one. Between the two lies everything.`}
      </Words>
    </View>
  );
}

function Figures({ found, source }: { found: ShapeLook; source: ShapeSource }) {
  const { flatness, lone, shape } = found;
  const manner = currentManner();
  const more = flatness.leastSquares - flatness.value;
  const where = lone ? source.points[lone.at]! : null;
  return (
    <Section title="HOW FLAT" testID="flatness">
      <Words size="turn" bold testID="flatness-value">
        {`${length(flatness.value)} between two planes`}
      </Words>
      <Words size="lead" bold testID="shape-words">
        {shapeWords(shape, manner)}
      </Words>
      {shape.parts.map((part, i) => (
        <Words key={i} size="small">
          {`· ${partWords(part, manner)}`}
        </Words>
      ))}
      <Facts
        rows={[
          ['Least that any tilt leaves', length(flatness.value, 3)],
          ['About the plane of least squares', length(flatness.leastSquares, 3)],
          ...(shape.noise
            ? ([
                [
                  'One reading scatters by',
                  `${length(shape.noise.sd, 3)}${shape.noise.by === 'map' ? ', from this map' : ''}`,
                ],
              ] as [string, string][])
            : []),
        ]}
      />
      <Words size="small" tone="steel">
        {more > 0.1 * flatness.value
          ? 'Least squares says more: the shape lies to one side, and screws set by the two planes gain that.'
          : 'Both say the same: the shape lies evenly about its plane.'}
      </Words>
      {lone && where ? (
        <Words tone="steel" testID="lone-reading">
          {`It hangs on one reading, ${length(where.x, 0)} from the left and ${length(where.y, 0)} from the front: without it ${length(lone.without)}. Read that place again first.`}
        </Words>
      ) : null}
    </Section>
  );
}
