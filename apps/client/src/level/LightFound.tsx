import type { LightSurvey, SurveyLineId } from '@even-bed/core';
import { surveyNoise } from '@even-bed/core/level/lightSurvey';
import { LINE_NAMES, lightWords, shapeWords } from '@even-bed/words/shape';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Columns } from '../ui/Columns';
import { size } from '../ui/formatHeight';
import { LightPlan } from '../ui/LightPlan';
import { currentManner } from '../ui/manner';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { drawnLines, type LightBench } from './lightBench';
import { touchesOf } from './planOf';
import { ShapeCures } from './ShapeCures';
import { useKeepShape, type ShapeSubject } from './shapeSubject';

export interface LightFoundProps {
  bench: LightBench;
  plate: { width: number; depth: number };
  /** Largest flatness that counts as flat, mm; null: a hair of light. */
  aim: number | null;
  subject: ShapeSubject;
  survey: LightSurvey;
  onChange: (next: LightBench) => void;
}

const look = (input: Parameters<ReturnType<typeof shaper>['look']>[0]) => shaper().look(input);

/** What the lines say together: the plate in plan, what to look at again, what can be done, and the record. */
export function LightFound({ bench, plate, aim, subject, survey, onChange }: LightFoundProps) {
  const manner = currentManner();
  const said = lightWords({ ...survey, closure: survey.closure.most }, manner);
  const doubted = survey.trust === 'contradicts';
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
              {(survey.suspects as SurveyLineId[]).map((id) => (
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
                noise={surveyNoise(survey.resolution)}
                machineId={bench.machineId}
                surfaceId={bench.surfaceId}
                plate={plate}
                from="light"
              />
              <Keep bench={bench} plate={plate} aim={aim} subject={subject} />
            </>
          )
        }
      />
    </View>
  );
}

/** The rebuilt plate in plan. */
function Drawn({ plate, survey, aim }: Pick<LightFoundProps, 'plate' | 'survey'> & { aim?: number }) {
  const worked = useWorked({ map: survey.points, noise: surveyNoise(survey.resolution) }, look);
  if (worked.kind !== 'done') return null;
  const { flatness, drawn } = worked.result;
  return (
    <BedPlan
      plate={{ ...plate, originX: 0, originY: 0, printWidth: plate.width, printDepth: plate.depth }}
      contours={drawn.contours}
      touches={touchesOf(flatness, survey.points)}
      {...(aim === undefined ? {} : { aim })}
      label="The plate from above, as rebuilt from the light"
      testID="light-shape"
    />
  );
}

function Keep({ bench: { seen }, plate, aim, subject }: Pick<LightFoundProps, 'bench' | 'plate' | 'aim' | 'subject'>) {
  const router = useRouter();
  const keep = useKeepShape(subject);
  const [kept, setKept] = useState(false);
  if (!keep) return null;
  if (!kept)
    return (
      <ActionButton
        label="Keep this survey"
        kind="main"
        onPress={() => {
          const lines = Object.entries(seen).map(([id, stretches]) => ({
            id: id as SurveyLineId,
            stretches: stretches!,
          }));
          keep({ kind: 'light', plate, lines, aim }, 'A survey by light');
          setKept(true);
        }}
        testID="light-keep"
      />
    );
  return (
    <View style={{ gap: 8 }}>
      <Words bold testID="light-kept">
        Kept.
      </Words>
      <ActionButton
        label={subject.machineId === null ? 'To the surface' : 'To the machine'}
        onPress={() => router.push(subject.home!)}
        testID="light-to"
      />
    </View>
  );
}
