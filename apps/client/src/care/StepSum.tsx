import type { ProcedureStep } from '@even-bed/core/care/procedure';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { usePlansQuery } from '../fit/fitApi';
import { toolHref, toolName } from '../fit/toolNames';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';

/** The sum that belongs to a step: the machine's latest plan of it, or the tool filled in from the machine. */
export function StepSum({ sum, machineId }: { sum: NonNullable<ProcedureStep['sum']>; machineId: string }) {
  const router = useRouter();
  const { data: plans = [] } = usePlansQuery({ machineId });
  if (sum === 'level')
    return (
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="To the machine’s level check"
          icon="measure"
          onPress={() => router.push(`/floor/${machineId}`)}
          testID="sum-level"
        />
      </View>
    );
  const plan = plans.find(({ tool }) => tool === sum);
  return (
    <Section title={`THE SUM: ${toolName(sum).name.toUpperCase()}`} testID="step-sum">
      {plan ? (
        <Words bold>{plan.sentence}</Words>
      ) : (
        <Words tone="steel">Nothing is planned for this machine yet.</Words>
      )}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label={plan ? 'Look at it' : 'Add it up now'}
          icon="measure"
          onPress={() =>
            router.push(plan ? toolHref(plan.tool, plan.id) : (`/tools/${sum}?machine=${machineId}` as never))
          }
          testID="open-sum"
        />
      </View>
    </Section>
  );
}
