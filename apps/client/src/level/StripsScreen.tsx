import type { BedContours, HeightPoint, ShimPlan, ShimStrip, ShimTape } from '@even-bed/core';
import { extentOf } from '@even-bed/core/level/HeightPoint';
import { readLength } from '@even-bed/core/fleet/readLength';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { linesOver, surveyLines, type SurveyLineId } from '@even-bed/core/level/lightSurvey';
import { placeOf } from '@even-bed/core/level/planShims';
import { LINE_NAMES, noStripsWords, shimWords, stripWords } from '@even-bed/words/shape';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { deviceStore } from '../offline/deviceStore';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { Columns } from '../ui/Columns';
import { Field } from '../ui/Field';
import { length, size } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { TickRow } from '../ui/TickRow';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { withoutLines, type LightBench } from './lightBench';
import { handedName, type HandedHeights } from './handStrips';
import { useChosen, useShapeOptions, type ShapeOption } from './shapeSources';
import { useKeepShape, useNamedSubject, useShapeSubject, type ShapeSubject } from './shapeSubject';
import { ShapeCures } from './ShapeCures';
import { useBench } from './useBench';
import { WaysToHeights } from './WaysToHeights';

interface Bench {
  source: string | null;
  thickness: string;
  pieces: string;
  width: string;
  layers: '1' | '2' | '3';
  direction: 'any' | 'x' | 'y';
  /** few: a strip less is worth some hundredths. */
  want: 'range' | 'few';
  /** Strips that lie, by their order. */
  laid: number;
  kept: boolean;
}
const BEGUN: Bench = {
  source: null,
  thickness: '',
  pieces: '1',
  width: '50',
  layers: '2',
  direction: 'any',
  want: 'range',
  laid: 0,
  kept: false,
};
/** Where few strips are wanted one less is worth so much range, mm. Our own choice. */
const FEW_WORTH = 0.025;
const HANDED: HandedHeights = { map: [], noise: null, plate: null, from: 'light' };
const work = (input: Parameters<ReturnType<typeof shaper>['shims']>[0]) => shaper().shims(input);

/** Strips of tape planned, then laid one at a time, each looked at. */
export function StripsScreen() {
  const named = useNamedSubject();
  const now = useNow();
  const subject = useShapeSubject(named);
  const { machine, surface } = subject;
  const [bench, change, ready] = useBench<Bench>(`strips ${named.key}`, BEGUN);
  const [handed, , handedReady] = useBench<HandedHeights>(handedName(named.key), HANDED);
  const known = useShapeOptions(named, now);
  const options = [...(handed.map.length > 0 ? [handedOption(handed)] : []), ...known.options];
  const source = useChosen(options, bench.source);
  const router = useRouter();
  const { units } = currentManner();
  const [reading, pieces, width] = [
    readLength(bench.thickness, units),
    Number(bench.pieces.replace(',', '.')),
    readLength(bench.width, units),
  ];
  const thickness = reading !== null && pieces >= 1 ? reading / pieces : null;
  const faults = {
    thickness:
      bench.thickness === ''
        ? 'Measure it: some layers between the calipers, then divided.'
        : thickness === null || !(thickness >= 0.005 && thickness <= 1)
          ? `A thickness from ${size(0.005, 3)} to ${size(1)} a layer.`
          : null,
    width: width === null || !(width >= 3 && width <= 500) ? `A width from ${size(3)} to ${size(500)}.` : null,
  };
  const byLight = source?.by === 'light';
  // A survey lies on the plate, a map on what is printed on.
  const plate =
    source?.id === 'handed' && handed.plate
      ? handed.plate
      : machine
        ? byLight
          ? { width: machine.plateWidth, depth: machine.plateDepth }
          : { width: machine.printWidth, depth: machine.printDepth }
        : surface?.width && surface.depth
          ? { width: surface.width, depth: surface.depth }
          : null;
  const input =
    source && faults.thickness === null && faults.width === null
      ? {
          map: source.points,
          tape: { thickness: thickness!, width: width! },
          maxLayers: Number(bench.layers),
          ...(source.noise === null ? {} : { noise: source.noise }),
          ...(bench.want === 'few' ? { worth: FEW_WORTH } : {}),
          ...(bench.direction === 'any' ? {} : { direction: bench.direction }),
          ...(machine ? { aim: aimOf(machine) } : {}),
          ...(plate ? { plate } : {}),
        }
      : null;
  const worked = useWorked(input, work);
  const set = (part: Partial<Bench>) => change({ ...bench, ...part, laid: 0, kept: false });
  return (
    <Page title="Strips of tape" crumbs={subject.crumbs} testID="strips">
      {!ready || !handedReady ? (
        <Loading what="the tool" />
      ) : (
        <Columns
          left={
            <View style={{ gap: 12 }}>
              {options.length === 0 ? (
                <>
                  {named.surfaceId === null ? (
                    <Pick
                      label="Machine"
                      options={[
                        { value: '', label: 'None' },
                        ...subject.machines.map(({ id, name }) => ({ value: id, label: name })),
                      ]}
                      value={named.machineId ?? ''}
                      onChange={(id) => router.setParams({ machine: id === '' ? undefined : id })}
                      testID="strips-machine"
                    />
                  ) : null}
                  <WaysToHeights
                    subject={subject}
                    gives="Plans where strips of tape go, how many layers, and how much of the dip is left."
                  />
                </>
              ) : (
                <Pick
                  label="By which heights"
                  options={options.map(({ id, label }) => ({ value: id, label }))}
                  value={source?.id ?? null}
                  onChange={(id) => set({ source: id })}
                  testID="strip-source"
                />
              )}
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
                <Field
                  label="Layers measured together"
                  unit={units}
                  keyboard="decimal"
                  value={bench.thickness}
                  onChange={(text) => set({ thickness: text })}
                  {...(faults.thickness
                    ? bench.thickness === ''
                      ? { hint: faults.thickness }
                      : { error: faults.thickness }
                    : {})}
                  testID="tape-thickness"
                />
                <Field
                  label="How many layers"
                  keyboard="decimal"
                  value={bench.pieces}
                  onChange={(text) => set({ pieces: text })}
                  {...(pieces >= 1 ? {} : { error: 'One or more.' })}
                  testID="tape-pieces"
                />
              </View>
              <Field
                label="Width of the tape"
                unit={units}
                keyboard="decimal"
                value={bench.width}
                onChange={(text) => set({ width: text })}
                {...(faults.width ? { error: faults.width } : {})}
                testID="tape-width"
              />
              <Choice
                label="Layers at most"
                options={[
                  { value: '1', label: 'one' },
                  { value: '2', label: 'two' },
                  { value: '3', label: 'three' },
                ]}
                value={bench.layers}
                onChange={(layers) => set({ layers })}
                testID="tape-layers"
              />
              <Choice
                label="What counts"
                options={[
                  { value: 'range', label: 'least left over' },
                  { value: 'few', label: 'few strips' },
                ]}
                value={bench.want}
                onChange={(want) => set({ want })}
                testID="tape-want"
              />
              <Choice
                label="Strips lie"
                options={[
                  { value: 'any', label: 'as is best' },
                  { value: 'x', label: 'left to right' },
                  { value: 'y', label: 'front to rear' },
                ]}
                value={bench.direction}
                onChange={(direction) => set({ direction })}
                testID="tape-direction"
              />
            </View>
          }
          right={
            worked.kind === 'failed' ? (
              <Words tone="stop">{worked.message}</Words>
            ) : worked.kind === 'busy' || (worked.kind === 'done' && worked.stale) ? (
              // An old plan beside new tape would be laid, and kept, for what it is not.
              <Loading what="the strips: a few seconds" />
            ) : worked.kind === 'done' && input ? (
              <Planned
                answer={worked.result}
                asked={input}
                plate={plate ?? plateAround(input.map)}
                bench={bench}
                subject={subject}
                noise={source?.noise ?? null}
                byLight={byLight}
                onChange={change}
              />
            ) : null
          }
        />
      )}
    </Page>
  );
}

/** Heights that another tool handed over. */
const handedOption = ({ map, noise, from }: HandedHeights): ShapeOption => {
  const label = from === 'light' ? 'The survey just made' : 'The map just looked at';
  const source = { id: 'handed', label, by: from, points: [...map], noise };
  return { id: 'handed', label, by: from, at: 0, source: () => source };
};

const plateAround = (points: readonly HeightPoint[]) => {
  const { x1, y1 } = extentOf(points);
  return { width: Math.max(100, x1), depth: Math.max(100, y1) };
};

interface Drawn {
  points: HeightPoint[];
  contours: BedContours;
}
interface PlannedProps {
  answer: { plan: ShimPlan; before: Drawn; after: Drawn };
  asked: { map: HeightPoint[]; tape: ShimTape };
  plate: { width: number; depth: number };
  bench: Bench;
  subject: ShapeSubject;
  noise: number | null;
  byLight: boolean;
  onChange: (next: Bench) => void;
}

function Planned({ answer, asked: { map, tape }, plate, bench, subject, noise, byLight, onChange }: PlannedProps) {
  const { plan, before, after } = answer;
  const { machineId, query } = subject;
  const keep = useKeepShape(subject);
  const manner = currentManner();
  const router = useRouter();
  const bed = { ...plate, originX: 0, originY: 0, printWidth: plate.width, printDepth: plate.depth };
  const drawn = plan.strips.map((strip, i) => ({
    ...onPlate(placeOf(strip, tape.width), plate),
    layer: strip.layer,
    now: i === bench.laid,
  }));
  const done = bench.laid >= plan.strips.length;
  /** Lines that no strip lies on stand as they were: only the others are looked along again. */
  const lookAgain = async () => {
    const name = `light ${subject.key}`;
    const over = linesOver(
      surveyLines(plate),
      plan.strips.map((strip) => placeOf(strip, tape.width)),
    );
    const survey = await deviceStore.get<LightBench>('tool', name);
    if (survey) await deviceStore.set('tool', name, withoutLines(survey, over));
    router.push(`/tools/light${query}` as never);
  };
  return (
    <View style={{ gap: 12 }} testID="strip-plan">
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
        <Signal kind={plan.verdict === 'no' ? 'stop' : plan.verdict === 'helps' ? 'due' : 'ready'} />
        <View style={{ flex: 1 }}>
          <Words size="turn" bold live testID="strip-words">
            {shimWords(plan, manner)}
          </Words>
        </View>
      </View>
      {plan.verdict === 'no' ? (
        <>
          <Words>{noStripsWords(plan, tape, manner)}</Words>
          <ShapeCures
            map={map}
            noise={noise}
            machineId={machineId}
            surfaceId={subject.surfaceId}
            plate={plate}
            from={byLight ? 'light' : 'map'}
          />
        </>
      ) : null}
      {plan.strips.length > 0 ? (
        <>
          <Words size="small" tone="steel">
            {`${size(tape.thickness, 3)} a layer; ${size(plan.tape, 0)} of tape with the ends. ${plan.proven ? 'Nothing better was left out.' : 'The search was stopped: there may be better.'} ${length(plan.after)} counts the step at the edge of each strip. A sheet bridges part of it, a pane does not. A probe would read ${length(plan.atReadings)}.`}
          </Words>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <View style={{ flex: 1, minWidth: 0 }}>
              <Words size="small" bold tone="steel">
                AS IT IS
              </Words>
              <BedPlan
                plate={bed}
                contours={before.contours}
                strips={drawn}
                maxHeight={260}
                label="The plate as it is, with the strips laid on it"
                testID="strips-before"
              />
            </View>
            <View style={{ flex: 1, minWidth: 0 }}>
              <Words size="small" bold tone="steel">
                WITH THE STRIPS
              </Words>
              <BedPlan
                plate={bed}
                contours={after.contours}
                maxHeight={260}
                label="The plate with the strips, levelled again"
                testID="strips-after"
              />
            </View>
          </View>
          <Notice kind="due" title="One chance each">
            Bed off and cool, plate clean and dry. Strips beside each other lie edge to edge: a gap keeps the dip.
            Squeegee from the middle outwards, trim away from yourself; never lift once down.
          </Notice>
          <Section title="ONE STRIP AT A TIME" testID="strip-list">
            {plan.strips.map((strip, i) => (
              <View key={`${strip.at} ${strip.layer}`} style={{ gap: 4 }}>
                <TickRow
                  words={`${i + 1}. ${stripWords(strip, manner)}`}
                  ticked={i < bench.laid}
                  onPress={() => {
                    // One after the other: only the next one, and the one that went on last.
                    if (i === bench.laid) onChange({ ...bench, laid: i + 1, kept: false });
                    if (i === bench.laid - 1) onChange({ ...bench, laid: i, kept: false });
                  }}
                  testID={`strip-${i + 1}`}
                />
                {i === bench.laid - 1 ? (
                  <Words size="small" tone="steel" testID="strip-check">
                    {`Look again by light: ${checkWords(strip, plate, tape.width)}. Proud, or a crease: off, and another.`}
                  </Words>
                ) : null}
              </View>
            ))}
          </Section>
          {done ? (
            <View style={{ gap: 10 }} testID="strips-done">
              <Words
                bold
              >{`All laid: ${length(plan.after)} should be left. Look by light once more, then level it again.`}</Words>
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                {keep && !bench.kept ? (
                  <ActionButton
                    label="Keep what was laid"
                    kind="main"
                    onPress={() => {
                      keep({ kind: 'strips', map, tape, strips: plan.strips }, 'Strips of tape laid');
                      onChange({ ...bench, kept: true });
                    }}
                    testID="strips-keep"
                  />
                ) : null}
                {bench.kept ? (
                  <Words bold testID="strips-kept">
                    Kept.
                  </Words>
                ) : null}
                {byLight ? (
                  <ActionButton label="Look by light again" onPress={() => void lookAgain()} testID="strips-light" />
                ) : null}
                {machineId ? (
                  <ActionButton
                    label="Level it again"
                    onPress={() => router.push(`/floor/${machineId}`)}
                    testID="strips-level"
                  />
                ) : null}
              </View>
            </View>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

/** What of a strip lies on the plate: the rest is trimmed off. */
function onPlate({ x, y, width, depth }: ReturnType<typeof placeOf>, plate: { width: number; depth: number }) {
  const [x0, y0] = [Math.max(0, x), Math.max(0, y)];
  return { x: x0, y: y0, width: Math.min(plate.width, x + width) - x0, depth: Math.min(plate.depth, y + depth) - y0 };
}

function checkWords(strip: ShimStrip, plate: { width: number; depth: number }, width: number): string {
  const lines = linesOver(surveyLines(plate).slice(0, 6), [placeOf(strip, width)]);
  return lines.map((id) => LINE_NAMES[id as SurveyLineId]).join('; ') || 'the lines nearest to it';
}
