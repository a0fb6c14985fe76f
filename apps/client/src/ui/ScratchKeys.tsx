import { LAP_PLACES, type LapPlace } from '@even-bed/core/level/lapProgress';
import { LAP_PLACE_NAMES } from '@even-bed/words/shape';
import { useState } from 'react';
import { View } from 'react-native';
import { KeyRow } from './KeyRow';
import { ScratchMap } from './ScratchMap';
import { Words } from './Words';

interface Props {
  touched: Partial<Record<LapPlace, number>>;
  onTouched: (place: LapPlace, value: number) => void;
}

const KEYS = [
  { id: '0', label: 'none' },
  { id: '25', label: 'quarter' },
  { id: '50', label: 'half' },
  { id: '75', label: 'most' },
  { id: '95', label: 'nearly' },
  { id: '100', label: 'all' },
];

/** How much of each part of a platform is scratched: the map, the part meant, six keys. */
export function ScratchKeys({ touched, onTouched }: Props) {
  const open = LAP_PLACES.find((place) => touched[place] === undefined) ?? null;
  const [picked, setPicked] = useState<LapPlace | null>(null);
  const at = picked ?? open;
  return (
    <View style={{ gap: 12 }}>
      <ScratchMap
        parts={LAP_PLACES.map((id) => ({ id, name: LAP_PLACE_NAMES[id], touched: touched[id] ?? null }))}
        at={at}
        onPick={setPicked}
        label="The platform’s face, its front towards you"
      />
      {at ? (
        <>
          <Words size="lead" bold live testID="scratch-now">
            {`${LAP_PLACE_NAMES[at][0]!.toUpperCase()}${LAP_PLACE_NAMES[at].slice(1)}: how much is scratched?`}
          </Words>
          <KeyRow
            keys={KEYS}
            onPress={(value) => {
              onTouched(at, Number(value));
              setPicked(null);
            }}
            testID="scratch-key"
          />
        </>
      ) : null}
    </View>
  );
}
