import { fitOperations } from '@even-bed/contract/fit/operations';
import type { ToolId, ToolInputs } from '@even-bed/core';
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Signal } from '../ui/Signal';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { toolName } from './toolNames';

interface Props<T extends ToolId> {
  tool: T;
  input: ToolInputs[T];
  onClose: () => void;
}

/** Keeps what was asked for a machine, also without a signal. */
export function SavePlan<T extends ToolId>({ tool, input, onClose }: Props<T>) {
  const { machine: named } = useLocalSearchParams<{ machine?: string }>();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const { data: machines = [] } = useMachinesQuery();
  const [machineId, setMachineId] = useState<string | null>(named ?? null);
  const [title, setTitle] = useState(toolName(tool).name);
  const [done, setDone] = useState(false);
  const machine = machines.find(({ id }) => id === machineId);
  const keep = () => {
    if (!machine) return;
    const id = uuid();
    const body = { machineId: machine.id, tool, title: title.trim(), input, at: rightNow() };
    later(fitOperations.keepPlan, {
      params: { id },
      body,
      key: id,
      what: `${machine.name}: plan ${title.trim()}`,
      at: `/floor/${machine.id}`,
    });
    setDone(true);
  };
  return (
    <DialogFrame open title="Save as plan" onClose={onClose} testID="plan-dialog">
      {done ? (
        <>
          <Signal kind="ready" word={`Kept for ${machine?.name}. It stands on its page.`} />
          <ActionButton label="Go on" kind="main" onPress={onClose} testID="plan-done" />
        </>
      ) : !mayDo ? (
        <Words>A looker can work everything out here, and a technician keeps it as a plan.</Words>
      ) : (
        <>
          <Pick
            label="For which machine"
            options={machines.map(({ id, name }) => ({ value: id, label: name }))}
            value={machineId}
            onChange={setMachineId}
            testID="plan-machine"
          />
          <Field label="What it is for" value={title} onChange={setTitle} testID="plan-title" />
          <View style={{ flexDirection: 'row', gap: 12 }}>
            <ActionButton label="Leave it" grow onPress={onClose} />
            <ActionButton
              label="Keep"
              kind="main"
              grow
              disabled={!machine || title.trim() === ''}
              onPress={keep}
              testID="plan-keep"
            />
          </View>
        </>
      )}
    </DialogFrame>
  );
}
