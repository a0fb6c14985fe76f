import { noteOperations } from '@even-bed/contract/level/noteOperations';
import { FEELS, MIDDLE, type Feel } from '@even-bed/core/level/feel';
import type { HeightPoint } from '@even-bed/core';
import {
  CAUSES,
  LESSONS,
  practiceBed,
  practiceSaw,
  scorePractice,
  type Cause,
  type PracticeAct,
  type PracticeBed,
  type PracticeSaw,
} from '@even-bed/core/level/practiceBed';
import { FEEL_HINTS } from '@even-bed/words/feel';
import { CAUSE_WORDS, LESSON_NAMES, LESSON_WORDS } from '@even-bed/words/practice';
import { turnWords } from '@even-bed/words/turn';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { FeelPlan } from '../ui/FeelPlan';
import { Field } from '../ui/Field';
import { Figure } from '../ui/Figure';
import { size, fineUnit } from '../ui/formatHeight';
import { KeyRow } from '../ui/KeyRow';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { rightNow } from '../ui/useNow';
import { useSteadyTap } from '../ui/useSteadyTap';
import { Words } from '../ui/Words';
import { turnUnit, typedTurn } from './typedTurn';
import { useBench } from './useBench';

interface Bench {
  /** easy: only out of level · any: anything may be wrong */
  level: 'easy' | 'any';
  number: number;
  acts: PracticeAct[];
  said: Cause | null;
  /** Its line in the book was asked for. */
  written: boolean;
}

const BEGUN: Bench = { level: 'easy', number: 1, acts: [], said: null, written: false };

/** Practice beds have no plate but this. */
const PLATE = { width: 220, depth: 220, originX: 0, originY: 0, printWidth: 220, printDepth: 220 };

/** What the bed of a number hides: told after it was named. */
const lessonOf = ({ level, number }: Pick<Bench, 'level' | 'number'>) =>
  level === 'easy' ? 'tilt' : LESSONS[(number * 3 + 5) % LESSONS.length]!;

/** Seeded beds to learn on: feel, turn, read a map, measure the paper, and say what it was. */
export function PracticeScreen() {
  const [bench, change, ready] = useBench<Bench>('practice', BEGUN);
  const bed = practiceBed(lessonOf(bench), bench.number);
  return (
    <Page
      title={`Practice bed ${bench.number}`}
      crumbs={[{ label: 'Tools', href: '/tools' }]}
      state={
        <Words size="small" tone="steel">
          {`touch ${bench.acts.length + 1}`}
        </Words>
      }
      testID="practice"
    >
      {!ready ? (
        <Loading what="the practice bed" />
      ) : bench.said === null ? (
        <Bed bed={bed} bench={bench} onChange={change} />
      ) : (
        <Score bed={bed} bench={bench} said={bench.said} onChange={change} />
      )}
    </Page>
  );
}

function Bed({ bed, bench, onChange }: { bed: PracticeBed; bench: Bench; onChange: (next: Bench) => void }) {
  const steady = useSteadyTap();
  const [at, setAt] = useState<string>(bed.adjusters[0]!.id);
  const [eighths, setEighths] = useState(String(turnUnit().perTurn / 8));
  const [naming, setNaming] = useState(false);
  const { acts } = bench;
  const saw = practiceSaw(bed, acts);
  const act = (next: PracticeAct) => steady(() => onChange({ ...bench, acts: [...acts, next] }))();
  const places = [...bed.adjusters.map(({ id, x, y }) => ({ id, x, y })), { id: MIDDLE, x: 110, y: 110 }];
  const last = acts.at(-1);
  const felt = last?.do === 'feel' ? (saw.at(-1) as Feel) : null;
  const map = last?.do === 'map' ? (saw.at(-1) as readonly HeightPoint[]) : null;
  const unit = turnUnit();
  const turns = typedTurn(eighths);
  const fault = turns === null ? `${unit.name} of a turn, such as ${unit.example}.` : undefined;
  const turn = (sign: 1 | -1) => turns !== null && act({ do: 'turn', adjuster: at, turns: sign * turns });
  return (
    <View style={{ gap: 12 }}>
      {acts.length === 0 ? (
        <>
          <Words>
            {`Paper of about ${size(bed.paper, 2)}; clockwise is said to lower. Make every adjuster drag as the paper should, with as few touches as you can; then say what was wrong with the bed.`}
          </Words>
          <Choice
            label="How much may be wrong"
            options={[
              { value: 'easy', label: 'only its level' },
              { value: 'any', label: 'anything' },
            ]}
            value={bench.level}
            onChange={(level) => onChange({ ...bench, level })}
            testID="practice-level"
          />
        </>
      ) : null}
      {map ? (
        <BedPlan
          plate={PLATE}
          adjusters={bed.adjusters}
          points={map}
          maxHeight={260}
          label={`The map that the probe read, ${fineUnit()}, + higher`}
          testID="practice-map"
        />
      ) : (
        <FeelPlan
          places={places.map((place) => ({ ...place, middle: place.id === MIDDLE, stands: 'open' as const }))}
          at={at}
          feels
          label={`The bed from above; the paper lies at ${at}`}
          testID="practice-plan"
        />
      )}
      <Words size="turn" bold live testID="practice-saw">
        {last ? sawWords(last, saw.at(-1)!) : 'Nothing is felt yet.'}
      </Words>
      <Choice
        label="Where"
        narrow
        options={places.map(({ id }) => ({ value: id, label: id }))}
        value={at}
        onChange={setAt}
        testID="practice-at"
      />
      <KeyRow
        keys={FEELS.map((id) => ({ id, label: id, hint: FEEL_HINTS[id] }))}
        chosen={felt}
        testID="practice-felt"
      />
      <ActionButton
        label={`Feel it at ${at}`}
        kind="main"
        onPress={() => act({ do: 'feel', at })}
        testID="practice-feel"
      />
      {at === MIDDLE ? null : (
        <>
          <Field
            label={`Turn ${at}, by how many ${unit.name}`}
            value={eighths}
            onChange={setEighths}
            keyboard="decimal"
            {...(fault ? { error: fault } : {})}
            testID="practice-eighths"
          />
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <ActionButton label="Anticlockwise" grow onPress={() => turn(-1)} testID="practice-back" />
            <ActionButton label="Clockwise" grow onPress={() => turn(1)} testID="practice-clock" />
          </View>
        </>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        <ActionButton
          label="Ten between the calipers"
          kind="quiet"
          onPress={() => act({ do: 'caliper' })}
          testID="practice-caliper"
        />
        <ActionButton label="Read a map" kind="quiet" onPress={() => act({ do: 'map' })} testID="practice-read" />
      </View>
      {naming ? (
        <Section title="WHAT WAS IT">
          {CAUSES.map((cause) => (
            <ActionButton
              key={cause}
              label={CAUSE_WORDS[cause]}
              onPress={() => onChange({ ...bench, said: cause })}
              testID={`cause-${cause}`}
            />
          ))}
        </Section>
      ) : (
        <ActionButton label="I am done" onPress={() => setNaming(true)} testID="practice-done" />
      )}
      <SoFar acts={acts} saw={saw} />
    </View>
  );
}

/** What came of the last thing done. */
function sawWords(act: PracticeAct, saw: PracticeSaw): string {
  switch (act.do) {
    case 'feel':
      return `${capital(act.at)}: ${String(saw)}`;
    case 'turn':
      return `${capital(act.adjuster)}: ${turnWords(act.turns, currentManner())}`;
    case 'caliper':
      return `Ten sheets: ${size(saw as number, 2)}`;
    case 'map':
      return 'The map, about its mean, + higher';
  }
}
const capital = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}`;

function SoFar({ acts, saw }: { acts: readonly PracticeAct[]; saw: readonly PracticeSaw[] }) {
  if (acts.length === 0) return null;
  return (
    <Section title="SO FAR" testID="practice-so-far">
      {acts
        .map((act, i) => ({ act, i }))
        .reverse()
        .slice(0, 12)
        .map(({ act, i }) => (
          <Words key={i} size="small">{`${i + 1}. ${sawWords(act, saw[i]!)}`}</Words>
        ))}
    </Section>
  );
}

function Score({
  bed,
  bench,
  said,
  onChange,
}: {
  bed: PracticeBed;
  bench: Bench;
  said: Cause;
  onChange: (next: Bench) => void;
}) {
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const score = scorePractice(bed, bench.acts, said);
  const write = () => {
    const id = uuid();
    later(noteOperations.keepPractice, {
      params: { id },
      body: { at: rightNow(), lesson: bed.lesson, seed: bed.seed, acts: bench.acts, said },
      key: id,
      what: `Practice bed ${bed.seed}`,
      at: '/tools/practice',
    });
    onChange({ ...bench, written: true });
  };
  return (
    <View style={{ gap: 14 }} testID="practice-score">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
        <Figure label="Points of 100" value={String(score.points)} testID="practice-points" />
        <Figure label="Touches" value={String(score.touches)} testID="practice-touches" />
        <Figure label="Would do" value={String(score.best)} testID="practice-best" />
      </View>
      {score.even === null ? null : (
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          <Signal kind={score.even ? 'ready' : 'due'} />
          <Words>{score.even ? 'Every adjuster drags as it should.' : 'Not every adjuster drags as it should.'}</Words>
        </View>
      )}
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <Signal kind={score.named ? 'ready' : 'due'} />
        <View style={{ flex: 1 }}>
          <Words bold testID="practice-was">{`It was: ${LESSON_NAMES[bed.lesson]}.`}</Words>
        </View>
      </View>
      <Words testID="practice-lesson">{LESSON_WORDS[bed.lesson]}</Words>
      <ActionButton
        label="The next bed"
        kind="main"
        onPress={() => onChange({ ...BEGUN, level: bench.level, number: bench.number + 1 })}
        testID="practice-next"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        <ActionButton
          label="The same bed again"
          kind="quiet"
          onPress={() => onChange({ ...BEGUN, level: bench.level, number: bench.number })}
          testID="practice-again"
        />
        {mayDo ? (
          <ActionButton
            label={bench.written ? 'It is in the book' : 'A line in the book'}
            kind="quiet"
            disabled={bench.written}
            onPress={write}
            testID="practice-write"
          />
        ) : null}
      </View>
    </View>
  );
}
