import type { Procedure } from '@even-bed/core';
import { Pressable, View } from 'react-native';
import { RADIUS, TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';

interface Props {
  choice: Procedure['choices'][number];
  value: string;
  onChange: (option: string) => void;
  /** When it would be done with an option, in words. */
  ready?: ((option: string) => string) | undefined;
}

/** A question on which practitioners differ: each way with its reason, and with the hour at which it is done. */
export function SchoolPart({ choice, value, onChange, ready }: Props) {
  const palette = usePalette();
  return (
    <View style={{ gap: 4 }}>
      <Words size="small" tone="steel">
        {choice.question}
      </Words>
      <View
        role="radiogroup"
        aria-label={choice.question}
        style={{ borderWidth: 1, borderColor: palette.edge, borderRadius: RADIUS, overflow: 'hidden' }}
      >
        {choice.options.map(({ id, label, because }, i) => {
          const taken = id === value;
          return (
            <Pressable
              key={id}
              role="radio"
              aria-checked={taken}
              onPress={() => onChange(id)}
              testID={`school-${choice.id}-${id}`}
              style={{
                minHeight: TOUCH,
                padding: 12,
                gap: 2,
                borderTopWidth: i === 0 ? 0 : 1,
                borderTopColor: palette.hairline,
                borderLeftWidth: 5,
                borderLeftColor: taken ? palette.accent : 'transparent',
                backgroundColor: taken ? palette.raised : 'transparent',
              }}
            >
              <Words
                bold={taken}
              >{`${label}${id === choice.usual ? ' (usual)' : ''}${ready ? `: free ${ready(id)}` : ''}`}</Words>
              <Words size="small" tone="steel">
                {because}
              </Words>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}
