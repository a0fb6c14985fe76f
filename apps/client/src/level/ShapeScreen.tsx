import { firstLayerAim } from '@even-bed/core/level/firstLayerAim';
import { partWords, shapeWords } from '@even-bed/words/shape';
import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useSurfaceQuery } from '../surfaces/surfacesApi';
import { BedPlan } from '../ui/BedPlan';
import { Columns } from '../ui/Columns';
import { Facts } from '../ui/Facts';
import { Field } from '../ui/Field';
import { length } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import type { ShapeLook } from '../workers/shapes.worker';
import { ShapeCures } from './ShapeCures';
import { useShapeSources, type ShapeSource } from './shapeSources';
import { useBench } from './useBench';

interface Bench {
  machineId: string | null;
  source: string | null;
  pasted: string;
}
const look = (input: Parameters<ReturnType<typeof shaper>['look']>[0]) => shaper().look(input);
const read = (input: Parameters<ReturnType<typeof shaper>['read']>[0]) => shaper().read(input);

/** Flat or not, and of what shape: from a map, a survey by light, or heights pasted in. */
export function ShapeScreen() {
  const { machine: named, surface: namedSurface } = useLocalSearchParams<{ machine?: string; surface?: string }>();
  const now = useNow();
  const { data: machines = [] } = useMachinesQuery();
  const { data: surface } = useSurfaceQuery({ id: namedSurface ?? '' }, { skip: namedSurface === undefined });
  const [bench, change, ready] = useBench<Bench>(`shape ${named ?? namedSurface ?? ''}`, {
    machineId: named ?? null,
    source: null,
    pasted: '',
  });
  const machine = machines.find(({ id }) => id === bench.machineId) ?? null;
  const { sources, ready: known } = useShapeSources(
    { machineId: bench.machineId, surfaceId: namedSurface ?? null },
    now,
  );
  const pasted = useWorked(
    bench.pasted.trim() === ''
      ? null
      : { text: bench.pasted, width: machine?.printWidth ?? 220, depth: machine?.printDepth ?? 220 },
    read,
  );
  const typed: ShapeSource | null =
    pasted.kind === 'done' && pasted.result.questions === 0
      ? {
          id: 'pasted',
          label: 'Pasted in',
          at: now,
          points: pasted.result.points,
          noise: null,
          map: null,
          record: null,
        }
      : null;
  const options = [...(typed ? [typed] : []), ...sources];
  const source = options.find(({ id }) => id === bench.source) ?? options[0] ?? null;
  return (
    <Page
      title="Flat or not"
      crumbs={
        machine
          ? [{ label: machine.name, href: `/floor/${machine.id}` }]
          : surface
            ? [{ label: surface.tag, href: `/rack/${surface.id}` }]
            : [{ label: 'Tools', href: '/tools' }]
      }
      testID="shape"
    >
      {!ready || !known ? (
        <Loading what="what is known" />
      ) : (
        <>
          <View style={{ gap: 12, maxWidth: 520 }}>
            {namedSurface === undefined ? (
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
            {options.length > 0 ? (
              <Pick
                label="By which heights"
                options={options.map(({ id, label }) => ({ value: id, label }))}
                value={source?.id ?? null}
                onChange={(id) => change({ ...bench, source: id })}
                testID="shape-source"
              />
            ) : (
              <Words tone="steel" testID="no-source">
                No heights yet: read a map in a level check, look along it by light, or paste them here.
              </Words>
            )}
            {bench.machineId === null ? (
              <Field
                label="Heights, as a console says them"
                value={bench.pasted}
                lines={4}
                onChange={(text) => change({ ...bench, pasted: text, source: null })}
                {...(pasted.kind === 'failed'
                  ? { error: pasted.message }
                  : pasted.kind === 'done' && pasted.result.questions > 0
                    ? { error: 'These can be read in two ways. Read them in a level check, where that is asked.' }
                    : {})}
                testID="shape-paste"
              />
            ) : null}
          </View>
          {source ? (
            <Looked key={source.id} source={source} machineId={bench.machineId} surfaceId={namedSurface ?? null} />
          ) : null}
        </>
      )}
    </Page>
  );
}

function Looked({
  source,
  machineId,
  surfaceId,
}: {
  source: ShapeSource;
  machineId: string | null;
  surfaceId: string | null;
}) {
  const { data: machines = [] } = useMachinesQuery();
  const machine = machines.find(({ id }) => id === machineId) ?? null;
  const aim = machine ? (machine.aim ?? firstLayerAim(machine)) : 0.1;
  const worked = useWorked(
    {
      map: source.points,
      aim,
      family: machine?.family ?? 'filament',
      compensation: machine?.compensation ?? false,
      tape: null,
      bendable: null,
      reference: null,
      ...(source.noise === null ? {} : { noise: source.noise }),
    },
    look,
  );
  if (worked.kind === 'failed') return <Words tone="stop">{worked.message}</Words>;
  if (worked.kind !== 'done') return <Loading what="the shape" />;
  const plate = machine
    ? {
        width: machine.plateWidth,
        depth: machine.plateDepth,
        originX: machine.originX,
        originY: machine.originY,
        printWidth: machine.printWidth,
        printDepth: machine.printDepth,
      }
    : plainPlate(source);
  return (
    <Columns
      left={<Drawing found={worked.result} source={source} plate={plate} aim={aim} />}
      right={
        <>
          <Figures found={worked.result} source={source} />
          <ShapeCures
            map={source.points}
            noise={source.noise}
            machineId={machineId}
            surfaceId={surfaceId}
            from={source.record ? 'light' : 'map'}
          />
        </>
      }
    />
  );
}

const plainPlate = ({ points }: ShapeSource) => {
  const [width, depth] = [Math.max(50, ...points.map(({ x }) => x)), Math.max(50, ...points.map(({ y }) => y))];
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
  const touch = (plane: 'upper' | 'lower') =>
    flatness.contacts[plane].length > 4 ? [] : flatness.contacts[plane].map((at) => ({ ...source.points[at]!, plane }));
  return (
    <View style={{ gap: 8 }}>
      <BedPlan
        plate={plate}
        points={source.record ? [] : drawn.points}
        contours={drawn.contours}
        touches={[...touch('upper'), ...touch('lower')]}
        aim={aim}
        label="The bed from above, its tilt taken out, with the places that two planes touch"
        testID="shape-plan"
      />
      <Words size="small" tone="steel">
        Hundredths of a mm, tilt taken out. Full wedge: the upper plane touches here; hollow: the lower one. Between the
        two lies everything.
      </Words>
    </View>
  );
}

function Figures({ found, source }: { found: ShapeLook; source: ShapeSource }) {
  const { flatness, lone, cures } = found;
  const manner = currentManner();
  const { shape } = cures;
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
