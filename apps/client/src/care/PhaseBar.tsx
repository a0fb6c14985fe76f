import type { ProcedurePhase } from '@even-bed/core/care/procedure';
import { View } from 'react-native';
import { usePalette } from '../ui/theme';
import { Words } from '../ui/Words';

interface Props {
  phases: readonly ProcedurePhase[];
  /** The one in hand, from 0 on. */
  at: number;
}

/** The phases of the hands as named pieces under the rule line: done, in hand, to come. */
export function PhaseBar({ phases, at }: Props) {
  const palette = usePalette();
  return (
    <View
      style={{ flexDirection: 'row', gap: 4 }}
      role="progressbar"
      aria-valuenow={at + 1}
      aria-valuemin={1}
      aria-valuemax={phases.length}
      aria-label={`Phase ${at + 1} of ${phases.length}: ${phases[at]?.title ?? ''}`}
      testID="phase-bar"
    >
      {phases.map(({ id, title }, i) => (
        <View key={id} style={{ flex: 1, gap: 4, minWidth: 0 }}>
          <View
            style={{
              height: 8,
              backgroundColor: i < at ? palette.ink : i === at ? palette.accent : palette.hairline,
            }}
          />
          <Words size="small" bold={i === at} tone={i === at ? 'ink' : 'steel'}>
            {title.toLowerCase()}
          </Words>
        </View>
      ))}
    </View>
  );
}
