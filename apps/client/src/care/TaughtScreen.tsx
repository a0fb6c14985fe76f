import type { MachineOverview, Taught } from '@even-bed/contract';
import { taughtFactWords } from '@even-bed/words/taught';
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useChangeMachine } from '../fleet/useChangeMachine';
import { crumbsOf } from '../fleet/machineState';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { toolHref } from '../fit/toolNames';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { size } from '../ui/formatHeight';
import { shortDate } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useTaughtQuery } from './jobApi';
import { TaughtJobs } from './TaughtJobs';

/** What other machines of a model taught, each fact with where it comes from. */
export function TaughtScreen() {
  const { machineId } = useLocalSearchParams<{ machineId: string }>();
  const { data: machine } = useKnownMachine(machineId);
  const { data, error, refetch } = useTaughtQuery({ id: machineId });
  const failure = errorOf(error);
  const crumbs = crumbsOf(machine);
  if (!machine || !data)
    return (
      <Page title="Learned on its model" crumbs={crumbs}>
        {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="what they taught" />}
      </Page>
    );
  return (
    <Page title={`Learned on other machines: ${machine.model}`} crumbs={crumbs} testID="taught">
      {data.facts.length === 0 ? (
        <Words tone="steel" testID="taught-none">
          {`No other machine has the model “${machine.model}”. Write the same model for the same machines: then what was learned on one stands here for the others.`}
        </Words>
      ) : (
        <Columns
          left={
            <>
              <Words>This was measured on other machines. Check that it is the same here before you use it.</Words>
              <Section title="FINISHED JOBS">
                <TaughtJobs jobs={data.jobs} />
              </Section>
            </>
          }
          right={
            <>
              <Plans plans={data.plans} />
              <Written machine={machine} facts={data.facts} />
            </>
          }
        />
      )}
    </Page>
  );
}

/** Who says the same: names by what is written down for them. */
function saidOf(facts: Taught['facts']): Map<string, string[]> {
  const names = new Map<string, string[]>();
  for (const fact of facts) {
    const said = taughtFactWords(fact, currentManner()).join(' ') || 'Nothing that helps.';
    names.set(said, [...(names.get(said) ?? []), fact.machineName]);
  }
  return names;
}

/** What is written down for the others; a key that is not known here can be taken over. */
function Written({ machine, facts }: { machine: MachineOverview; facts: Taught['facts'] }) {
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const { change, busy } = useChangeMachine(machine.id);
  const [failure, setFailure] = useState<string | null>(null);
  const key = machine.platformKey === null ? facts.find(({ platformKey }) => platformKey !== null) : undefined;
  return (
    <Section title="WRITTEN DOWN" testID="taught-facts">
      {[...saidOf(facts)].map(([said, names]) => (
        <Row key={said}>
          <Words bold>{said}</Words>
          <Words size="small" tone="steel">
            {names.join(', ')}
          </Words>
        </Row>
      ))}
      {key && mayDo ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label={`Use the key of ${size(key.platformKey!)} here too`}
            disabled={busy}
            onPress={() => void change({ platformKey: key.platformKey }).then(setFailure)}
            testID="taught-key"
          />
        </View>
      ) : null}
      {failure ? <Words tone="stop">{failure}</Words> : null}
    </Section>
  );
}

function Plans({ plans }: { plans: Taught['plans'] }) {
  const now = useNow();
  if (plans.length === 0) return null;
  return (
    <Section title="PLANS" testID="taught-plans">
      {plans.map(({ planId, tool, title, sentence, machineName, at }) => (
        <Row
          key={planId}
          href={toolHref(tool, planId)}
          end={
            <Words size="small" tone="steel">
              {shortDate(at, now)}
            </Words>
          }
        >
          <Words bold>{`${machineName}: ${title}`}</Words>
          <Words size="small" tone="steel">
            {sentence}
          </Words>
        </Row>
      ))}
    </Section>
  );
}
