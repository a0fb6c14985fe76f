import { noteOperations } from '@even-bed/contract/level/noteOperations';
import {
  LINE_LOOKS,
  SKIRT_SIDES,
  skirtTrim,
  type LineLook,
  type SkirtRound,
  type SkirtSide,
} from '@even-bed/core/level/skirtTrim';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { LOOK_HINTS, sideName, skirtWords } from '@even-bed/words/skirt';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BeginAgain } from '../ui/BeginAgain';
import { FeelPlan } from '../ui/FeelPlan';
import { KeyRow } from '../ui/KeyRow';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { SkirtPlan } from '../ui/SkirtPlan';
import { canSpeak } from '../ui/speak';
import { rightNow } from '../ui/useNow';
import { useSteadyTap } from '../ui/useSteadyTap';
import { Words } from '../ui/Words';
import { BedPick } from './BedPick';
import { benchBed, PLAIN_BED, type BedAsk, type BenchBed } from './benchBeds';
import { useLearnedQuery } from './levelApi';
import { useBench } from './useBench';
import { useSaid } from './useSaid';

interface Bench {
  bed: BedAsk;
  rounds: SkirtRound[];
  /** How the sides look that were looked at in this round. */
  looks: Partial<Record<SkirtSide, LineLook>>;
}

const BEGUN: Bench = { bed: PLAIN_BED, rounds: [], looks: {} };

/** A trim while the skirt prints: its four sides looked at, one move by it, and round again. */
export function SkirtScreen() {
  const { machine: named } = useLocalSearchParams<{ machine?: string }>();
  const { data: machines, isLoading } = useMachinesQuery();
  const [kept, change, ready] = useBench<Bench>(`skirt ${named ?? ''}`, {
    ...BEGUN,
    bed: { ...PLAIN_BED, machineId: named ?? null },
  });
  const { data: learned } = useLearnedQuery({ id: kept.bed.machineId ?? '' }, { skip: kept.bed.machineId === null });
  const bed = benchBed(kept.bed, machines ?? [], learned?.adjusters);
  const begun = kept.rounds.length > 0 || Object.keys(kept.looks).length > 0;
  return (
    <Page
      title="Trim by a skirt"
      crumbs={
        bed.machine
          ? [{ label: bed.machine.name, href: `/floor/${bed.machine.id}` }]
          : [{ label: 'Tools', href: '/tools' }]
      }
      state={
        <Words size="small" tone="steel">
          {`look ${kept.rounds.length + 1}`}
        </Words>
      }
      testID="skirt"
    >
      {!ready || isLoading ? (
        <Loading what="the tool" />
      ) : (
        <>
          <Notice kind="due" title="Hot, and moving parts">
            Hands clear of belts and nozzle: turn between two passes.
          </Notice>
          {begun ? null : <BedPick ask={kept.bed} onChange={(next) => change({ ...kept, bed: next })} />}
          <Trim key={kept.rounds.length} bench={kept} bed={bed} onChange={change} />
          {begun ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <BeginAgain
                what="Every look and every round"
                onBegin={() => change({ ...BEGUN, bed: kept.bed })}
                testID="skirt-again"
              />
            </View>
          ) : null}
        </>
      )}
    </Page>
  );
}

function Trim({ bench, bed, onChange }: { bench: Bench; bed: BenchBed; onChange: (next: Bench) => void }) {
  const steady = useSteadyTap();
  const [picked, setPicked] = useState<SkirtSide | null>(null);
  const { looks, rounds } = bench;
  const open = SKIRT_SIDES.find((side) => looks[side] === undefined) ?? null;
  const at = picked ?? open;
  const whole = open === null ? (looks as Record<SkirtSide, LineLook>) : null;
  const { adjusters, print, names, seenFrom } = bed;
  const now: SkirtRound[] = whole ? [...rounds, { looks: whole, made: null }] : [];
  const advice = whole ? skirtTrim({ adjusters, print, rounds: now }) : null;
  const isMotor = (id: string) => adjusters.find((one) => one.id === id)?.motor === true;
  const nameOf = (id: string) => `${names[id]![0]!.toUpperCase()}${names[id]!.slice(1)}`;
  const title = advice
    ? skirtWords(
        advice,
        advice.do === 'turn' ? nameOf(advice.adjuster) : '',
        seenFrom,
        currentManner(),
        advice.do === 'turn' && isMotor(advice.adjuster),
      )
    : `${sideName(at!)[0]!.toUpperCase()}${sideName(at!).slice(1)} side: how do its lines look?`;
  const say = useSaid(title);
  const sides = SKIRT_SIDES.map((id) => ({ id, look: looks[id] ?? null, good: looks[id] === 'touching' }));
  return (
    <View style={{ gap: 12 }}>
      <Words size="turn" bold live testID="skirt-title">
        {title}
      </Words>
      {adjusters.length < 3 ? (
        <Words size="small" tone="steel">
          Fewer than three adjusters are written down: the offset alone is trimmed here.
        </Words>
      ) : null}
      {advice?.do === 'turn' ? (
        <FeelPlan
          places={adjusters.map(({ id, x, y }) => ({
            id,
            x,
            y,
            stands: 'ok' as const,
            ...(id === advice.adjuster
              ? isMotor(id)
                ? { turns: advice.turns, motor: true }
                : { turns: turnsAsSeen(advice.turns, seenFrom) }
              : {}),
          }))}
          at={advice.adjuster}
          feels={false}
          label={title}
          testID="skirt-turn"
        />
      ) : (
        <SkirtPlan sides={sides} at={at} onPick={setPicked} label="The skirt from above" />
      )}
      {at && !(advice && advice.do !== 'done' && picked === null) ? (
        <KeyRow
          keys={LINE_LOOKS.map((id) => ({ id, label: id, hint: LOOK_HINTS[id] }))}
          {...(looks[at] ? { chosen: looks[at] } : {})}
          onPress={(look) =>
            steady(() => {
              onChange({ ...bench, looks: { ...looks, [at]: look as LineLook } });
              setPicked(null);
            })()
          }
          testID="look"
        />
      ) : null}
      {advice && (advice.do === 'turn' || advice.do === 'offset') ? (
        <ActionButton
          label={advice.do === 'turn' ? 'Turned: look again' : 'Set: look again'}
          kind="main"
          onPress={() =>
            steady(() =>
              onChange({
                ...bench,
                looks: {},
                rounds: [
                  ...rounds,
                  {
                    looks: whole!,
                    made:
                      advice.do === 'turn'
                        ? { do: 'turn', adjuster: advice.adjuster, turns: advice.turns }
                        : { do: 'offset', by: advice.by },
                  },
                ],
              }),
            )()
          }
          testID="skirt-made"
        />
      ) : null}
      {advice && (advice.do === 'done' || advice.do === 'level') && bed.machine ? (
        <Keep bed={bed} rounds={now} onKept={() => onChange({ ...BEGUN, bed: bench.bed })} />
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        <ActionButton
          label="Undo"
          kind="quiet"
          icon="back"
          disabled={rounds.length === 0 && Object.keys(looks).length === 0}
          onPress={() => onChange(undone(bench))}
          testID="skirt-undo"
        />
        {canSpeak() ? <ActionButton label="Say it" kind="quiet" onPress={say} testID="skirt-say" /> : null}
      </View>
    </View>
  );
}

/** The last look taken back; at the beginning of a round, the move before it. */
function undone({ bed, rounds, looks }: Bench): Bench {
  const looked = SKIRT_SIDES.filter((side) => looks[side] !== undefined);
  if (looked.length > 0) {
    const { [looked.at(-1)!]: _, ...rest } = looks;
    return { bed, rounds, looks: rest };
  }
  const last = rounds.at(-1)!;
  return { bed, rounds: rounds.slice(0, -1), looks: last.looks };
}

function Keep({ bed, rounds, onKept }: { bed: BenchBed; rounds: SkirtRound[]; onKept: () => void }) {
  const router = useRouter();
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const { machine, adjusters, print } = bed;
  if (!machine || !mayDo) return null;
  const keep = () => {
    const id = uuid();
    later(noteOperations.keepLevelNote, {
      params: { id },
      body: {
        machineId: machine.id,
        at: rightNow(),
        raw: {
          way: 'skirt',
          adjusters: [...adjusters],
          print,
          rounds,
        },
      },
      key: id,
      what: `${machine.name}: trimmed by its skirt`,
      at: `/floor/${machine.id}/level`,
    });
    onKept();
    router.push(`/floor/${machine.id}/level`);
  };
  return (
    <Section title="IT CAN BE KEPT">
      <Words size="small" tone="steel">
        Every look and every turn, as one level of this machine.
      </Words>
      <ActionButton label="Keep it" kind="main" onPress={keep} testID="skirt-keep" />
    </Section>
  );
}
