import { View } from 'react-native';
import { useMachinesQuery } from '../fleet/fleetApi';
import { canBeLevelled } from '../fleet/machineState';
import { Choice } from '../ui/Choice';
import { Pick } from '../ui/Pick';
import type { BedAsk } from './benchBeds';

/** Which bed: a machine's own, or a plain one. */
export function BedPick({ ask, onChange }: { ask: BedAsk; onChange: (next: BedAsk) => void }) {
  const { data: machines = [] } = useMachinesQuery();
  return (
    <View style={{ gap: 12 }}>
      <Pick
        label="Machine"
        options={[
          { value: '', label: 'None: a plain bed' },
          ...machines.filter(canBeLevelled).map(({ id, name }) => ({ value: id, label: name })),
        ]}
        value={ask.machineId ?? ''}
        onChange={(machineId) => onChange({ ...ask, machineId: machineId === '' ? null : machineId })}
        testID="bed-machine"
      />
      {ask.machineId === null ? (
        <>
          <Choice
            label="Adjusters"
            options={[
              { value: '3', label: 'three' },
              { value: '4', label: 'four' },
            ]}
            value={ask.plain}
            onChange={(plain) => onChange({ ...ask, plain })}
            testID="bed-plain"
          />
          <Choice
            label="Clockwise, looking down"
            options={[
              { value: 'lowers', label: 'lowers' },
              { value: 'raises', label: 'raises' },
            ]}
            value={ask.clockwise}
            onChange={(clockwise) => onChange({ ...ask, clockwise })}
            testID="bed-clockwise"
          />
        </>
      ) : null}
    </View>
  );
}
