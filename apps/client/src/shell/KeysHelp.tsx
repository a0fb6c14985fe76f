import { useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { SPACE } from '../ui/theme';
import { setSingleKeysAct, singleKeysAct } from '../ui/useKeys';
import { Words } from '../ui/Words';

const KEYS: readonly [string, string][] = [
  ['b, f, r, k, o', 'Go to the bench, the floor, the rack, the book, the tools'],
  ['/', 'Go to the search field'],
  ['arrows, Enter', 'Move through a grid of readings'],
  ['u', 'Use the heights that were read'],
  ['1 to 9', 'Tick a turn as made'],
  ['t', 'I have made these turns'],
  ['m', 'Measure again'],
  ['e', 'Finish a check that is within its aim'],
  ['?', 'Show this list'],
];

/** The keys of a wide screen. */
export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [act, setAct] = useState(singleKeysAct);
  return (
    <DialogFrame open={open} title="Keys" onClose={onClose} testID="keys-help">
      {KEYS.map(([key, use]) => (
        <View key={key} style={{ flexDirection: 'row', gap: SPACE.m }}>
          <View style={{ width: 120 }}>
            <Words bold>{key}</Words>
          </View>
          <View style={{ flex: 1 }}>
            <Words>{use}</Words>
          </View>
        </View>
      ))}
      <Choice
        label="One-key shortcuts on this device"
        options={[
          { value: 'on', label: 'On' },
          { value: 'off', label: 'Off' },
        ]}
        value={act ? 'on' : 'off'}
        onChange={(value) => {
          setSingleKeysAct(value === 'on');
          setAct(value === 'on');
        }}
        testID="single-keys"
      />
      <ActionButton label="Close" kind="main" onPress={onClose} testID="close-keys" />
    </DialogFrame>
  );
}
