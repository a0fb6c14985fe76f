import type { Reckoning } from '@even-bed/core';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Field } from '../ui/Field';
import { Figure } from '../ui/Figure';
import { length, lengthFigure, lengthUnit, fineUnit } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { SPACE, useIsWide } from '../ui/theme';
import { useKeys } from '../ui/useKeys';
import { Words } from '../ui/Words';
import { Refusal } from './CheckSending';
import { DropCheck } from './DropCheck';
import { checkEnded, noteChanged, readingReturnedTo, turnsMade, turnTicked, type CheckDraft } from './levelSlice';
import { PastChecks } from './PastChecks';
import { answerWords as answerWordsOf, planHeadline, viewWords, whatStays } from './planWords';
import { ReversedAnswer } from './ReversedAnswer';
import { RoundList } from './RoundList';
import { TakenAsLearned } from './TakenAsLearned';
import { TurnList } from './TurnList';
import { useReckoning } from './useReckoning';

/** The plan that follows from the newest reading: which adjuster to turn, which way and how far. */
export function PlanTurns({ draft }: { draft: CheckDraft }) {
  const round = draft.rounds.at(-1)!;
  const before = draft.rounds.at(-2);
  const state = useReckoning({
    now: { raw: round.raw, reading: round.reading },
    setup: draft.setup,
    previous: before?.made?.length ? { raw: before.raw, reading: before.reading, made: before.made } : undefined,
  });
  const crumbs = [{ label: `${draft.machineName} · ${draft.areaName}`, href: `/floor/${draft.machineId}` as const }];
  if (state.kind === 'done' && state.reckoning.plan)
    return <Planned draft={draft} crumbs={crumbs} reckoning={state.reckoning} />;
  return (
    <Page title="Level check" crumbs={crumbs}>
      {state.kind === 'failed' ? (
        <Notice kind="stop" title="These heights can’t be used">
          {state.message}
        </Notice>
      ) : (
        <Loading what="the plan" />
      )}
    </Page>
  );
}

function Planned({
  draft,
  crumbs,
  reckoning,
}: {
  draft: CheckDraft;
  crumbs: { label: string; href: `/floor/${string}` }[];
  reckoning: Reckoning;
}) {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const wide = useIsWide();
  const { id, setup } = draft;
  const round = draft.rounds.at(-1)!;
  const plan = reckoning.plan!;
  const { comparison } = reckoning;
  const [kept, setKept] = useState(false);
  const reversed = comparison?.answer === 'reversed' && !kept;
  const noted = round.made !== null;
  const ticked = new Set(
    noted ? round.made!.filter(({ turns }) => turns !== 0).map(({ adjusterId }) => adjusterId) : round.ticked,
  );
  const toMake = plan.order;
  const open = toMake.filter((adjusterId) => !ticked.has(adjusterId));

  const goOn = (which: readonly string[]) => {
    if (noted) return dispatch(readingReturnedTo({ id }));
    const made = plan.turns
      .filter((turn) => which.includes(turn.id))
      .map(({ id: adjusterId, said }) => ({ adjusterId, turns: said }));
    dispatch(turnsMade({ id, made, madeAt: Date.now() }));
  };
  const madeAll = () => goOn(toMake);
  const measure = () => goOn([...ticked]);
  const finish = () =>
    dispatch(checkEnded({ id, end: { endedAt: Date.now(), outcome: 'finished', note: draft.note.trim() } }));
  const tick = (adjusterId: string) => dispatch(turnTicked({ id, adjusterId }));
  const within = plan.verdict === 'within';
  const nothing = toMake.length === 0;
  useKeys({
    t: () => !nothing && !reversed && madeAll(),
    m: measure,
    // One key must not end a check that still has turns to make, nor tick turns that are not shown.
    e: () => within && !reversed && finish(),
    ...(reversed ? {} : Object.fromEntries(toMake.map((adjusterId, i) => [String(i + 1), () => tick(adjusterId)]))),
  });

  const caption = (
    <Words size="small" tone="steel">
      {`${reckoning.parsed.points.length} readings in ${fineUnit()} about their mean, + higher. Contours every ${length(reckoning.contours?.step ?? 0)}. Turns seen ${viewWords(setup.seenFrom)}.`}
    </Words>
  );
  const picture = (
    <View style={{ gap: 4 }}>
      <BedPlan
        plate={draft.plate}
        points={reckoning.parsed.points}
        contours={reckoning.contours}
        aim={setup.aim}
        adjusters={setup.adjusters.map(({ id: adjusterId, x, y, motor }) => ({
          id: adjusterId,
          x,
          y,
          turns: reversed
            ? undefined
            : motor
              ? plan.turns.find((turn) => turn.id === adjusterId)!.said
              : turnsAsSeen(plan.turns.find((turn) => turn.id === adjusterId)!.said, setup.seenFrom),
          motor: motor === true,
          made: ticked.has(adjusterId),
        }))}
        maxHeight={wide ? 520 : 300}
        label={`Heights of the bed from ${reckoning.parsed.points.length} readings, range ${length(plan.before.range)}. ${planHeadline(plan)}.`}
        testID="bed-plan"
      />
      {wide ? caption : null}
      <TakenAsLearned draft={draft} />
    </View>
  );
  const figures = (
    <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12 }}>
      <Figure
        label="Now"
        value={lengthFigure(plan.before.range)}
        unit={wide ? undefined : lengthUnit()}
        testID="range-now"
      />
      {within ? null : <Figure label="After the turns" value={lengthFigure(plan.after.range)} testID="range-after" />}
      <Figure label="Aim" value={lengthFigure(setup.aim, 3).replace(/0$/, '')} tone="steel" />
    </View>
  );
  const actions = reversed ? (
    <ActionButton label="Measure again" icon="measure" grow onPress={measure} testID="measure-again" />
  ) : nothing ? (
    <>
      <ActionButton label="Measure again" icon="measure" onPress={measure} testID="measure-again" />
      <ActionButton label={within ? 'Finish' : 'Finish as it is'} kind="main" grow onPress={finish} testID="finish" />
    </>
  ) : (
    <>
      <ActionButton label="Measure again" onPress={measure} testID="measure-again" />
      {ticked.size > 0 && open.length > 0 ? (
        <ActionButton
          label={`I made ${ticked.size} of ${toMake.length}`}
          kind="main"
          grow
          onPress={measure}
          testID="turns-made"
        />
      ) : (
        <ActionButton label="I have made these turns" kind="main" grow onPress={madeAll} testID="turns-made" />
      )}
    </>
  );

  const work = (
    <View style={{ gap: SPACE.m }}>
      <Refusal draft={draft} />
      {reversed ? (
        <ReversedAnswer draft={draft} comparison={comparison} onKeep={() => setKept(true)} />
      ) : comparison ? (
        <AnswerNote comparison={comparison} names={draft.adjusterNames} />
      ) : null}
      {reckoning.doubts.map((doubt) => (
        <Notice key={doubt} kind="due" title={doubt} />
      ))}
      {reversed ? null : figures}
      {nothing || reversed ? null : <TurnList plan={plan} draft={draft} ticked={ticked} locked={noted} onTick={tick} />}
      {wide ? <View style={{ flexDirection: 'row', flexWrap: 'wrap-reverse', gap: 12 }}>{actions}</View> : null}
      {wide || reversed ? null : caption}
      {reversed ? null : (
        <Words tone="steel" testID="what-stays">
          {whatStays(plan)}
        </Words>
      )}
      {nothing || reversed ? null : (
        <Words size="small" tone="steel">
          Bed and nozzle may be hot. Motors off, or jog; the sheet stays on.
        </Words>
      )}
      <Field
        label="Note for the book (optional)"
        value={draft.note}
        onChange={(note) => dispatch(noteChanged({ id, note }))}
        testID="check-note"
      />
    </View>
  );
  const aside = (
    <View style={{ gap: SPACE.m }}>
      <RoundList draft={draft} />
      <PastChecks machineId={draft.machineId} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton label="Leave it for later" kind="quiet" onPress={() => router.push('/bench')} testID="leave" />
        {nothing ? null : <ActionButton label="Finish as it is" kind="quiet" onPress={finish} testID="finish-as-is" />}
        <DropCheck draft={draft} />
      </View>
    </View>
  );
  return (
    <Page
      title={reversed ? 'Stop: the bed moved the other way' : planHeadline(plan)}
      crumbs={crumbs}
      testID="plan-turns"
      state={<Words size="small" tone="steel">{`reading ${round.seq}`}</Words>}
      actions={wide ? undefined : actions}
    >
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 32, alignItems: 'flex-start' }}>
          <View style={{ flex: 1.5 }}>{picture}</View>
          <View style={{ flex: 1.15, gap: SPACE.m }}>{work}</View>
          <View style={{ flex: 0.9 }}>{aside}</View>
        </View>
      ) : (
        <>
          {reversed ? null : picture}
          {work}
          {reversed ? picture : null}
          {reversed ? caption : null}
          {aside}
        </>
      )}
    </Page>
  );
}

function AnswerNote({
  comparison,
  names,
}: {
  comparison: NonNullable<Reckoning['comparison']>;
  names: Record<string, string>;
}) {
  const words = answerWordsOf(comparison, (id) => names[id] ?? id);
  return words ? (
    <Notice kind="due" title={words.title} testID="answer-note">
      {words.text}
    </Notice>
  ) : null;
}
