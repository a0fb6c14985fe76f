import type { MachineOverview } from '@even-bed/contract';
import type { HeightPoint } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { layerPlaces, LAYER_LOOKS, type LayerLook, type LayerVerdict } from '@even-bed/core/level/compareFirstLayer';
import { gridOf } from '@even-bed/core/level/gridOf';
import { middleOf, padPlaces } from '@even-bed/core/level/padPlaces';
import { heightsBetween } from '@even-bed/core/level/heightsBetween';
import { layerWords, LAYER_LOOK_HINTS } from '@even-bed/words/shape';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Columns } from '../ui/Columns';
import { Field } from '../ui/Field';
import { length, lengthFigure, signedFine, fineUnit } from '../ui/formatHeight';
import { KeyRow } from '../ui/KeyRow';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { PadPlan } from '../ui/PadPlan';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { LayerPrint, PAD } from './LayerPrint';
import { useChosen, useShapeOptions } from './shapeSources';
import { useKeepShape } from './shapeSubject';
import { useBench } from './useBench';

interface Read {
  /** As typed, several parted by blanks. */
  thickness: string;
  look: LayerLook | null;
}
interface Bench {
  machineId: string | null;
  source: string | null;
  nominal: string;
  sign: 'higher' | 'unknown' | null;
  compensation: 'on' | 'off';
  reads: Record<string, Read>;
}
const BEGUN: Bench = { machineId: null, source: null, nominal: '', sign: null, compensation: 'off', reads: {} };
const PLACES = 9;
const work = (input: Parameters<ReturnType<typeof shaper>['layer']>[0]) => shaper().layer(input);

/** A measured first layer held against the map: whether the machine follows it. */
export function LayerScreen() {
  const { machine: named } = useLocalSearchParams<{ machine?: string }>();
  const now = useNow();
  const { data: machines = [] } = useMachinesQuery();
  const [bench, change, ready] = useBench<Bench>(`layer ${named ?? ''}`, { ...BEGUN, machineId: named ?? null });
  const machine = machines.find(({ id }) => id === bench.machineId) ?? null;
  const { options, ready: known } = useShapeOptions({ machineId: bench.machineId, surfaceId: null }, now);
  const maps = options.filter(({ by }) => by === 'map');
  const source = useChosen(maps, bench.source);
  return (
    <Page
      title="First layer against the map"
      crumbs={machine ? [{ label: machine.name, href: `/floor/${machine.id}` }] : [{ label: 'Tools', href: '/tools' }]}
      testID="layer"
    >
      {!ready || !known ? (
        <Loading what="the maps" />
      ) : (
        <>
          <View style={{ gap: 12, maxWidth: 520 }}>
            <Pick
              label="Machine"
              options={machines
                .filter(({ family }) => family === 'filament')
                .map(({ id, name }) => ({ value: id, label: name }))}
              value={bench.machineId}
              onChange={(id) => change({ ...BEGUN, machineId: id })}
              testID="layer-machine"
            />
            {bench.machineId === null ? (
              <Words tone="steel" testID="layer-gives">
                Checks whether the machine follows its map: print nine pads, measure them with calipers, and compare
                them with the map. Choose the machine to begin.
              </Words>
            ) : source ? (
              <Pick
                label="The map that it printed by"
                options={maps.map(({ id, label }) => ({ value: id, label }))}
                value={source.id}
                onChange={(id) => change({ ...bench, source: id, reads: {} })}
                testID="layer-source"
              />
            ) : (
              <View testID="no-source">
                <Words>This machine has no map yet: begin a level check on its page and read one in.</Words>
                <Row href={`/floor/${bench.machineId}`}>
                  <Words bold>{`To ${machine?.name ?? 'the machine'}`}</Words>
                </Row>
              </View>
            )}
          </View>
          {machine && source ? (
            <Compare key={source.id} machine={machine} map={source.points} bench={bench} onChange={change} />
          ) : null}
        </>
      )}
    </Page>
  );
}

const keyOf = ({ x, y }: { x: number; y: number }) => `${x.toFixed(1)};${y.toFixed(1)}`;
/** Readings as they are typed: blanks between them. */
function thicknesses(text: string, units: 'mm' | 'in'): { values: number[]; bad: boolean } {
  const parts = text
    .trim()
    .split(/[\s;]+/)
    .filter(Boolean);
  const values = parts.map((part) => readLength(part, units));
  const good = values.filter((value): value is number => value !== null && value >= 0.005 && value <= 5);
  return { values: good, bad: good.length < parts.length };
}

function Compare({
  machine,
  map,
  bench,
  onChange,
}: {
  machine: MachineOverview;
  map: HeightPoint[];
  bench: Bench;
  onChange: (next: Bench) => void;
}) {
  const { units } = currentManner();
  const print = { x: 0, y: 0, width: machine.printWidth, depth: machine.printDepth };
  // A pad near an edge lies farther in than its reading: the map is read off where calipers go.
  const places = padPlaces({ print, ...PAD, places: layerPlaces(map, PLACES) }).pads.map(middleOf);
  const at = heightsBetween(map, gridOf(map));
  const mean = map.reduce((sum, { z }) => sum + z, 0) / map.length;
  const [picked, setPicked] = useState<string | null>(null);
  const reads = places.map((place) => ({ place, read: bench.reads[keyOf(place)] ?? { thickness: '', look: null } }));
  const open = reads.find(({ read }) => read.thickness === '' && read.look === null)?.place ?? null;
  const meant = places.find((place) => keyOf(place) === picked) ?? open ?? places[0]!;
  const nominal = bench.nominal.trim() === '' ? null : readLength(bench.nominal, units);
  const nominalBad = bench.nominal.trim() !== '' && (nominal === null || !(nominal >= 0.02 && nominal <= 2));
  const readings = reads.flatMap(({ place, read }) => {
    const { values } = thicknesses(read.thickness, units);
    return values.length > 0 || (read.look !== null && nominal !== null)
      ? [{ x: place.x, y: place.y, thickness: values, look: read.look }]
      : [];
  });
  const input =
    readings.length > 0 && bench.sign !== null && !nominalBad
      ? { readings, map, nominal, sign: bench.sign === 'higher' ? ('higher' as const) : null }
      : null;
  const worked = useWorked(input, work);
  const found = worked.kind === 'done' ? worked.result : null;
  const said = found ? layerWords(found, bench.compensation, currentManner()) : null;
  const readNow = bench.reads[keyOf(meant)] ?? { thickness: '', look: null };
  const put = (part: Partial<Read>) =>
    onChange({ ...bench, reads: { ...bench.reads, [keyOf(meant)]: { ...readNow, ...part } } });
  const { values, bad } = thicknesses(readNow.thickness, units);
  return (
    <Columns
      left={
        <>
          <LayerPrint machine={machine} places={places} layer={nominal} compensation={bench.compensation} />
          <Section title="WHAT THE CALIPERS SAY">
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
              <Field
                label="Layer as it was asked for"
                unit={units}
                keyboard="decimal"
                value={bench.nominal}
                onChange={(text) => onChange({ ...bench, nominal: text })}
                {...(nominalBad
                  ? { error: 'A layer, like 0.25.' }
                  : { hint: `${length(0.26)} is over a layer of ${length(0.25)} and under one of ${length(0.3)}.` })}
                testID="layer-nominal"
              />
            </View>
            <Choice
              label="What + means in this map"
              options={[
                { value: 'higher', label: '+ is higher' },
                { value: 'unknown', label: 'not settled' },
              ]}
              value={bench.sign}
              onChange={(sign) => onChange({ ...bench, sign })}
              testID="layer-sign"
            />
            <Choice
              label="Printed with compensation"
              options={[
                { value: 'off', label: 'off' },
                { value: 'on', label: 'on' },
              ]}
              value={bench.compensation}
              onChange={(compensation) => onChange({ ...bench, compensation })}
              testID="layer-compensation"
            />
            <PadPlan
              plate={{ width: machine.printWidth, depth: machine.printDepth }}
              pads={reads.map(({ place, read }) => {
                const list = thicknesses(read.thickness, units).values;
                return {
                  id: keyOf(place),
                  x: place.x,
                  y: place.y,
                  read:
                    list.length > 0 ? lengthFigure(list.reduce((sum, one) => sum + one, 0) / list.length) : read.look,
                  height: signedFine(at(place.x, place.y) - mean),
                  odd: found?.odd.some((one) => keyOf(one) === keyOf(place)) ?? false,
                };
              })}
              at={keyOf(meant)}
              onPick={setPicked}
              label="The pads on the plate"
            />
            <Words size="small" tone="steel">
              {`In each pad: what was read, below it what the map says there, in ${fineUnit()} about its mean.`}
            </Words>
            <Field
              label={`Pad ${places.indexOf(meant) + 1}: thickness in its middle, each reading`}
              unit={units}
              keyboard="text"
              value={readNow.thickness}
              onChange={(text) => {
                // Once begun it stays in its pad until Enter or Next.
                setPicked(keyOf(meant));
                put({ thickness: text });
              }}
              {...(bad
                ? { error: `Thicknesses with blanks between, like ${lengthFigure(0.26)} ${lengthFigure(0.27)}.` }
                : {
                    hint:
                      values.length < 3
                        ? 'Three readings tell more than one: put blanks between.'
                        : `${values.length} readings`,
                  })}
              onSubmit={() => setPicked(null)}
              testID="layer-read"
            />
            <KeyRow
              keys={LAYER_LOOKS.map((id) => ({ id, label: id, hint: LAYER_LOOK_HINTS[id] }))}
              chosen={readNow.look}
              onPress={(look) => put({ look: readNow.look === look ? null : (look as LayerLook) })}
              testID="layer-look"
            />
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton
                label="Next pad"
                onPress={() => setPicked(keyOf(places[(places.indexOf(meant) + 1) % places.length]!))}
                testID="layer-next"
              />
            </View>
          </Section>
        </>
      }
      right={
        <Section title="WHAT THEY SAY TOGETHER" testID="layer-answer">
          {worked.kind === 'failed' ? <Words tone="stop">{worked.message}</Words> : null}
          {bench.sign === null && readings.length > 0 ? (
            <Words tone="steel">Say first what + means in this map: off and reversed look alike otherwise.</Words>
          ) : null}
          {found && said ? (
            <>
              <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
                <Signal kind={signalOf(found.verdict, bench.compensation)} />
                <View style={{ flex: 1 }}>
                  <Words size="turn" bold live testID="layer-verdict">
                    {said.verdict}
                  </Words>
                </View>
              </View>
              <Words testID="layer-next-words">{said.next}</Words>
              {found.more ? (
                <Words tone="steel">
                  {`At ${found.more.at.map(({ x, y }) => `${length(x, 0)} from the left, ${length(y, 0)} from the front`).join('; and ')}.`}
                </Words>
              ) : null}
              {found.slope ? (
                <Words size="small" tone="steel">
                  {`Where the bed is higher by ${length(0.1)}, the layer is thinner by ${length(found.slope.value * 0.1)} ± ${length(found.slope.sd * 0.1)}. ${length(0)}: it follows the map; ${length(0.1)}: it is off; ${length(-0.1)}: twice, or an old map; ${length(0.2)}: the wrong way round. One reading scatters by ${length(found.noise.sd, 3)}, ${found.noise.by === 'repeats' ? 'by these repeats' : 'as calipers usually do'}.`}
                </Words>
              ) : null}
              {found.odd.length > 0 ? (
                <Words tone="stop">A look belies its thickness where it is marked: read it again.</Words>
              ) : null}
              <Keep machine={machine} map={map} input={input!} compensation={bench.compensation} />
            </>
          ) : readings.length === 0 ? (
            <Words tone="steel">Print the pads, let them cool, and read each in its middle.</Words>
          ) : null}
        </Section>
      }
    />
  );
}

function signalOf(verdict: LayerVerdict, compensation: 'on' | 'off'): SignalKind {
  if (verdict === 'untold' || verdict === 'sign') return 'hold';
  // With it off the layer is to follow the map, with it on not.
  return verdict === (compensation === 'off' ? 'not-applied' : 'compensated') ? 'ready' : 'stop';
}

function Keep({
  machine,
  map,
  input,
  compensation,
}: {
  machine: MachineOverview;
  map: HeightPoint[];
  input: Omit<Parameters<typeof work>[0], 'map'>;
  compensation: 'on' | 'off';
}) {
  const router = useRouter();
  const home = `/floor/${machine.id}` as const;
  const keepShape = useKeepShape({ machineId: machine.id, surfaceId: null, home });
  if (!keepShape) return null;
  const keep = () => {
    const readings = input.readings.map(({ x, y, thickness, look }) => ({
      x,
      y,
      thickness: [...thickness],
      look: look ?? null,
    }));
    const { nominal = null, sign = null } = input;
    keepShape({ kind: 'layer', readings, map, nominal, sign, compensation }, `${machine.name}: a first layer measured`);
    router.push(home);
  };
  return <ActionButton label="Keep it" kind="main" onPress={keep} testID="layer-keep" />;
}
