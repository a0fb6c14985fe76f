import { View } from 'react-native';
import { type Palette } from './theme';
import { Words } from './Words';

interface Props {
  label: string;
  value: string;
  unit?: string;
  tone?: Exclude<keyof Palette, 'dark'>;
  testID?: string;
}

/** A number to read at arm's length, with what it is above it. */
export function Figure({ label, value, unit, tone = 'ink', testID }: Props) {
  return (
    <View>
      <Words size="small" tone="steel">
        {label}
      </Words>
      <Words size="reading" bold figures tone={tone} testID={testID}>
        {unit ? `${value} ${unit}` : value}
      </Words>
    </View>
  );
}
