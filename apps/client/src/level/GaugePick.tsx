import { noteOperations } from '@even-bed/contract/level/noteOperations';
import { gaugeOf, type GaugeAsk } from '@even-bed/core/level/gauge';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { size } from '../ui/formatHeight';
import { Pick } from '../ui/Pick';
import { rightNow } from '../ui/useNow';
import { useGaugesQuery } from './noteApi';

interface Props {
  gauge: GaugeAsk;
  /** Whether what is typed can be kept. */
  whole: boolean;
  onPick: (gauge: GaugeAsk) => void;
}

/** The shop's gauges: one taken, what is typed kept under a name, or one let go. */
export function GaugePick({ gauge, whole, onPick }: Props) {
  const { data: gauges = [] } = useGaugesQuery({});
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const [name, setName] = useState('');
  const same = gauges.find(
    (one) =>
      one.kind === gauge.kind &&
      one.layers === gauge.layers &&
      one.caliper?.pieces === gauge.caliper?.pieces &&
      one.caliper?.reading === gauge.caliper?.reading,
  );
  const keep = () => {
    const id = uuid();
    later(noteOperations.keepGauge, {
      params: { id },
      body: { ...gauge, name: name.trim(), at: rightNow() },
      key: id,
      what: `Gauge ${name.trim()}`,
      at: '/tools/feel',
    });
    setName('');
  };
  return (
    <View style={{ gap: 10 }}>
      {gauges.length > 0 ? (
        <Pick
          label="One of the shop’s gauges"
          options={gauges.map((one) => ({ value: one.id, label: `${one.name}, ${size(gaugeOf(one).thickness, 3)}` }))}
          value={same?.id ?? null}
          onChange={(id) => {
            const one = gauges.find((known) => known.id === id)!;
            onPick({ kind: one.kind, layers: one.layers, caliper: one.caliper });
          }}
          placeholder="None of them: as below"
          testID="gauge-known"
        />
      ) : null}
      {same && mayDo ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label={`Let go of ${same.name}`}
            kind="quiet"
            onPress={() =>
              later(noteOperations.withdrawGauge, {
                params: { id: same.id },
                body: { at: rightNow() },
                key: uuid(),
                what: `Gauge ${same.name} let go`,
                at: '/tools/feel',
              })
            }
            testID="gauge-forget"
          />
        </View>
      ) : null}
      {!same && whole && gauge.caliper && mayDo ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start' }}>
          <Field
            label="Keep it for the shop, as"
            value={name}
            onChange={setName}
            placeholder="Blue card"
            testID="gauge-name"
          />
          <View style={{ paddingTop: 23 }}>
            <ActionButton label="Keep it" onPress={keep} disabled={name.trim() === ''} testID="gauge-keep" />
          </View>
        </View>
      ) : null}
    </View>
  );
}
