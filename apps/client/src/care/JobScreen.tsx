import type { CautionId } from '@even-bed/core/care/cautions';
import { CAUTIONS } from '@even-bed/core/care/cautions';
import { cautionsSeen } from '@even-bed/core/care/cautionsSeen';
import { jobAsk, type JobFacts } from '@even-bed/core/care/jobSum';
import { undoEvents, type RunManner } from '@even-bed/core/care/runCard';
import { doingOf, phasesOf, secondsOf } from '@even-bed/core/care/runProcedure';
import { spokenCard } from '@even-bed/words/spoken';
import { timeTaken } from '@even-bed/words/span';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { ParkedHere } from '../state/ParkedHere';
import { useAppSelector } from '../state/store';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { ActionButton } from '../ui/ActionButton';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Icon } from '../ui/Icon';
import { TOUCH, useIsWide } from '../ui/theme';
import { useKeys } from '../ui/useKeys';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useSteadyTap } from '../ui/useSteadyTap';
import { CardLines } from './CardLines';
import { ExitDialog } from './ExitDialog';
import { HandsPart } from './HandsPart';
import { useProceduresQuery } from './jobApi';
import { JobTrail } from './JobTrail';
import { jobRecord } from './jobsSlice';
import { PhaseBar } from './PhaseBar';
import { useSwitch } from '../ui/deviceSwitch';
import { useRunManner } from './runManner';
import { hush, speak } from '../ui/speak';
import { sentenceOf } from './StepSum';
import { StepTimer } from './StepTimer';
import { TogetherStrip, useNextTogether } from './TogetherStrip';
import { useCard, type CardInHand } from './useCard';
import { useJob, type JobInHand } from './useJob';
import { useJobFacts } from './useJobFacts';
import { useKnock } from './useKnock';
import { useWakeLock } from './useWakeLock';
import { prose } from '../ui/prose';

type Beside = (machineId: string) => ReactNode;

/** Cautions that stop a hand; the others make it careful. */
const STOPS: readonly CautionId[] = ['once', 'knock', 'mains', 'insulate', 'glass'];

/** One job: the card in hand, and what was done so far; on a wide screen with its machine beside it. */
export function JobScreen({ beside }: { beside: Beside }) {
  const { jobId } = useLocalSearchParams<{ jobId: string }>();
  const { inHand, error, refetch } = useJob(jobId);
  const failure = errorOf(error);
  if (inHand) return <Running key={jobId} inHand={inHand} beside={beside} />;
  return (
    <Page title="A job" crumbs={[{ label: 'Jobs', href: '/jobs' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the job" />}
    </Page>
  );
}

function Running({ inHand, beside }: { inHand: JobInHand; beside: Beside }) {
  const { state } = inHand;
  useWakeLock(state.at !== null);
  // Of all cards together: a bounced tap on one must not press what stands there for the next.
  const steady = useSteadyTap();
  if (state.at === null) return <Ended inHand={inHand} />;
  // A new page for each card and each time it is entered: it begins at its top, and nothing typed for another one stays.
  // Not by the time of entering: the server may set that right, and what is typed meanwhile must not go.
  return <CardPage key={`${state.at} ${state.trail.length}`} inHand={inHand} steady={steady} beside={beside} />;
}

function CardPage({
  inHand,
  steady,
  beside,
}: {
  inHand: JobInHand;
  steady: ReturnType<typeof useSteadyTap>;
  beside: Beside;
}) {
  const wide = useIsWide();
  const now = useNow();
  const me = useAppSelector((state) => state.people.person);
  const mayDo = me?.role !== 'looker';
  const { job, setup, state } = inHand;
  const [manner, setManner] = useRunManner(me?.id ?? null, job.procedure.id);
  const facts = useJobFacts(job);
  const hand = useCard(inHand, manner, facts, steady);
  const { card, ask } = hand;
  const [leaving, setLeaving] = useState(false);
  const [wantsEyes, setWantsEyes] = useState(false);
  const main = mainAnswer(hand);
  /** A knock, a key, a pedal, a tap anywhere: never past what wants eyes. */
  const next = () => {
    if (!mayDo || leaving) return;
    if (hand.eyes) setWantsEyes(true);
    else hand.done(main?.id ?? null);
  };
  const [knocks] = useSwitch('knock');
  useKnock(knocks && mayDo, next);
  useKeys({ ArrowRight: next, PageDown: next });
  const say = useReadAloud(inHand, hand, facts);
  const phases = phasesOf(setup, state);
  const practised = manner === 'practised';
  const title = practised && card.phase && card.steps.length > 1 ? card.phase.title : card.steps[0]!.title;
  const tapAnywhere = card.bound && !hand.eyes && mayDo;
  const cautions = [...new Set(card.steps.flatMap((step) => step.cautions ?? []))];
  const lines = (
    <CardLines hand={hand} setup={setup} facts={facts} machineId={job.machineId} jobId={job.id} manner={manner} />
  );
  return (
    <Page
      title={title}
      crumbs={[{ label: `${job.machineName} · ${job.title}`, href: `/floor/${job.machineId}` }]}
      state={<MannerSwitch practised={practised} onChange={setManner} />}
      actions={
        mayDo ? (
          <>
            <ActionButton
              label={card.bound ? 'Not so' : 'Can’t'}
              grow={!main && ask !== undefined}
              onPress={() => setLeaving(true)}
              testID="cant"
            />
            {ask && !main ? null : (
              <ActionButton
                label={main?.label ?? 'Done'}
                kind="main"
                grow
                onPress={() => hand.done(main?.id ?? null)}
                testID={main ? `answer-${main.id}` : 'step-done'}
              />
            )}
          </>
        ) : undefined
      }
      testID="job"
    >
      {phases.length > 0 ? (
        <PhaseBar phases={phases} at={phases.findIndex(({ id }) => id === card.steps[0]!.phase)} />
      ) : null}
      <ParkedHere of={jobRecord(job.id)} />
      {card.bound ? null : <TogetherStrip job={job} now={now} />}
      <View style={wide ? { flexDirection: 'row', gap: 40, alignItems: 'flex-start' } : { gap: 24 }}>
        <View style={wide ? { flex: 1, minWidth: 0, maxWidth: 620 } : {}}>
          <View style={{ gap: 16 }} testID={`card-${card.steps[0]!.id}`}>
            <CardCautions
              key={card.steps[0]!.id}
              ids={cautions}
              seen={practised || card.bound ? new Set(cautions) : cautionsSeen(setup, state, now)}
            />
            {tapAnywhere ? (
              <Pressable onPress={next} role="none" testID="tap-anywhere" style={{ gap: 16, minHeight: 320 }}>
                {lines}
                <Words size="small" tone="steel">
                  {`Hands full: tap anywhere here${knocks ? ', or knock twice,' : ''} when ${main ? `it is so: ${main.label.toLowerCase()}` : 'it is done'}.`}
                </Words>
              </Pressable>
            ) : (
              lines
            )}
            <StepTimer inHand={inHand} />
            {hand.restUsual ? (
              <View style={{ alignSelf: 'flex-start' }}>
                <ActionButton
                  label={restWords(hand.card.steps.map(({ sum }) => sum))}
                  onPress={hand.restUsual}
                  testID="rest-usual"
                />
              </View>
            ) : null}
            {card.steps.some(({ photo }) => photo) && mayDo ? (
              <Words size="small" tone="steel">
                A photo of this is worth having: below.
              </Words>
            ) : null}
            {hand.refusal ? (
              <Words tone="stop" bold live testID="refusal">
                {hand.refusal.message}
              </Words>
            ) : null}
            {wantsEyes && !hand.refusal ? (
              <Words tone="due" bold live testID="wants-eyes">
                This wants your eyes: tick, type or answer it on the screen.
              </Words>
            ) : null}
            {mayDo && ask && !card.bound ? (
              <View style={{ gap: 12 }}>
                <Words size="lead" bold>
                  {ask.question}
                </Words>
                {ask.answers
                  .filter(({ id }) => id !== main?.id)
                  .map(({ id, label }) => (
                    <ActionButton key={id} label={label} onPress={() => hand.done(id)} testID={`answer-${id}`} />
                  ))}
              </View>
            ) : null}
          </View>
        </View>
        <View style={wide ? { width: 340, gap: 24 } : { gap: 24 }}>
          {wide ? beside(job.machineId) : null}
          <JobTrail inHand={inHand} now={now} mayDo={mayDo} onUndo={hand.undo} />
          {mayDo ? <HandsPart onSay={say} /> : null}
        </View>
      </View>
      <ExitDialog open={leaving} hand={hand} onClose={() => setLeaving(false)} />
    </Page>
  );
}

/** Which manner it is worked in; a tap takes the other. */
function MannerSwitch({ practised, onChange }: { practised: boolean; onChange: (manner: RunManner) => void }) {
  return (
    <Pressable
      role="button"
      aria-label={practised ? 'Practised: work it step by step' : 'Step by step: work it as practised hands do'}
      onPress={() => onChange(practised ? 'step-by-step' : 'practised')}
      testID="manner"
      style={{ minHeight: TOUCH, justifyContent: 'center', paddingLeft: 12, flexShrink: 0 }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Words size="small" bold>
          {practised ? 'practised' : 'step by step'}
        </Words>
        <Icon name="down" size={18} />
      </View>
    </Pressable>
  );
}

/**
 * Cautions above the doing: what stops a hand in full; what makes it careful in a line, where it was read in this job
 * already or hands are practised.
 */
function CardCautions({ ids, seen }: { ids: readonly CautionId[]; seen: ReadonlySet<CautionId> }) {
  const [open, setOpen] = useState(false);
  const stops = ids.filter((id) => STOPS.includes(id));
  const careful = ids.filter((id) => !STOPS.includes(id));
  const [known, fresh] = [careful.filter((id) => seen.has(id)), careful.filter((id) => !seen.has(id))];
  // Paper can't be unfolded.
  useEffect(() => {
    if (typeof window === 'undefined' || !window.addEventListener) return undefined;
    const unfold = () => setOpen(true);
    window.addEventListener('beforeprint', unfold);
    return () => window.removeEventListener('beforeprint', unfold);
  }, []);
  const folded = known.length > 0 && !open;
  const whole = open ? careful : fresh;
  return (
    <>
      {stops.map((id) => (
        <Notice key={id} kind="stop" title={CAUTIONS[id].title} testID={`caution-${id}`}>
          {prose(CAUTIONS[id].text)}
        </Notice>
      ))}
      {folded ? (
        <Pressable
          role="button"
          aria-expanded={false}
          aria-label={`${known.map((id) => CAUTIONS[id].title).join(', ')}: read them`}
          onPress={() => setOpen(true)}
          testID="cautions"
        >
          <Notice kind="due" title={known.map((id) => CAUTIONS[id].title).join(' · ')} />
        </Pressable>
      ) : null}
      {whole.map((id) => (
        <Notice key={id} kind="due" title={CAUTIONS[id].title} testID={`caution-${id}`}>
          {prose(CAUTIONS[id].text)}
        </Notice>
      ))}
    </>
  );
}

/**
 * The answer that the one large button gives: what proves, or that it lies; where a sum could not say it, or all are alike,
 * none is nudged.
 */
function mainAnswer({ ask, card }: CardInHand) {
  if (!ask) return null;
  const first = ask.answers[0];
  if (!first) return null;
  if (ask.answers.some(({ when }) => when !== undefined)) return null;
  return card.bound || first.proves || ask.answers.length <= 2 ? first : null;
}

/** Reads the card aloud when it comes up, where the device is told to. @returns says it again */
function useReadAloud({ setup, timer }: JobInHand, hand: CardInHand, facts: JobFacts | null): () => void {
  const [aloud] = useSwitch('read-aloud');
  const { card, ask, ahead } = hand;
  const texts = spokenCard({
    cautions: [...new Set(card.steps.flatMap((step) => step.cautions ?? []))],
    doings: card.steps.map((step) => doingOf(step, setup.choices)),
    sums: facts
      ? card.steps.flatMap((step) => {
          const asked = jobAsk(setup, ahead, step, facts);
          const said = asked ? sentenceOf(asked) : null;
          return said === null ? [] : [said];
        })
      : [],
    wait: timer?.until != null ? timeTaken(secondsOf(card.steps[0]!.timer!.least!, setup)) : null,
    checks: card.steps.flatMap(({ gate }) => gate?.checks ?? []),
    question: ask?.question ?? null,
  });
  const all = texts.join('\n');
  const say = () => speak(texts, document.documentElement.lang || 'en');
  useEffect(() => {
    if (aloud) speak(all.split('\n'), document.documentElement.lang || 'en');
    return hush;
    // Said when it comes up and when a sum of it changes; not at every drawing.
  }, [aloud, all]);
  return say;
}

function Ended({ inHand }: { inHand: JobInHand }) {
  const router = useRouter();
  const now = useNow();
  const role = useAppSelector((state) => state.people.person?.role);
  const [undone, setUndone] = useState<string | null>(null);
  const { job, state, take } = inHand;
  const { data: procedures = [] } = useProceduresQuery();
  const then = useNextTogether(job);
  const { data: machine } = useKnownMachine(job.machineId);
  const follows = procedures.filter(
    ({ id, family }) => job.procedure.then?.includes(id) && machine && (family === 'any' || family === machine.family),
  );
  const last = state.trail.at(-1);
  return (
    <Page
      title={job.title}
      crumbs={[{ label: job.machineName, href: `/floor/${job.machineId}` }]}
      actions={
        then ? (
          <ActionButton
            label={`On with ${then.name}`}
            kind="main"
            grow
            onPress={() => router.replace(`/jobs/${then.id}`)}
            testID="to-next"
          />
        ) : (
          <ActionButton label="To the bench" kind="main" grow onPress={() => router.push('/bench')} testID="to-bench" />
        )
      }
      testID="job-ended"
    >
      <TogetherStrip job={job} now={now} />
      <Signal kind={state.ended === 'done' ? 'ready' : 'stop'} word={state.ended === 'done' ? 'Done' : 'Stopped'} />
      <Words size="turn" bold testID="ended-words">
        {state.ended === 'done'
          ? `${job.title} on ${job.machineName} is done.`
          : 'It ended before its end. What was done is written down.'}
      </Words>
      {state.ended === 'done' && follows.length > 0 ? (
        <Section title="WHAT FOLLOWS">
          {follows.map(({ id, title, minutes }) => (
            <Row
              key={id}
              href={`/jobs/new?procedure=${id}&machine=${job.machineId}`}
              end={
                <Words size="small" tone="steel">
                  {`${minutes} min`}
                </Words>
              }
              testID={`then-${id}`}
            >
              <Words>{title}</Words>
            </Row>
          ))}
        </Section>
      ) : null}
      {last && role !== 'looker' ? (
        <Section title="A SLIP?">
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label="Undo the last step"
              kind="quiet"
              icon="back"
              onPress={() => setUndone(take(undoEvents(state, rightNow()))?.message ?? null)}
              testID="undo-step"
            />
          </View>
          {undone ? <Words tone="stop">{undone}</Words> : null}
        </Section>
      ) : null}
      <JobTrail inHand={inHand} now={now} mayDo={false} onUndo={() => null} />
    </Page>
  );
}

/** What is said of everything that was not said yet, at once. */
const restWords = (sums: readonly (string | undefined)[]) =>
  sums.includes('tugs')
    ? 'The others come with effort'
    : sums.includes('pieces')
      ? 'The others held'
      : sums.includes('lap')
        ? 'The others are scratched all over'
        : 'No light on the others';
