import type { MachineLearned, MachineOverview } from '@even-bed/contract';
import { noteOperations } from '@even-bed/contract/level/noteOperations';
import { MOTOR_THREAD } from '@even-bed/core/level/plainAdjuster';
import { learnedWords } from '@even-bed/words/learned';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { shortDate } from '../ui/formatTime';
import { useLearnedQuery } from './levelApi';
import { turnWords, viewWords } from './planWords';

/** What a machine's adjusters really do, what that rests on, and how to teach it more. */
export function LearnedPart({ machine, mayChange }: { machine: MachineOverview; mayChange: boolean }) {
  const router = useRouter();
  const { data: learned } = useLearnedQuery({ id: machine.id });
  const now = useNow();
  if (!learned || learned.rounds + learned.felt === 0) return null;
  const setBack = () => {
    const id = uuid();
    later(noteOperations.keepZMark, {
      params: { id },
      body: { machineId: machine.id, kind: 'learn-anew', at: rightNow() },
      key: id,
      what: `${machine.name}: its adjusters are learned anew`,
      at: `/floor/${machine.id}`,
    });
  };
  const nameOf = (id: string) => machine.adjusters.find((one) => one.id === id)?.name ?? id;
  const isMotor = (id: string) => machine.adjusters.find((one) => one.id === id)?.thread === MOTOR_THREAD;
  const odd = learned.adjusters.filter(({ way }) => way !== null && way !== 'as-said');
  const open = learned.adjusters.some(({ way }) => way === null);
  return (
    <Section
      title="WHAT ITS ADJUSTERS DO"
      testID="learned"
      folded={odd.length > 0 ? `${odd.length} not as said` : open ? 'not all known yet' : 'as said'}
      open={odd.length > 0}
    >
      {learned.adjusters.map((one) => (
        <View
          key={one.id}
          style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}
          testID={`learned-${one.id}`}
        >
          <Signal kind={one.way === null ? 'due' : one.way === 'as-said' ? 'ready' : 'stop'} />
          <View style={{ flex: 1 }}>
            <Words>{learnedWords(one, nameOf(one.id))}</Words>
          </View>
        </View>
      ))}
      <Words size="small" tone="steel" testID="learned-rests">
        {`It rests on ${restsOn(learned)}, since ${learned.since === null ? 'the adjusters were last changed' : `it was set back ${shortDate(learned.since, now)}`}. Plans go by it where it is known well; what sticks is freed, not turned further.`}
      </Words>
      {open ? (
        <Words size="small" testID="learned-teach">
          {`To tell, in a check: turn ${learned.teach
            .map(
              ({ adjusterId, turns }) =>
                `${nameOf(adjusterId)} ${turnWords(turns, machine.seenFrom, isMotor(adjusterId))}`,
            )
            .join(' and ')}, ${viewWords(machine.seenFrom)}, note it, and measure again.`}
        </Words>
      ) : null}
      {mayChange ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Set it back: learn anew" kind="quiet" onPress={setBack} testID="learn-anew" />
        </View>
      ) : null}
      {odd.length > 0 && mayChange ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Put its adjusters right"
            icon="edit"
            onPress={() => router.push(`/floor/${machine.id}/edit`)}
            testID="learned-edit"
          />
        </View>
      ) : null}
    </Section>
  );
}

function restsOn({ rounds, felt }: MachineLearned): string {
  const parts = [
    ...(rounds > 0 ? [`${rounds} ${rounds === 1 ? 'round' : 'rounds'} of turns with readings before and after`] : []),
    ...(felt > 0 ? [`${felt} ${felt === 1 ? 'level' : 'levels'} by paper and feel`] : []),
  ];
  return parts.join(' and ');
}
