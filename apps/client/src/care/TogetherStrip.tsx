import type { Job } from '@even-bed/contract';
import { nextTogether, type TogetherRun } from '@even-bed/core/care/together';
import { phasesOf } from '@even-bed/core/care/runProcedure';
import { useRouter } from 'expo-router';
import { useEffect } from 'react';
import { Pressable, View } from 'react-native';
import { useAppDispatch, useAppSelector } from '../state/store';
import { Signal, type SignalKind } from '../ui/Signal';
import { TOUCH, usePalette } from '../ui/theme';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { jobApi, useJobsQuery } from './jobApi';
import { jobSeen, localEvents, setupOf, stateOf } from './jobsSlice';

/** The machines that are refitted alike: where each stands, whose card comes next. */
export function TogetherStrip({ job, now }: { job: Job; now: number }) {
  const router = useRouter();
  const palette = usePalette();
  const runs = useTogether(job);
  if (runs.length < 2) return null;
  const next = nextTogether(runs, job.id, now);
  return (
    <View
      style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}
      role="navigation"
      aria-label="Machines of this job"
      testID="together"
    >
      {runs.map(({ id, name, setup, state }) => {
        const phases = phasesOf(setup, state);
        const step = setup.procedure.steps.find((one) => one.id === state.at);
        const phase = phases.find((one) => one.id === step?.phase);
        const kind: SignalKind =
          state.at === null ? (state.ended === 'done' ? 'ready' : 'stop') : step?.timer ? 'hold' : 'due';
        const stands = state.at === null ? (state.ended ?? '') : (phase?.title ?? step?.title ?? '').toLowerCase();
        return (
          <Pressable
            key={id}
            role="link"
            aria-label={`${name}: ${stands}`}
            onPress={() => router.replace(`/jobs/${id}`)}
            testID={`together-${name}`}
            style={{
              minHeight: TOUCH,
              justifyContent: 'center',
              borderBottomWidth: 3,
              borderBottomColor: id === job.id ? palette.ink : id === next ? palette.accent : 'transparent',
            }}
          >
            <View style={{ flexDirection: 'row', gap: 6, alignItems: 'center' }}>
              <Signal kind={kind} />
              <Words bold={id === job.id}>{name}</Words>
              <Words size="small" tone="steel">
                {id === next && id !== job.id
                  ? 'next'
                  : state.at === null
                    ? stands
                    : `${phases.findIndex((one) => one.id === phase?.id) + 1}/${phases.length}`}
              </Words>
            </View>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Every job begun together with this one, as it stands here and now. */
function useTogether({ together, id }: Job): (TogetherRun & { name: string })[] {
  const dispatch = useAppDispatch();
  const { data: listed = [] } = useJobsQuery({ together: together ?? '' } as never, { skip: together === null });
  const ids = listed.map((entry) => entry.id).filter((one) => one !== id);
  const key = ids.sort().join(' ');
  // Each is fetched whole, so that it can be gone on with from here, also without a signal.
  useEffect(() => {
    if (key === '') return undefined;
    const asked = key.split(' ').map((one) => {
      const ask = dispatch(jobApi.endpoints.job.initiate({ id: one }));
      void ask.then(({ data }) => data && dispatch(jobSeen(data)));
      return ask;
    });
    return () => asked.forEach((ask) => ask.unsubscribe());
  }, [dispatch, key]);
  const jobs = useAppSelector((state) => state.jobs.jobs);
  const waiting = useAppSelector((state) => state.waiting.list);
  if (together === null) return [];
  return Object.values(jobs)
    .filter((one) => one.together === together)
    .sort((a, b) => a.machineName.localeCompare(b.machineName))
    .map((one) => ({
      id: one.id,
      name: one.machineName,
      setup: setupOf(one),
      state: stateOf(one, localEvents(one, waiting)),
    }));
}

/** Which of several machines the hands go to next, told where a job begins to wait or has ended. */
export const useNextTogether = (job: Job): { id: string; name: string } | null => {
  const runs = useTogether(job);
  const next = nextTogether(runs, job.id, rightNow());
  const run = runs.find(({ id }) => id === next);
  return run && run.id !== job.id ? { id: run.id, name: run.name } : null;
};
