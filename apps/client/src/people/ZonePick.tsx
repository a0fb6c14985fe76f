import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Row } from '../ui/Row';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { clockIn, zonesFor } from './zones';

interface Props {
  value: string;
  onChange: (zone: string) => void;
  error: string | undefined;
}

/** The shop's time zone: chosen from those that there are, each with its clock beside it. */
export function ZonePick({ value, onChange, error }: Props) {
  const now = useNow();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const zones = zonesFor(typed, [here, value].filter(Boolean));
  return (
    <View style={{ gap: 4 }}>
      <Words size="small" tone="steel">
        Time zone
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <Words bold testID="zone-now">{`${value}, ${clockIn(value, now)}`}</Words>
        <ActionButton label="Another zone" onPress={() => setOpen(true)} testID="set-zone" />
      </View>
      <Words size="small" tone={error ? 'stop' : 'steel'}>
        {error ?? (here && here !== value ? `This device is in ${here}.` : 'Times are shown in this zone.')}
      </Words>
      <DialogFrame open={open} title="Time zone" onClose={() => setOpen(false)} testID="zone-dialog">
        <Field label="A city or a part of the world" value={typed} onChange={setTyped} testID="zone-search" />
        <ScrollView style={{ height: 300 }}>
          {zones.length === 0 ? (
            <Words tone="steel">No zone is called that. Try the largest city of the country.</Words>
          ) : null}
          {zones.map((zone) => (
            <Row
              key={zone}
              selected={zone === value}
              onPress={() => {
                onChange(zone);
                setOpen(false);
              }}
              end={
                <Words size="small" figures>
                  {clockIn(zone, now)}
                </Words>
              }
              testID={`zone-${zone}`}
            >
              <Words bold={zone === value}>{zone.replaceAll('_', ' ')}</Words>
            </Row>
          ))}
        </ScrollView>
      </DialogFrame>
    </View>
  );
}
