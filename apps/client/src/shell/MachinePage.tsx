import { useLocalSearchParams } from 'expo-router';
import { MachineJobs } from '../care/MachineJobs';
import { SeenPart } from '../care/SeenPart';
import { MachinePlans } from '../fit/MachinePlans';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { MachineScreen } from '../floor/MachineScreen';
import { LearnedPart } from '../level/LearnedPart';
import { LevelGlance } from '../level/LevelGlance';
import { ShapeGlance } from '../level/ShapeGlance';
import { ZeroPart } from '../level/ZeroPart';
import { useInspectionsQuery, usePhotosQuery } from '../care/careApi';
import { useJobsQuery } from '../care/jobApi';
import { usePlansQuery } from '../fit/fitApi';
import { HISTORY } from '../floor/history';
import { useChecksQuery, useLearnedQuery } from '../level/levelApi';
import { useShapesQuery } from '../level/shapeApi';
import { usePrintsPagesInfiniteQuery } from '../wear/wearApi';
import { useLevelsQuery, useZeroQuery } from '../level/noteApi';
import { MachineTokens } from '../people/MachineTokens';
import { useAppSelector } from '../state/store';
import { MachineStackPart } from '../surfaces/MachineStackPart';
import { useStackQuery } from '../surfaces/surfacesApi';
import { useNow } from '../ui/useNow';
import { LogPrint } from '../wear/LogPrint';
import { PrintsPart } from '../wear/PrintLines';

/** A machine's page with what the other areas know of it. */
export function MachinePage() {
  const now = useNow();
  const role = useAppSelector((state) => state.people.person?.role);
  const mayDo = role !== 'looker';
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const stack = useStackQuery({ id: machineId });
  const { data: known } = useKnownMachine(machineId);
  const zero = useZeroQuery({ id: machineId }, { skip: known?.family !== 'resin' });
  const rest = [
    useChecksQuery({ machineId, state: 'ended', limit: HISTORY }),
    useLevelsQuery({ id: machineId }),
    useShapesQuery({ machineId }),
    useLearnedQuery({ id: machineId }),
    useJobsQuery({ machineId, limit: 50 }),
    usePlansQuery({ machineId }),
    usePrintsPagesInfiniteQuery({ machineId, limit: 20 }),
    useInspectionsQuery({ machineId, limit: 50 }),
    usePhotosQuery({ machineId, limit: 50 }),
  ];
  return (
    <MachineScreen
      mayDo={mayDo}
      isLead={role === 'lead'}
      coming={stack.isLoading || zero.isLoading}
      restComing={rest.some(({ isLoading }) => isLoading)}
      first={(machine) => (
        <>
          {mayDo ? <LogPrint machine={machine} /> : null}
          {machine.family === 'resin' ? <ZeroPart machine={machine} mayDo={mayDo} now={now} /> : null}
          <MachineStackPart machine={machine} now={now} />
        </>
      )}
      last={(machine) => (
        <>
          <LevelGlance machine={machine} now={now} />
          <ShapeGlance of={{ machineId: machine.id }} kind={machine.family} now={now} />
          <LearnedPart machine={machine} mayChange={role === 'lead'} />
          <MachineJobs machineId={machine.id} family={machine.family} mayDo={mayDo} now={now} />
          <MachinePlans machineId={machine.id} mayDo={mayDo} now={now} />
          <PrintsPart of={{ machineId: machine.id }} />
          <SeenPart subject={{ machineId: machine.id }} mayDo={mayDo} now={now} />
          {role === 'lead' ? <MachineTokens machineId={machine.id} /> : null}
        </>
      )}
    />
  );
}
