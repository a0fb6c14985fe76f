import { Button } from 'react-native-paper';
import { Icon } from './Icon';
import type { IconName } from './iconPaths';
import { FAMILY, RADIUS, TYPE, usePalette } from './theme';

interface Props {
  label: string;
  onPress: () => void;
  /** main: the one thing to do next · plain: beside it · quiet: no edge. */
  kind?: 'main' | 'plain' | 'quiet';
  icon?: IconName;
  disabled?: boolean;
  busy?: boolean;
  /** Takes what room there is. */
  grow?: boolean;
  testID?: string;
}

/** A button for gloves: 56 high, in words. */
export function ActionButton({ label, onPress, kind = 'plain', icon, disabled, busy, grow, testID }: Props) {
  const palette = usePalette();
  const height = kind === 'quiet' ? 48 : 56;
  return (
    <Button
      mode={kind === 'main' ? 'contained' : kind === 'plain' ? 'outlined' : 'text'}
      onPress={onPress}
      disabled={disabled || busy}
      loading={busy}
      icon={icon ? ({ size, color }) => <Icon name={icon} size={size + 4} color={color} /> : undefined}
      testID={testID}
      textColor={kind === 'main' ? undefined : palette.ink}
      style={[
        { borderRadius: RADIUS, minHeight: height, justifyContent: 'center' },
        kind === 'plain' && { borderColor: disabled ? palette.hairline : palette.ink, backgroundColor: 'transparent' },
        { maxWidth: '100%' },
        grow && { flexGrow: 1, flexShrink: 0, flexBasis: 'auto' },
      ]}
      contentStyle={{ minHeight: height }}
      labelStyle={{
        fontFamily: FAMILY.bold,
        fontSize: TYPE.body,
        lineHeight: Math.round(TYPE.body * 1.35),
        marginHorizontal: icon || busy ? 20 : 12,
        textAlign: 'center',
        // The kit cuts a label off at the button's edge; words wrap instead.
        ...({ whiteSpace: 'normal' } as object),
      }}
      uppercase={false}
    >
      {label}
    </Button>
  );
}
