import { JobScreen } from '../care/JobScreen';
import { MachineGlance } from '../floor/MachineGlance';

/** A job with its machine beside it. */
export function JobPage() {
  return <JobScreen beside={(machineId) => <MachineGlance machineId={machineId} />} />;
}
