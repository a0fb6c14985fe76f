import type { MachineOverview, MachineStack } from '@even-bed/contract';
import { useLocalSearchParams } from 'expo-router';
import { useEffect, useEffectEvent, useState } from 'react';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useStackQuery } from '../surfaces/surfacesApi';
import { Pick } from '../ui/Pick';

interface Props {
  onFill: (machine: MachineOverview, stack: MachineStack) => void;
  /** The form is there: it must not be filled before what was typed last. */
  ready: boolean;
}

/** Takes what the shop knows of a machine into the tool; the address may name it. */
export function FillFromMachine({ onFill, ready }: Props) {
  const { machine: named, plan } = useLocalSearchParams<{ machine?: string; plan?: string }>();
  const { data: machines = [], isLoading } = useMachinesQuery();
  const [machineId, setMachineId] = useState<string | null>(plan ? null : (named ?? null));
  const { currentData: stack } = useStackQuery({ id: machineId ?? '' }, { skip: machineId === null });
  const machine = machines.find(({ id }) => id === machineId);
  const fill = useEffectEvent(() => {
    if (machine && stack) onFill(machine, stack);
  });
  const known = ready && machine !== undefined && stack !== undefined ? machine.id : null;
  useEffect(() => {
    if (known !== null) fill();
  }, [known]);
  if (machines.length === 0 && !isLoading) return null;
  return (
    <Pick
      label="Fill in from a machine"
      options={machines.map(({ id, name }) => ({ value: id, label: name }))}
      value={machineId}
      onChange={setMachineId}
      placeholder="None, as typed"
      testID="fill-machine"
    />
  );
}
