import type { TurnPlan } from '@even-bed/core';
import { Pressable, View } from 'react-native';
import { Icon } from '../ui/Icon';
import { length } from '../ui/formatHeight';
import { Section } from '../ui/Section';
import { TYPE, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import type { CheckDraft } from './levelSlice';
import { turnWords, viewWords } from './planWords';

interface Props {
  plan: TurnPlan;
  draft: CheckDraft;
  ticked: ReadonlySet<string>;
  /** The turns are noted and can't be changed any more. */
  locked: boolean;
  onTick: (adjusterId: string) => void;
}

/** The turns in the order in which to make them, each to be ticked when made; adjusters to leave come last. */
export function TurnList({ plan, draft, ticked, locked, onTick }: Props) {
  const palette = usePalette();
  const { adjusterNames, setup } = draft;
  const byId = new Map(plan.turns.map((turn) => [turn.id, turn]));
  const left = plan.turns.filter(({ said }) => said === 0);
  return (
    <Section title={`TURNS IN ORDER, ${viewWords(setup.seenFrom).toUpperCase()}`} testID="turn-list">
      {plan.order.map((id, i) => {
        const turn = byId.get(id)!;
        const made = ticked.has(id);
        const motor = setup.adjusters.find((one) => one.id === id)?.motor === true;
        const words = turnWords(turn.said, setup.seenFrom, motor);
        return (
          <Pressable
            key={id}
            role="checkbox"
            aria-checked={made}
            disabled={locked}
            onPress={() => onTick(id)}
            testID={`turn-${id}`}
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              gap: 12,
              minHeight: 64,
              borderBottomWidth: 1,
              borderBottomColor: palette.hairline,
              paddingVertical: 6,
            }}
          >
            <View style={{ width: 22 }}>
              <Words bold figures size="lead">
                {i + 1}
              </Words>
            </View>
            <View style={{ flex: 1 }}>
              <Words bold>{capital(adjusterNames[id] ?? id)}</Words>
              <Words size="turn" tone={made ? 'steel' : 'ink'} style={{ lineHeight: TYPE.turn + 5 }}>
                {words}
              </Words>
              <Words
                size="small"
                tone="steel"
              >{`${turn.saidRise > 0 ? 'raises' : 'lowers'} ${length(Math.abs(turn.saidRise))}`}</Words>
            </View>
            <View style={{ alignItems: 'center', width: 76, gap: 2 }}>
              <View
                style={{
                  width: 34,
                  height: 34,
                  borderRadius: 4,
                  borderWidth: 2,
                  borderColor: made ? palette.ready : palette.edge,
                  alignItems: 'center',
                  justifyContent: 'center',
                }}
              >
                {made ? <Icon name="check" color={palette.ready} /> : null}
              </View>
              <Words size="small" tone="steel">
                {made ? 'made' : 'not made'}
              </Words>
            </View>
          </Pressable>
        );
      })}
      {left.length > 0 ? (
        <Words size="small" tone="steel">{`Leave ${left.map(({ id }) => adjusterNames[id] ?? id).join(', ')}.`}</Words>
      ) : null}
    </Section>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
