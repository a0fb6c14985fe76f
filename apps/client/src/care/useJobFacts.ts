import type { Job, LevelNote, Plan, Surface } from '@even-bed/contract';
import type { JobFacts, PartFacts } from '@even-bed/core/care/jobSum';
import type { FoundLayer } from '@even-bed/core/care/stackAfter';
import { useEffect, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import { usePlansQuery } from '../fit/fitApi';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useLevelNotesQuery, useZeroQuery } from '../level/noteApi';
import { useAppDispatch, useAppSelector } from '../state/store';
import { surfacesApi, useStackQuery } from '../surfaces/surfacesApi';

const NO_NOTES: LevelNote[] = [];

/** What the shop's records know for the sums and readings of a job; null until its machine is known. */
export function useJobFacts(job: Job): JobFacts | null {
  const { data: machines = [] } = useMachinesQuery();
  const { data: stack } = useStackQuery({ id: job.machineId });
  const { data: plans = [] } = usePlansQuery({ machineId: job.machineId });
  const resin = machines.some(({ id, family }) => id === job.machineId && family === 'resin');
  const { data: zero } = useZeroQuery({ id: job.machineId }, { skip: !resin });
  const { data: notes = NO_NOTES } = useLevelNotesQuery({ machineId: job.machineId, limit: 1 }, { skip: !resin });
  const surfaces = useSurfacesById(Object.values(job.parts));
  const machine = machines.find(({ id }) => id === job.machineId);
  return useMemo((): JobFacts | null => {
    if (!machine) return null;
    const [thread] = machine.adjusters.map((adjuster) => adjuster.thread);
    const alike = machine.adjusters.every((adjuster) => adjuster.thread === thread);
    const { lastCheck } = machine;
    const planOf = (tool: Plan['tool']) => plans.find((plan) => plan.tool === tool);
    const stackPlan = planOf('stack') as Plan<'stack'> | undefined;
    const underPlan = planOf('underbed') as Plan<'underbed'> | undefined;
    const soakPlan = planOf('soak') as Plan<'soak'> | undefined;
    return {
      family: machine.family,
      finding: machine.finding,
      plate: { width: machine.plateWidth, depth: machine.plateDepth },
      print: { x: machine.originX, y: machine.originY, width: machine.printWidth, depth: machine.printDepth },
      platformKey: machine.platformKey ?? null,
      thread: alike && thread !== undefined && thread !== 'other' ? thread : null,
      pitch: alike ? (machine.adjusters[0]?.pitch ?? null) : null,
      z: stackPlan ? zOf(stackPlan) : null,
      underbed: underPlan?.input ?? null,
      heater: soakPlan ? heaterOf(soakPlan) : null,
      stack: job.stackBefore,
      current: (stack?.layers ?? job.stackBefore) as FoundLayer[],
      parts: Object.fromEntries(
        Object.entries(job.parts).flatMap(([part, id]) => {
          const surface = surfaces.find((one) => one.id === id);
          return surface ? [[part, partOf(surface)]] : [];
        }),
      ),
      level:
        lastCheck && lastCheck.endedAt > job.startedAt ? { range: lastCheck.after, within: lastCheck.withinAim } : null,
      proven: zero?.stands.state === 'stands' && notes[0]?.result.verdict === 'even',
    };
  }, [machine, zero, notes, plans, stack, surfaces, job.parts, job.stackBefore, job.startedAt]);
}

function zOf({ input }: Plan<'stack'>): NonNullable<JobFacts['z']> {
  const { finding, moves, home, adjusters, spacerLayer, slack } = input;
  return { finding, moves, home, adjusters, spacerLayer, slack };
}

function heaterOf({ input }: Plan<'soak'>): NonNullable<JobFacts['heater']> {
  const { flux, ambient, loss, within } = input;
  return { flux, ambient, loss, within };
}

const partOf = ({ tag, kind, thickness, width, depth, state }: Surface): PartFacts => ({
  tag,
  name: kind.name,
  group: kind.group,
  measured: thickness,
  material: kind.material,
  limit: kind.limit,
  width,
  depth,
  face: kind.faces[state.where.kind === 'machine' && state.where.sideUp === 'B' ? 1 : 0] ?? null,
  care: kind.care,
});

/** Surfaces by their ids, as they are fetched and as this device holds them. */
function useSurfacesById(ids: readonly string[]): Surface[] {
  const dispatch = useAppDispatch();
  const key = [...ids].sort().join(' ');
  useEffect(() => {
    const asked = key
      .split(' ')
      .filter((id) => id !== '')
      .map((id) => dispatch(surfacesApi.endpoints.surface.initiate({ id })));
    return () => asked.forEach((one) => one.unsubscribe());
  }, [dispatch, key]);
  return useAppSelector(
    (state) =>
      ids.flatMap((id) => {
        const { data } = surfacesApi.endpoints.surface.select({ id })(state);
        return data ? [data] : [];
      }),
    shallowEqual,
  );
}
