import type { ReactNode } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { usePalette } from '../ui/theme';

interface Props {
  title: string;
  count: number;
  /** What one of them is called: "layer". */
  one: string;
  render: (index: number) => ReactNode;
  onAdd: () => void;
  onRemove: (index: number) => void;
  /** Fewer are not possible. */
  least?: number;
  testID: string;
}

/** A list of things to fill in, each with its own fields; more are added at its end. */
export function RowList({ title, count, one, render, onAdd, onRemove, least = 0, testID }: Props) {
  const palette = usePalette();
  return (
    <Section title={title} testID={testID}>
      {Array.from({ length: count }, (_, i) => (
        <View
          key={i}
          style={{ gap: 8, borderLeftWidth: 2, borderLeftColor: palette.hairline, paddingLeft: 12, paddingBottom: 4 }}
        >
          {render(i)}
          {count > least ? (
            <View style={{ alignSelf: 'flex-end' }}>
              <ActionButton
                label={`Take this ${one} away`}
                kind="quiet"
                icon="remove"
                onPress={() => onRemove(i)}
                testID={`${testID}-remove-${i}`}
              />
            </View>
          ) : null}
        </View>
      ))}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label={`Another ${one}`} icon="add" onPress={onAdd} testID={`${testID}-add`} />
      </View>
    </Section>
  );
}
