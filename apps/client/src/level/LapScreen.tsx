import type { LapRound } from '@even-bed/core';
import { GRITS, grainOf } from '@even-bed/core/level/grits';
import { LAP_PLACES, lapProgress, ROUND_STROKES, type LapPlace } from '@even-bed/core/level/lapProgress';
import type { LapSchool } from '@even-bed/core/level/shapeRecord';
import { lapWords } from '@even-bed/words/shape';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { BeginAgain } from '../ui/BeginAgain';
import { Choice } from '../ui/Choice';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { ScratchKeys } from '../ui/ScratchKeys';
import { useKeepShape, useNamedSubject, useShapeSubject, type ShapeSubject } from './shapeSubject';
import { StrokeCount } from './StrokeCount';
import { useBench } from './useBench';
import { prose } from '../ui/prose';

interface Bench {
  school: LapSchool;
  grit: number;
  proven: boolean;
  rounds: LapRound[];
  touched: Partial<Record<LapPlace, number>>;
}
const BEGUN: Bench = { school: 'dry', grit: 120, proven: false, rounds: [], touched: {} };

/** A platform lapped: the reference proven first, strokes counted, scratches looked at, rounds left. */
export function LapScreen() {
  const named = useNamedSubject();
  const subject = useShapeSubject(named);
  const [bench, change, ready] = useBench<Bench>(`lap ${named.key}`, BEGUN);
  const whole = LAP_PLACES.every((place) => bench.touched[place] !== undefined);
  return (
    <Page
      title="Lap a platform"
      crumbs={subject.crumbs}
      state={
        <Words size="small" tone="steel">
          {`round ${bench.rounds.length + 1}`}
        </Words>
      }
      testID="lap"
    >
      {!ready ? (
        <Loading what="the tool" />
      ) : !bench.proven ? (
        <Begin bench={bench} onChange={change} />
      ) : (
        <View style={{ gap: 16 }}>
          <Progress rounds={bench.rounds} />
          <StrokeCount school={bench.school} />
          <Section title="AFTER THE ROUND">
            <Words tone="steel">
              A few light strokes without rocking, wipe, then look: what is scratched stands high.
            </Words>
            <ScratchKeys
              key={bench.rounds.length}
              touched={bench.touched}
              onTouched={(place, value) => change({ ...bench, touched: { ...bench.touched, [place]: value } })}
            />
          </Section>
          <ActionButton
            label="This round is looked at"
            kind="main"
            disabled={!whole}
            onPress={() =>
              change({
                ...bench,
                rounds: [
                  ...bench.rounds,
                  { strokes: ROUND_STROKES, touched: bench.touched as Record<LapPlace, number> },
                ],
                touched: {},
              })
            }
            testID="lap-round"
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
            <ActionButton
              label="Undo"
              kind="quiet"
              icon="back"
              disabled={bench.rounds.length === 0}
              onPress={() =>
                change({ ...bench, rounds: bench.rounds.slice(0, -1), touched: bench.rounds.at(-1)!.touched })
              }
              testID="lap-undo"
            />
            <BeginAgain what="Every round of lapping" onBegin={() => change(BEGUN)} testID="lap-again" />
          </View>
          <Keep bench={bench} subject={subject} onKept={() => change(BEGUN)} />
        </View>
      )}
    </Page>
  );
}

function Begin({ bench, onChange }: { bench: Bench; onChange: (next: Bench) => void }) {
  const router = useRouter();
  return (
    <View style={{ gap: 14 }}>
      <Notice kind="due" title="Dust, and edges">
        Gloves, a fitted respirator, wet or with extraction: aluminium dust. Platform off its arm, no resin on it. Wet
        slurry is waste, by local rules.
      </Notice>
      <Choice
        label="How"
        options={[
          { value: 'dry', label: 'straight strokes, quarter turns' },
          { value: 'wet', label: 'wet, figures of eight' },
        ]}
        value={bench.school}
        onChange={(school) => onChange({ ...bench, school, grit: school === 'wet' ? 80 : 120 })}
        testID="lap-school"
      />
      <Words size="small" tone="steel">
        {bench.school === 'dry'
          ? 'Lift-back and quarter turns keep it from doming; scratches tell high from low.'
          : 'Less dust and quicker; scratches cross, so look closer.'}
      </Words>
      <Pick
        label="Grit"
        options={GRITS.filter(({ grit }) => grit <= 400).map(({ grit }) => ({
          value: String(grit),
          label: prose(`P${grit}, ${grainOf(grit)} µm`),
        }))}
        value={String(bench.grit)}
        onChange={(grit) => onChange({ ...bench, grit: Number(grit) })}
        testID="lap-grit"
      />
      <Section title="PROVE THE REFERENCE FIRST">
        <Words>
          Glass or granite under the whole sheet, flat by light along six lines: what it is not, the platform won’t
          become.
        </Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <ActionButton label="Look along it by light" onPress={() => router.push('/tools/light')} testID="lap-prove" />
          <ActionButton
            label="It is proven flat"
            kind="main"
            onPress={() => onChange({ ...bench, proven: true })}
            testID="lap-proven"
          />
        </View>
      </Section>
    </View>
  );
}

function Progress({ rounds }: { rounds: readonly LapRound[] }) {
  if (rounds.length === 0)
    return (
      <Words size="lead" bold testID="lap-words">
        A full-size sheet on the reference. Draw pencil lines all over the face first.
      </Words>
    );
  const progress = lapProgress(rounds);
  const { verdict, next } = lapWords(progress, currentManner());
  return (
    <View style={{ gap: 4 }}>
      <Words size="turn" bold live tone={progress.verdict === 'doming' ? 'stop' : 'ink'} testID="lap-words">
        {verdict}
      </Words>
      <Words tone="steel">{next}</Words>
    </View>
  );
}

function Keep({ bench, subject, onKept }: { bench: Bench; subject: ShapeSubject; onKept: () => void }) {
  const router = useRouter();
  const keep = useKeepShape(subject);
  const { rounds, school, grit } = bench;
  if (!keep || rounds.length === 0) return null;
  return (
    <Section title="IT CAN BE KEPT">
      <Words size="small" tone="steel">
        Every round with what it touched. Then clean, refit, level, and start as for a first print: one change at a
        time.
      </Words>
      <ActionButton
        label="Keep it"
        onPress={() => {
          keep({ kind: 'lap', rounds, school, grit }, 'Lapping');
          onKept();
          router.push(subject.home!);
        }}
        testID="lap-keep"
      />
    </Section>
  );
}
