import type { LevelCheck, LevelRound, MadeTurn } from '@even-bed/contract';
import { feltHistory } from '@even-bed/core/level/feltText';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMachineQuery } from '../fleet/fleetApi';
import { newEntry } from './newDraft';
import { plateOf } from '../fleet/machineState';
import { useAppDispatch, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { Figure } from '../ui/Figure';
import { length, lengthFigure } from '../ui/formatHeight';
import { dayAndTime, longDay } from '../ui/formatTime';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { SPACE, useIsWide } from '../ui/theme';
import { Words } from '../ui/Words';
import { checkBegun, partKeys, type CheckDraft } from './levelSlice';
import { turnWords, viewWords } from './planWords';
import { useReckoning } from './useReckoning';

const SOURCES: Record<LevelRound['source'], string> = {
  machine: 'from the machine',
  pasted: 'pasted',
  file: 'from a file',
  typed: 'typed',
  felt: 'by feel',
};

/** A check as the server keeps it: readings, plans and turns; one still open can be taken over on this device. */
export function CheckRecord({ check }: { check: LevelCheck }) {
  const dispatch = useAppDispatch();
  const router = useRouter();
  // A check that was begun from a job leads back to it.
  const { job: jobId } = useLocalSearchParams<{ job?: string }>();
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  const wide = useIsWide();
  const { data: machine } = useMachineQuery({ id: check.machineId });
  const { roundList, setup } = check;
  const [shown, setShown] = useState<string | null>(null);
  const round = roundList.find(({ id }) => id === shown) ?? roundList.at(-1);
  const state = useReckoning({ now: round ? { raw: round.raw, reading: round.reading } : null, setup });
  const reckoning = state.kind === 'done' ? state.reckoning : null;
  // By feel, screws are turned between the touches: what was turned is part of the reading itself.
  const turned = round ? turnedIn(round) : [];
  const within = check.after !== null && check.after <= check.aim;
  const nameOf = (id: string) => machine?.adjusters.find((adjuster) => adjuster.id === id)?.name ?? id;
  const takeOver = () => {
    if (machine) dispatch(checkBegun(draftOf(check, machine, personId)));
  };

  const picture =
    machine && round && reckoning ? (
      <BedPlan
        plate={plateOf(machine)}
        points={reckoning.parsed.points}
        contours={reckoning.contours}
        aim={setup.aim}
        adjusters={setup.adjusters.map(({ id, x, y, motor }) => {
          const made = turned.find(({ adjusterId }) => adjusterId === id);
          // Where nothing was turned there is nothing to show on a dial.
          const seen = motor ? (made?.turns ?? 0) : turnsAsSeen(made?.turns ?? 0, setup.seenFrom);
          const turns = turned.length === 0 ? undefined : seen;
          return { id, x, y, turns, motor: motor === true };
        })}
        maxHeight={wide ? 460 : 380}
        label={`Reading ${round.seq}, range ${length(round.plan.before.range)}`}
      />
    ) : null;

  return (
    <Page
      title={
        check.outcome === null
          ? 'Level check, under way'
          : check.outcome === 'dropped'
            ? 'Level check, dropped'
            : within
              ? 'Levelled, within the aim'
              : 'Checked, over the aim'
      }
      crumbs={[{ label: check.machineName, href: `/floor/${check.machineId}` }]}
      state={
        check.outcome === 'finished' ? (
          <Signal kind={within ? 'ready' : 'due'} word={within ? 'Within aim' : 'Over aim'} />
        ) : undefined
      }
      testID="check-record"
      actions={
        check.outcome === null ? (
          <ActionButton
            label="Go on with it here"
            kind="main"
            grow
            disabled={!machine}
            onPress={takeOver}
            testID="take-over"
          />
        ) : jobId !== undefined ? (
          <ActionButton
            label="Back to the job"
            kind="main"
            grow
            onPress={() => router.push(`/jobs/${jobId}`)}
            testID="back-to-job"
          />
        ) : undefined
      }
    >
      <Words tone="steel">{`${longDay(check.startedAt)}${check.note ? `. ${check.note}` : ''}`}</Words>
      <View style={wide ? { flexDirection: 'row', gap: 40 } : { gap: SPACE.m }}>
        <View style={{ gap: SPACE.m, ...(wide ? { flex: 1.3 } : {}) }}>
          {roundList.length > 1 ? (
            <Choice
              label="Reading"
              hideLabel
              options={roundList.map(({ id, seq, plan }) => ({
                value: id,
                label: `${seq}: ${length(plan.before.range)}`,
              }))}
              value={round?.id ?? null}
              onChange={setShown}
            />
          ) : null}
          {picture}
        </View>
        <View style={{ gap: SPACE.m, ...(wide ? { flex: 1 } : {}) }}>
          {check.before === null ? (
            <Words>No reading was taken.</Words>
          ) : (
            <View style={{ flexDirection: 'row', justifyContent: 'space-between', maxWidth: 420 }}>
              <Figure label="First" value={lengthFigure(check.before)} />
              <Figure label="Last" value={lengthFigure(check.after!)} testID="record-after" />
              <Figure label="Aim" value={lengthFigure(check.aim, 3).replace(/0$/, '')} tone="steel" />
            </View>
          )}
          {machine?.rule && check.outcome === 'finished' && machine.lastCheck?.id === check.id ? (
            <Words testID="record-next">{`Next check: ${longDay(machine.rule.nextDueAt)}.`}</Words>
          ) : null}
          {round ? (
            <Section title={`READING ${round.seq}, ${SOURCES[round.source].toUpperCase()}`}>
              <Words size="small" tone="steel">{`${dayAndTime(round.takenAt)}, ${round.points} places`}</Words>
              {turned.length === 0 ? (
                <Words>{round.source === 'felt' ? 'No screw was turned.' : 'Nothing was turned after it.'}</Words>
              ) : (
                turned
                  .filter(({ turns }) => turns !== 0)
                  .map(({ adjusterId, turns }) => (
                    <Words
                      key={adjusterId}
                    >{`${nameOf(adjusterId)}: ${setup.adjusters.find(({ id }) => id === adjusterId)?.motor ? turnWords(turns, setup.seenFrom, true) : `${turnWords(turns, setup.seenFrom)}, ${viewWords(setup.seenFrom)}`}`}</Words>
                  ))
              )}
            </Section>
          ) : null}
        </View>
      </View>
    </Page>
  );
}

/** A check that another device began, as a draft of this one: everything the server has counts as sent. */
function draftOf(check: LevelCheck, machine: Parameters<typeof newEntry>[0], personId: string | null): CheckDraft {
  const last = check.roundList.at(-1);
  return {
    id: check.id,
    personId,
    machineId: check.machineId,
    machineName: machine.name,
    areaName: machine.areaName,
    startedAt: check.startedAt,
    setup: check.setup,
    adjusterNames: Object.fromEntries(machine.adjusters.map(({ id, name }) => [id, name])),
    plate: plateOf(machine),
    hasConsole: machine.console !== null,
    stage: last && last.madeAt === null ? 'turning' : 'reading',
    entry: { ...newEntry(machine), ...(last ? { reading: last.reading } : {}) },
    rounds: check.roundList.map(({ id, seq, takenAt, source, raw, reading, plan, madeAt, made }, i) => ({
      id,
      range: plan.before.range,
      seq,
      takenAt,
      source,
      raw,
      reading,
      ticked: [],
      made: madeAt !== null || i < check.roundList.length - 1 ? made : null,
      madeAt,
    })),
    note: '',
    end: null,
    sent: [
      partKeys.start(check.id),
      ...check.roundList.map(({ id }) => partKeys.round(id)),
      ...check.roundList.filter(({ madeAt }) => madeAt !== null).map(({ id }) => partKeys.turns(id)),
    ],
  };
}

/** What was turned in a round, turns of each adjuster: after it was read, or between the touches of one that was felt. */
function turnedIn({ source, raw, made }: LevelRound): MadeTurn[] {
  const history = source === 'felt' ? (feltHistory(raw)?.history ?? []) : [];
  const sums = new Map(made.map(({ adjusterId, turns }) => [adjusterId, turns]));
  for (const event of history)
    if (event.do === 'turn') sums.set(event.adjuster, (sums.get(event.adjuster) ?? 0) + event.turns);
  return [...sums].map(([adjusterId, turns]) => ({ adjusterId, turns }));
}
