import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { ActionButton } from '../ui/ActionButton';
import { shortDate } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { usePrinting } from '../ui/usePrinting';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { usePlansQuery, useWithdrawPlanMutation } from './fitApi';
import { toolHref, toolName } from './toolNames';

/** Plans that were kept for a machine, and the way to make one. */
export function MachinePlans({ machineId, mayDo, now }: { machineId: string; mayDo: boolean; now: number }) {
  const router = useRouter();
  const { data: plans = [] } = usePlansQuery({ machineId });
  const [withdraw] = useWithdrawPlanMutation();
  if (usePrinting() && plans.length === 0) return null;
  return (
    <Section title="PLANS" testID="plans" folded={plans.length === 0 ? 'none' : `${plans.length} kept`}>
      {plans.length === 0 ? (
        <Words size="small" tone="steel">
          Nothing is planned. A change of stack is best added up before the liner comes off.
        </Words>
      ) : null}
      {plans.map((plan) => (
        <View key={plan.id}>
          <Row
            href={toolHref(plan.tool, plan.id)}
            end={
              <Words size="small" tone="steel">
                {shortDate(plan.at, now)}
              </Words>
            }
            testID={`plan-${plan.title}`}
          >
            <Words bold>
              {plan.title === toolName(plan.tool).name ? plan.title : `${plan.title} (${toolName(plan.tool).name})`}
            </Words>
            <Words size="small" tone="steel">
              {plan.sentence}
            </Words>
          </Row>
          {mayDo ? (
            <View style={{ alignSelf: 'flex-end' }}>
              <ActionButton
                label="Let go of it"
                kind="quiet"
                onPress={() => void withdraw({ id: plan.id, key: uuid(), body: { at: rightNow() } })}
                testID={`withdraw-${plan.title}`}
              />
            </View>
          ) : null}
        </View>
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton
          label="Add up a change of stack"
          icon="measure"
          onPress={() => router.push(`/tools/stack?machine=${machineId}`)}
          testID="plan-stack"
        />
        <ActionButton label="More tools" kind="quiet" onPress={() => router.push('/tools')} />
      </View>
    </Section>
  );
}
