import { pitchShareWords } from '@even-bed/words/learned';
import { View } from 'react-native';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Words } from '../ui/Words';
import { threadsTrusted, type CheckDraft } from './levelSlice';

/** Says where a check's turns go by what adjusters were seen to do instead of their threads; undone before the first reading. */
export function TakenAsLearned({ draft }: { draft: CheckDraft }) {
  const dispatch = useAppDispatch();
  const { setup, adjusterNames, rounds } = draft;
  if (!setup.said) return null;
  const shares = setup.adjusters.flatMap((one) => {
    const said = setup.said!.find(({ id }) => id === one.id)!;
    const share = (one.pitch / said.pitch) * (one.clockwise === said.clockwise ? 1 : -1);
    return share === 1 ? [] : [pitchShareWords(share, adjusterNames[one.id] ?? one.id)];
  });
  return (
    <View testID="as-learned" style={{ gap: 4 }}>
      <Words size="small">{`Turns go by what was learned: ${shares.join('; ')}.`}</Words>
      {rounds.length === 0 ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="By the threads instead"
            kind="quiet"
            onPress={() => dispatch(threadsTrusted({ id: draft.id }))}
            testID="trust-threads"
          />
        </View>
      ) : null}
    </View>
  );
}
