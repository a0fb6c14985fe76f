import type { Plan } from '@even-bed/contract';
import { usePlansQuery } from '../fit/fitApi';

/** Pitch of the screw that moves a machine's home, mm, as its latest plan of the stack has it; null: none is known. */
export function useStopPitch(machineId: string): number | null {
  const { data: plans = [] } = usePlansQuery({ machineId });
  const plan = plans.find(({ tool }) => tool === 'stack') as Plan<'stack'> | undefined;
  return plan?.input.finding.by === 'stop-screw' ? plan.input.finding.pitch : null;
}
