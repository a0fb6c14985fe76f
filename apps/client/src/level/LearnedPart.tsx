import type { MachineOverview } from '@even-bed/contract';
import { learnedWords } from '@even-bed/words/learned';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { useLearnedQuery } from './levelApi';
import { turnWords, viewWords } from './planWords';

/** What a machine's adjusters really do, what that rests on, and how to teach it more. */
export function LearnedPart({ machine, mayChange }: { machine: MachineOverview; mayChange: boolean }) {
  const router = useRouter();
  const { data: learned } = useLearnedQuery({ id: machine.id });
  if (!learned || learned.rounds === 0) return null;
  const nameOf = (id: string) => machine.adjusters.find((one) => one.id === id)?.name ?? id;
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
        {`It rests on ${learned.rounds} ${learned.rounds === 1 ? 'round' : 'rounds'} of turns with readings before and after, since the adjusters were last changed. Plans go by what is written down: put that right, and it is learned anew.`}
      </Words>
      {open ? (
        <Words size="small" testID="learned-teach">
          {`To tell, in a check: turn ${learned.teach
            .map(({ adjusterId, turns }) => `${nameOf(adjusterId)} ${turnWords(turns, machine.seenFrom)}`)
            .join(' and ')}, ${viewWords(machine.seenFrom)}, note it, and measure again.`}
        </Words>
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
