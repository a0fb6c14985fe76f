import { useState } from 'react';
import { Pressable, useWindowDimensions, View } from 'react-native';
import { FrontEdge } from './FrontEdge';
import { SPACE, usePalette } from './theme';
import { Words } from './Words';

export interface TugSheet {
  id: string;
  name: string;
  right: boolean;
  rear: boolean;
  /** What it did when it was pulled; null: not pulled yet. */
  felt: string | null;
  /** Its place in the order of tightening, from 1 on. */
  order: number;
  /** It differs from the rest. */
  odd: boolean;
}

interface Props {
  sheets: readonly TugSheet[];
  /** The one that is meant now. */
  at: string | null;
  onPick: (id: string) => void;
  label: string;
}

const HEIGHT = 264;

/** A screen from above with a quarter sheet at each corner, numbered in the order in which the screws are tightened. */
export function TugPlan({ sheets, at, onPick, label }: Props) {
  const palette = usePalette();
  const window = useWindowDimensions().width;
  const [measured, setRoom] = useState<number | null>(null);
  const width = Math.min(440, measured ?? window - 2 * SPACE.m);
  const colour = (sheet: TugSheet) =>
    sheet.id === at ? palette.accent : sheet.odd ? palette.due : sheet.felt === null ? palette.steel : palette.ready;
  return (
    <View
      role="group"
      aria-label={label}
      onLayout={({ nativeEvent: { layout } }) => setRoom(layout.width)}
      testID="tug-plan"
      style={{ alignItems: 'center' }}
    >
      <View
        style={{
          width,
          height: HEIGHT,
          borderWidth: 1.6,
          borderColor: palette.ink,
          backgroundColor: palette.raised,
        }}
      >
        {sheets.map((sheet) => (
          <Pressable
            key={sheet.id}
            role="button"
            aria-label={`${sheet.name}: ${sheet.felt ?? 'not pulled yet'}, tightened as number ${sheet.order}`}
            aria-pressed={sheet.id === at}
            onPress={() => onPick(sheet.id)}
            testID={`tug-${sheet.id}`}
            style={{
              position: 'absolute',
              [sheet.right ? 'right' : 'left']: 10,
              [sheet.rear ? 'top' : 'bottom']: 14,
              width: width / 2 - 26,
              height: HEIGHT / 2 - 30,
              borderWidth: sheet.id === at || sheet.odd ? 3.5 : 1.6,
              borderColor: colour(sheet),
              backgroundColor: palette.paper,
              alignItems: 'center',
              justifyContent: 'center',
              gap: 4,
              paddingHorizontal: 4,
            }}
          >
            <View
              style={{
                position: 'absolute',
                [sheet.right ? 'right' : 'left']: -4,
                [sheet.rear ? 'top' : 'bottom']: -10,
                minWidth: 26,
                height: 26,
                borderRadius: 13,
                alignItems: 'center',
                justifyContent: 'center',
                backgroundColor: palette.ink,
              }}
            >
              <Words size="small" bold tone="paper">
                {String(sheet.order)}
              </Words>
            </View>
            <Words bold align="center">
              {sheet.name}
            </Words>
            <Words size="small" tone="steel" align="center">
              {sheet.felt ?? '?'}
            </Words>
          </Pressable>
        ))}
      </View>
      <FrontEdge />
    </View>
  );
}
