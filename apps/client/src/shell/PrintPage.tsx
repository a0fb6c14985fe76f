import { PhotosPart } from '../care/SeenPart';
import { useAppSelector } from '../state/store';
import { useNow } from '../ui/useNow';
import { PrintScreen } from '../wear/PrintScreen';
import { SinceItHeld } from './SinceItHeld';

/** A print's page with what the other areas know of it. */
export function PrintPage() {
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  return (
    <PrintScreen
      mayDo={mayDo}
      parts={(print) => (
        <>
          {print.held ? null : <SinceItHeld print={print} />}
          <PhotosPart of={{ printId: print.id }} mayDo={mayDo && print.withdrawnAt === null} now={now} />
        </>
      )}
    />
  );
}
