import { MachineJobs } from '../care/MachineJobs';
import { SeenPart } from '../care/SeenPart';
import { MachinePlans } from '../fit/MachinePlans';
import { MachineScreen } from '../floor/MachineScreen';
import { MachineTokens } from '../people/MachineTokens';
import { useAppSelector } from '../state/store';
import { MachineStackPart } from '../surfaces/MachineStackPart';
import { useNow } from '../ui/useNow';
import { LogPrint } from '../wear/LogPrint';
import { PrintsPart } from '../wear/PrintLines';

/** A machine's page with what the other areas know of it. */
export function MachinePage() {
  const now = useNow();
  const role = useAppSelector((state) => state.people.person?.role);
  const mayDo = role !== 'looker';
  return (
    <MachineScreen
      mayDo={mayDo}
      isLead={role === 'lead'}
      first={(machine) => (
        <>
          {mayDo ? <LogPrint machine={machine} /> : null}
          <MachineStackPart machine={machine} now={now} />
        </>
      )}
      last={({ id, family }) => (
        <>
          <MachineJobs machineId={id} family={family} mayDo={mayDo} now={now} />
          <MachinePlans machineId={id} mayDo={mayDo} now={now} />
          <PrintsPart of={{ machineId: id }} mayDo={mayDo} />
          <SeenPart subject={{ machineId: id }} mayDo={mayDo} now={now} />
          {role === 'lead' ? <MachineTokens machineId={id} /> : null}
        </>
      )}
    />
  );
}
