import { useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { usePlacesQuery } from './surfacesApi';

interface Props {
  title: string;
  failure?: string | undefined;
  onPlace: (place: string) => Promise<void>;
  onClose: () => void;
}

/** Where something goes: one of the places that are in use, in one tap, or a new one. */
export function PlaceDialog({ title, failure, onPlace, onClose }: Props) {
  const { data: places = [] } = usePlacesQuery();
  const [place, setPlace] = useState('');
  const [busy, setBusy] = useState(false);
  const go = (to: string) => {
    setBusy(true);
    void onPlace(to).finally(() => setBusy(false));
  };
  return (
    <DialogFrame open title={title} onClose={onClose} testID="place-dialog">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {places.slice(0, 8).map((known) => (
          <ActionButton key={known} label={known} disabled={busy} onPress={() => go(known)} testID={`place-${known}`} />
        ))}
      </View>
      <Field
        label="Another place"
        value={place}
        onChange={setPlace}
        onSubmit={() => go(place)}
        placeholder="Rack 2, shelf B"
        error={failure}
        testID="place-typed"
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton label="Put it there" kind="main" busy={busy} onPress={() => go(place)} grow testID="place-go" />
      </View>
    </DialogFrame>
  );
}
