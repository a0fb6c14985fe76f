import { RackScreen } from '../surfaces/RackScreen';
import { RackWaits } from '../surfaces/RackWaits';
import { useIsWide } from '../ui/theme';
import { ListAndPage } from './ListAndPage';

/** The rack: the list beside the surface on a wide screen. */
export function RackRoom() {
  return (
    <ListAndPage
      root="/rack"
      width={430}
      says="The rack"
      list={(selectedId) => <RackScreen selectedId={selectedId} />}
    />
  );
}

/** The rack before a surface is chosen: the list on a phone; what waits there, beside the list, on a wide screen. */
export function RackIndex() {
  return useIsWide() ? <RackWaits /> : <RackScreen selectedId={null} />;
}
