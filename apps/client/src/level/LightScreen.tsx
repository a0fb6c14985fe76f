import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import type { LightSurvey, LitStretch, SurveyLineId } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { FEELERS, type Light } from '@even-bed/core/level/lightSurvey';
import { LINE_NAMES, lightWords, shapeWords } from '@even-bed/words/shape';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppSelector } from '../state/store';
import { useSurfaceQuery } from '../surfaces/surfacesApi';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Columns } from '../ui/Columns';
import { Field } from '../ui/Field';
import { size } from '../ui/formatHeight';
import { KeyRow } from '../ui/KeyRow';
import { LightPlan } from '../ui/LightPlan';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { drawnLines, linesAsked, nextLine, withStretch, type LightBench } from './lightBench';
import { ShapeCures } from './ShapeCures';
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
  const { machine: named, surface: namedSurface } = useLocalSearchParams<{ machine?: string; surface?: string }>();
  const { data: machines, isLoading } = useMachinesQuery();
  const [bench, change, ready] = useBench<LightBench>(`light ${named ?? namedSurface ?? ''}`, {
    ...BEGUN,
    machineId: named ?? null,
    surfaceId: namedSurface ?? null,
  });
  const machine = machines?.find(({ id }) => id === bench.machineId) ?? null;
  const { data: surface } = useSurfaceQuery({ id: bench.surfaceId ?? '' }, { skip: bench.surfaceId === null });
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
  const crumbs = machine
    ? [{ label: machine.name, href: `/floor/${machine.id}` as const }]
    : surface
      ? [{ label: surface.tag, href: `/rack/${surface.id}` as const }]
      : [{ label: 'Tools', href: '/tools' as const }];
  const asked = linesAsked(bench);
  const goOn = (stretches: LitStretch[]) => {
    const seen = { ...bench.seen, [bench.at!]: stretches };
    change({ ...bench, seen, at: nextLine({ ...bench, seen }) });
  };
  return (
    <Page
      title={bench.at ? 'Slide along the light' : 'What the light says'}
      crumbs={crumbs}
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
      {!ready || isLoading ? (
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
                    ...(machines ?? []).map(({ id, name }) => ({ value: id, label: name })),
                  ]}
                  value={bench.machineId ?? ''}
                  onChange={(id) => change({ ...bench, machineId: id === '' ? null : id })}
                  testID="light-machine"
                />
              ) : null}
              <View style={{ flexDirection: 'row', gap: 12 }}>
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
          {plate ? <Survey bench={bench} plate={plate} aim={machine?.aim ?? null} onChange={change} /> : null}
          {begun ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton
                label="Begin again"
                kind="quiet"
                onPress={() =>
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

interface SurveyProps {
  bench: LightBench;
  plate: { width: number; depth: number };
  aim: number | null;
  onChange: (next: LightBench) => void;
}

function Survey({ bench, plate, aim, onChange }: SurveyProps) {
  const lines = Object.entries(bench.seen).map(([id, stretches]) => ({
    id: id as SurveyLineId,
    stretches: stretches!,
  }));
  const input = lines.length >= 4 ? { plate, lines, aim } : null;
  const worked = useWorked(input, work);
  const survey = worked.kind === 'done' ? worked.result : null;
  if (bench.at) return <OneLine key={bench.at} bench={bench} plate={plate} survey={survey} onChange={onChange} />;
  if (worked.kind === 'failed') return <Words tone="stop">{worked.message}</Words>;
  if (!survey) return <Loading what="the surface" />;
  return <Found bench={bench} plate={plate} aim={aim} survey={survey} onChange={onChange} />;
}

const LIGHT_KEYS = [
  { id: 'none', label: 'none' },
  { id: 'faint', label: 'faint' },
  { id: 'clear', label: 'clear' },
  { id: 'feeler', label: 'feeler' },
];

function OneLine({ bench, plate, survey, onChange }: Omit<SurveyProps, 'aim'> & { survey: LightSurvey | null }) {
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

function Found({ bench, plate, aim, survey, onChange }: SurveyProps & { survey: LightSurvey }) {
  const manner = currentManner();
  const said = lightWords({ ...survey, closure: survey.closure.most }, manner);
  const doubted = survey.trust === 'contradicts';
  const again = survey.suspects.length > 0 ? (survey.suspects as SurveyLineId[]) : [];
  return (
    <View style={{ gap: 16 }} testID="light-found">
      <Columns
        left={
          <>
            <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
              <Signal kind={doubted ? 'stop' : survey.verdict === 'flat' ? 'ready' : 'due'} />
              <View style={{ flex: 1 }}>
                <Words size="turn" bold live testID="light-verdict">
                  {said.verdict}
                </Words>
              </View>
            </View>
            <Words tone={doubted ? 'stop' : 'steel'} testID="light-trust">
              {said.trust}
            </Words>
            {doubted ? (
              <LightPlan
                plate={plate}
                lines={drawnLines(plate, bench, survey.suspects)}
                at={null}
                label="The lines, those to look at again dashed"
              />
            ) : (
              <Drawn plate={plate} survey={survey} {...(aim === null ? {} : { aim })} />
            )}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
              {again.map((id) => (
                <ActionButton
                  key={id}
                  label={`Again: ${LINE_NAMES[id]}`}
                  onPress={() => {
                    const { [id]: _, ...seen } = bench.seen;
                    onChange({ ...bench, seen, at: id });
                  }}
                  testID={`again-${id}`}
                />
              ))}
              {bench.eight ? null : (
                <ActionButton
                  label="Two more, through the middle"
                  kind="quiet"
                  onPress={() => onChange({ ...bench, eight: true, at: 'along-middle' })}
                  testID="light-eight"
                />
              )}
            </View>
          </>
        }
        right={
          doubted ? null : (
            <>
              <Words tone="steel">{shapeWords(survey.shape, manner)}</Words>
              <Words size="small" tone="steel">
                {`What lies within ${size(survey.resolution)} is not told by these readings.`}
              </Words>
              <ShapeCures
                map={survey.points}
                noise={Math.max(0.003, survey.resolution / Math.sqrt(12))}
                machineId={bench.machineId}
                surfaceId={bench.surfaceId}
                plate={plate}
                from="light"
              />
              <Keep bench={bench} plate={plate} aim={aim} />
            </>
          )
        }
      />
    </View>
  );
}

/** The rebuilt plate in plan. */
function Drawn({ plate, survey, aim }: { plate: SurveyProps['plate']; survey: LightSurvey; aim?: number }) {
  const input = {
    map: survey.points,
    aim: aim ?? 0.1,
    family: 'filament' as const,
    compensation: false,
    tape: null,
    bendable: null,
    reference: null,
  };
  const worked = useWorked(input, look);
  if (worked.kind !== 'done') return null;
  const { flatness, drawn } = worked.result;
  const touch = (plane: 'upper' | 'lower') => flatness.contacts[plane].map((at) => ({ ...survey.points[at]!, plane }));
  return (
    <BedPlan
      plate={{ ...plate, originX: 0, originY: 0, printWidth: plate.width, printDepth: plate.depth }}
      contours={drawn.contours}
      touches={[...touch('upper'), ...touch('lower')]}
      {...(aim === undefined ? {} : { aim })}
      label="The plate from above, as rebuilt from the light"
      testID="light-shape"
    />
  );
}
const look = (input: Parameters<ReturnType<typeof shaper>['look']>[0]) => shaper().look(input);

function Keep({ bench, plate, aim }: Omit<SurveyProps, 'onChange'>) {
  const router = useRouter();
  const { machineId, surfaceId, seen } = bench;
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const [kept, setKept] = useState(false);
  if (!mayDo || (machineId === null && surfaceId === null)) return null;
  const keep = () => {
    const id = uuid();
    later(shapeOperations.keepShape, {
      params: { id },
      body: {
        machineId,
        surfaceId,
        at: rightNow(),
        raw: {
          kind: 'light',
          plate,
          lines: Object.entries(seen).map(([line, stretches]) => ({ id: line as SurveyLineId, stretches: stretches! })),
          aim,
        },
      },
      key: id,
      what: 'A survey by light',
      at: machineId === null ? `/rack/${surfaceId}` : `/floor/${machineId}`,
    });
    setKept(true);
  };
  return kept ? (
    <View style={{ gap: 8 }}>
      <Words bold testID="light-kept">
        Kept.
      </Words>
      <ActionButton
        label={machineId === null ? 'To the surface' : 'To the machine'}
        onPress={() => router.push(machineId === null ? `/rack/${surfaceId}` : (`/floor/${machineId}` as never))}
        testID="light-to"
      />
    </View>
  ) : (
    <ActionButton label="Keep this survey" kind="main" onPress={keep} testID="light-keep" />
  );
}
