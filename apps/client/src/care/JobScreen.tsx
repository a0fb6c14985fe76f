import type { ProcedureStep } from '@even-bed/core/care/procedure';
import { stepOf } from '@even-bed/core/care/runProcedure';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { usePalette, useIsWide } from '../ui/theme';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useSteadyTap } from '../ui/useSteadyTap';
import { JobTrail } from './JobTrail';
import { StepCard, useStepCard } from './StepCard';
import { useJob, type JobInHand } from './useJob';
import { useWakeLock } from './useWakeLock';

type Beside = (machineId: string) => ReactNode;

/** One job: the step in hand, and what was done so far; on a wide screen with its machine beside it. */
export function JobScreen({ beside }: { beside: Beside }) {
  const { jobId } = useLocalSearchParams<{ jobId: string }>();
  const { inHand, error, refetch } = useJob(jobId);
  const failure = errorOf(error);
  if (inHand) return <Running inHand={inHand} beside={beside} />;
  return (
    <Page title="A job" crumbs={[{ label: 'Jobs', href: '/jobs' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the job" />}
    </Page>
  );
}

function Running({ inHand, beside }: { inHand: JobInHand; beside: Beside }) {
  const { state, setup } = inHand;
  useWakeLock(state.at !== null);
  // Of all steps together: a bounced tap on one must not press what stands there for the next.
  const steady = useSteadyTap();
  if (state.at === null) return <Ended inHand={inHand} />;
  // A new page for each step and each time it is entered: it begins at its top, and nothing typed for another one stays.
  // Not by the time of entering: the server may set that right, and what is typed meanwhile must not go.
  return (
    <StepPage
      key={`${state.at} ${state.trail.length}`}
      step={stepOf(setup, state)}
      inHand={inHand}
      steady={steady}
      beside={beside}
    />
  );
}

function StepPage({
  step,
  inHand,
  steady,
  beside,
}: {
  step: ProcedureStep;
  inHand: JobInHand;
  steady: ReturnType<typeof useSteadyTap>;
  beside: Beside;
}) {
  const wide = useIsWide();
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const card = useStepCard(step, inHand, steady);
  const { job, progress } = inHand;
  return (
    <Page
      title={step.title}
      crumbs={[{ label: `${job.machineName} · ${job.title}`, href: `/floor/${job.machineId}` }]}
      state={
        <Words size="small" tone="steel" testID="progress">
          {progress.at > 0 ? `${progress.at} of ${progress.of}` : 'aside'}
        </Words>
      }
      actions={
        mayDo ? (
          <>
            <ActionButton label="Can’t" grow={step.ask !== undefined} onPress={card.openCant} testID="cant" />
            {step.ask ? null : (
              <ActionButton label="Done" kind="main" grow onPress={() => card.done(null)} testID="step-done" />
            )}
          </>
        ) : undefined
      }
      testID="job"
    >
      <Segments {...progress} />
      <View style={wide ? { flexDirection: 'row', gap: 40, alignItems: 'flex-start' } : { gap: 24 }}>
        <View style={wide ? { flex: 1, minWidth: 0, maxWidth: 620 } : {}}>
          <StepCard step={step} inHand={inHand} mayDo={mayDo} card={card} />
        </View>
        <View style={wide ? { width: 340, gap: 24 } : {}}>
          {wide ? beside(job.machineId) : null}
          <JobTrail inHand={inHand} now={now} mayDo={mayDo} />
        </View>
      </View>
    </Page>
  );
}

/** The straight way in segments: done, in hand, to come. */
function Segments({ at, of }: { at: number; of: number }) {
  const palette = usePalette();
  return (
    <View
      style={{ flexDirection: 'row', gap: 3 }}
      role="progressbar"
      aria-valuenow={at}
      aria-valuemin={0}
      aria-valuemax={of}
      aria-label={`Step ${at} of ${of}`}
    >
      {Array.from({ length: of }, (_, i) => (
        <View
          key={i}
          style={{
            flex: 1,
            height: i + 1 === at ? 11 : 7,
            backgroundColor: i + 1 < at ? palette.ink : i + 1 === at ? palette.accent : palette.hairline,
          }}
        />
      ))}
    </View>
  );
}

function Ended({ inHand }: { inHand: JobInHand }) {
  const router = useRouter();
  const now = useNow();
  const role = useAppSelector((state) => state.people.person?.role);
  const [undone, setUndone] = useState<string | null>(null);
  const { job, state, take } = inHand;
  const last = state.trail.at(-1);
  return (
    <Page
      title={job.title}
      crumbs={[{ label: job.machineName, href: `/floor/${job.machineId}` }]}
      actions={
        <ActionButton label="To the bench" kind="main" grow onPress={() => router.push('/bench')} testID="to-bench" />
      }
      testID="job-ended"
    >
      <Signal kind={state.ended === 'done' ? 'ready' : 'stop'} word={state.ended === 'done' ? 'Done' : 'Stopped'} />
      <Words size="turn" bold testID="ended-words">
        {state.ended === 'done'
          ? `${job.title} on ${job.machineName} is done.`
          : 'It ended before its end. What was done is written down.'}
      </Words>
      {last && role !== 'looker' ? (
        <Section title="A SLIP?">
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label="Undo the last step"
              kind="quiet"
              icon="back"
              onPress={() => setUndone(take({ kind: 'undone', at: rightNow(), stepId: last.stepId })?.message ?? null)}
              testID="undo-step"
            />
          </View>
          {undone ? <Words tone="stop">{undone}</Words> : null}
        </Section>
      ) : null}
      <JobTrail inHand={inHand} now={now} mayDo={false} />
    </Page>
  );
}
