import { hearing } from '../kernel/bus';
import { roundsHears } from '../rounds/hears';

/** Every room that keeps something by what happens elsewhere. */
export function hearAll(): void {
  hearing(roundsHears);
}
