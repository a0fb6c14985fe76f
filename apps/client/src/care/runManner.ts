import { RUN_MANNERS, type RunManner } from '@even-bed/core/care/runCard';
import { useKeptWord } from '../ui/deviceSwitch';

/** How this person works this job on this device; at first step by step. */
export function useRunManner(personId: string | null, procedureId: string): [RunManner, (manner: RunManner) => void] {
  const [kept, write] = useKeptWord(`manner ${personId ?? ''} ${procedureId}`);
  return [RUN_MANNERS.find((one) => one === kept) ?? 'step-by-step', write];
}
