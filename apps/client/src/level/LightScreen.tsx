import type { LightSurvey, LitStretch, SurveyLineId } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import { FEELERS, type Light } from '@even-bed/core/level/lightSurvey';
import { LINE_NAMES, lightWords } from '@even-bed/words/shape';
import { useState } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { ActionButton } from '../ui/ActionButton';
import { BeginAgain } from '../ui/BeginAgain';
import { Field } from '../ui/Field';
import { size } from '../ui/formatHeight';
import { KeyRow } from '../ui/KeyRow';
import { LightPlan } from '../ui/LightPlan';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { drawnLines, linesAsked, nextLine, withStretch, type LightBench } from './lightBench';
import { LightFound, type LightFoundProps } from './LightFound';
import { useNamedSubject, useShapeSubject } from './shapeSubject';
import { useBench } from './useBench';

const BEGUN: LightBench = {
  machineId: null,
  surfaceId: null,
  width: '',
  depth: '',
  seen: {},
  at: 'along-left',
  eight: false,
};
const work = (input: Parameters<ReturnType<typeof shaper>['light']>[0]) => shaper().light(input);

/** Light under a straightedge along six lines: slide where it shows, then what shape the plate has and what to do about it. */
export function LightScreen() {
  const named = useNamedSubject();
  const [bench, change, ready] = useBench<LightBench>(`light ${named.key}`, {
    ...BEGUN,
    machineId: named.machineId,
    surfaceId: named.surfaceId,
  });
  const subject = useShapeSubject(bench);
  const { machine, surface, machines } = subject;
  const { units } = currentManner();
  const typed = { width: readLength(bench.width, units), depth: readLength(bench.depth, units) };
  const known = surface
    ? { width: surface.width, depth: surface.depth }
    : machine
      ? { width: machine.plateWidth, depth: machine.plateDepth }
      : null;
  const width = typed.width ?? known?.width ?? (bench.width === '' ? 235 : null);
  const depth = typed.depth ?? known?.depth ?? (bench.depth === '' ? 235 : null);
  const plate = width !== null && depth !== null && width >= 20 && depth >= 20 ? { width, depth } : null;
  const begun = Object.keys(bench.seen).length > 0;
  const asked = linesAsked(bench);
  const goOn = (stretches: LitStretch[]) => {
    const seen = { ...bench.seen, [bench.at!]: stretches };
    change({ ...bench, seen, at: nextLine({ ...bench, seen }) });
  };
  return (
    <Page
      title={bench.at ? 'Slide along the light' : 'What the light says'}
      crumbs={subject.crumbs}
      state={
        <Words size="small" tone="steel">
          {bench.at ? `line ${asked.indexOf(bench.at) + 1} of ${asked.length}` : `${asked.length} lines`}
        </Words>
      }
      {...(bench.at && plate && ready
        ? {
            actions: (
              <>
                <ActionButton label="No light" onPress={() => goOn([])} testID="no-light" />
                <ActionButton
                  label={
                    nextLine({ ...bench, seen: { ...bench.seen, [bench.at]: [] } }) === null ? 'Last line' : 'Next line'
                  }
                  kind="main"
                  grow
                  disabled={(bench.seen[bench.at] ?? []).length === 0}
                  onPress={() => goOn(bench.seen[bench.at!]!)}
                  testID="next-line"
                />
              </>
            ),
          }
        : {})}
      testID="light"
    >
      {!ready || !subject.ready ? (
        <Loading what="the tool" />
      ) : (
        <>
          {begun ? null : (
            <>
              {bench.surfaceId === null ? (
                <Pick
                  label="Machine"
                  options={[
                    { value: '', label: 'None: a plate on the bench' },
                    ...machines.map(({ id, name }) => ({ value: id, label: name })),
                  ]}
                  value={bench.machineId ?? ''}
                  onChange={(id) => change({ ...bench, machineId: id === '' ? null : id })}
                  testID="light-machine"
                />
              ) : null}
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
                <Field
                  label="Width of the plate"
                  unit={units}
                  keyboard="decimal"
                  value={bench.width}
                  placeholder={width === null ? '' : size(width, 0)}
                  onChange={(text) => change({ ...bench, width: text })}
                  {...(width === null ? { error: 'A length, like 235.' } : {})}
                  testID="light-width"
                />
                <Field
                  label="Depth"
                  unit={units}
                  keyboard="decimal"
                  value={bench.depth}
                  placeholder={depth === null ? '' : size(depth, 0)}
                  onChange={(text) => change({ ...bench, depth: text })}
                  {...(depth === null ? { error: 'A length, like 235.' } : {})}
                  testID="light-depth"
                />
              </View>
            </>
          )}
          {plate ? (
            <Survey
              bench={bench}
              plate={plate}
              aim={machine ? aimOf(machine) : null}
              subject={subject}
              onChange={change}
            />
          ) : null}
          {begun ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <BeginAgain
                what="Every line that was looked along"
                onBegin={() =>
                  change({
                    ...BEGUN,
                    machineId: bench.machineId,
                    surfaceId: bench.surfaceId,
                    width: bench.width,
                    depth: bench.depth,
                  })
                }
                testID="light-again"
              />
            </View>
          ) : null}
        </>
      )}
    </Page>
  );
}

type SurveyProps = Omit<LightFoundProps, 'survey'>;

function Survey(props: SurveyProps) {
  const { bench, plate, aim, onChange } = props;
  const lines = Object.entries(bench.seen).map(([id, stretches]) => ({
    id: id as SurveyLineId,
    stretches: stretches!,
  }));
  const input = lines.length >= 4 ? { plate, lines, aim } : null;
  const worked = useWorked(input, work);
  const survey = worked.kind === 'done' ? worked.result : null;
  if (bench.at) return <OneLine key={bench.at} bench={bench} plate={plate} survey={survey} onChange={onChange} />;
  if (worked.kind === 'failed') return <Words tone="stop">{worked.message}</Words>;
  // What is found is of all lines, never of those before the last.
  if (worked.kind !== 'done' || worked.stale) return <Loading what="the surface" />;
  return <LightFound {...props} survey={worked.result} />;
}

const LIGHT_KEYS = [
  { id: 'none', label: 'none' },
  { id: 'faint', label: 'faint' },
  { id: 'clear', label: 'clear' },
  { id: 'feeler', label: 'feeler' },
];

function OneLine({
  bench,
  plate,
  survey,
  onChange,
}: Pick<SurveyProps, 'bench' | 'plate' | 'onChange'> & { survey: LightSurvey | null }) {
  const at = bench.at!;
  const stretches = bench.seen[at] ?? [];
  const [light, setLight] = useState<Light>('clear');
  const [feeler, setFeeler] = useState<number | null>(null);
  const [feeling, setFeeling] = useState(false);
  const asked = linesAsked(bench);
  const put = (next: typeof stretches) => onChange({ ...bench, seen: { ...bench.seen, [at]: next } });
  const lit = (from: number, to: number) =>
    put(withStretch(stretches, { from, to, light: feeler === null ? light : 'clear', feeler }));
  const manner = currentManner();
  return (
    <View style={{ gap: 12 }}>
      <LightPlan
        plate={plate}
        lines={drawnLines(plate, bench)}
        at={at}
        onLit={lit}
        label={`The plate from above; the straightedge stands ${LINE_NAMES[at]}`}
      />
      <Words size="lead" bold live testID="light-line">
        {`${LINE_NAMES[at][0]!.toUpperCase()}${LINE_NAMES[at].slice(1)}: straightedge on edge, lamp behind.`}
      </Words>
      <KeyRow
        keys={LIGHT_KEYS}
        chosen={
          feeling || feeler !== null
            ? 'feeler'
            : stretches.length === 0 && bench.seen[at] !== undefined
              ? 'none'
              : light
        }
        onPress={(key) => {
          if (key === 'none') return put([]);
          if (key === 'feeler') return setFeeling(true);
          setFeeling(false);
          setFeeler(null);
          setLight(key as Light);
          if (stretches.length > 0) put(stretches.map((one) => ({ ...one, light: key as Light, feeler: null })));
        }}
        testID="light"
      />
      {feeling ? (
        <Pick
          label="Thickest feeler that passes"
          options={FEELERS.map((one) => ({ value: String(one), label: size(one) }))}
          value={feeler === null ? null : String(feeler)}
          onChange={(value) => {
            setFeeler(Number(value));
            if (stretches.length > 0) put(stretches.map((one) => ({ ...one, light: 'clear', feeler: Number(value) })));
          }}
          testID="feeler-pick"
        />
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        <ActionButton label="In the middle" kind="quiet" onPress={() => lit(0.05, 0.95)} testID="lit-middle" />
        <ActionButton
          label="At both ends"
          kind="quiet"
          onPress={() => {
            const one = { light: feeler === null ? light : ('clear' as const), feeler };
            put([
              { from: 0, to: 0.4, ...one },
              { from: 0.6, to: 1, ...one },
            ]);
          }}
          testID="lit-ends"
        />
      </View>
      {survey ? (
        <Section title="SO FAR">
          <Words size="lead" bold live testID="light-so-far">
            {lightWords({ ...survey, closure: survey.closure.most }, manner).verdict}
          </Words>
          <Words size="small" tone="steel">
            {lightWords({ ...survey, closure: survey.closure.most }, manner).trust}
          </Words>
        </Section>
      ) : null}
      {asked.indexOf(at) > 0 ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="The line before"
            kind="quiet"
            icon="back"
            onPress={() => onChange({ ...bench, at: asked[asked.indexOf(at) - 1]! })}
            testID="line-before"
          />
        </View>
      ) : null}
    </View>
  );
}
