import type { HeightPoint } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { aimOf } from '@even-bed/core/level/firstLayerAim';
import type { ShapeCure } from '@even-bed/core/level/shapeCures';
import { CURE_NAMES, cureWords } from '@even-bed/words/shape';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Loading } from '../ui/Loading';
import { currentManner } from '../ui/manner';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { handStrips } from './handStrips';

interface Props {
  map: readonly HeightPoint[];
  noise: number | null;
  machineId: string | null;
  surfaceId: string | null;
  plate?: { width: number; depth: number };
  from: 'light' | 'map';
}

const work = (input: Parameters<ReturnType<typeof shaper>['cures']>[0]) => shaper().cures(input);
/** Tape of which nobody knows more, mm: to weigh strips by. Common practice. */
const COMMON_TAPE = { thickness: 0.075, width: 50 };

/** What can be done about a shape, what each would leave, and the way there. */
export function ShapeCures({ map, noise, machineId, surfaceId, plate, from }: Props) {
  const router = useRouter();
  const { data: machines = [] } = useMachinesQuery();
  const machine = machines.find(({ id }) => id === machineId) ?? null;
  const [bendable, setBendable] = useState<'yes' | 'no' | null>(null);
  const [family, setFamily] = useState<'filament' | 'resin'>('filament');
  const [proven, setProven] = useState('');
  const { units } = currentManner();
  const reference = proven.trim() === '' ? null : readLength(proven, units);
  const unread = proven.trim() !== '' && !(reference !== null && reference >= 0 && reference <= 5);
  const kind = machine?.family ?? family;
  const aim = machine ? aimOf(machine) : 0.1;
  const worked = useWorked(
    {
      map,
      aim,
      family: kind,
      compensation: machine?.compensation ?? false,
      tape: COMMON_TAPE,
      bendable: bendable === null ? null : bendable === 'yes',
      reference: unread ? null : reference,
      ...(noise === null ? {} : { noise }),
      ...(plate ? { plate } : {}),
    },
    work,
  );
  const query = machineId ? `?machine=${machineId}` : surfaceId ? `?surface=${surfaceId}` : '';
  const to: Partial<Record<ShapeCure['cure'], { label: string; go: () => void }>> = {
    shim: {
      label: 'Plan the strips',
      go: () => {
        void handStrips(machineId ?? surfaceId ?? '', { map, noise, plate: plate ?? null, from }).then(() =>
          router.push(`/tools/strips${query}` as never),
        );
      },
    },
    lap: { label: 'Lap it', go: () => router.push(`/tools/lap${query}` as never) },
    'under-bed': { label: 'What touches from below', go: () => router.push('/tools/underbed') },
    map: { label: 'Does it follow its map?', go: () => router.push(`/tools/layer${query}` as never) },
  };
  return (
    <Section title="WHAT CAN BE DONE" testID="cures">
      {machine ? null : (
        <Choice
          label="For"
          options={[
            { value: 'filament', label: 'filament' },
            { value: 'resin', label: 'resin' },
          ]}
          value={family}
          onChange={setFamily}
          testID="cure-family"
        />
      )}
      <Choice
        label="May it be bent: heater off it, or its maker allows it"
        options={[
          { value: 'yes', label: 'it may' },
          { value: 'no', label: 'it may not' },
        ]}
        value={bendable}
        onChange={setBendable}
        testID="bendable"
      />
      <Field
        label={kind === 'resin' ? 'Flatness of the glass or granite at hand' : 'Flatness of the pane at hand'}
        unit={units}
        keyboard="decimal"
        value={proven}
        onChange={setProven}
        {...(unread ? { error: 'A length, like 0.02.' } : { hint: 'If light has proven it; else left empty.' })}
        testID="cure-reference"
      />
      {worked.kind === 'failed' ? <Words tone="stop">{worked.message}</Words> : null}
      {worked.kind === 'busy' || worked.kind === 'none' ? <Loading what="the cures" /> : null}
      {worked.kind === 'done'
        ? worked.result
            .filter(({ not }) => not !== 'not-this-family' && not !== 'nothing-there')
            .map((cure) => (
              <View key={cure.cure} testID={`cure-${cure.cure}`}>
                <Row lead={<Signal kind={signalOf(cure)} />}>
                  <Words bold>{CURE_NAMES[cure.cure]}</Words>
                  <Words size="small" tone="steel">
                    {cureWords(cure, currentManner())}
                  </Words>
                  {cure.not === null && !worked.stale && to[cure.cure] ? (
                    <View style={{ alignSelf: 'flex-start' }}>
                      <ActionButton
                        label={to[cure.cure]!.label}
                        kind="quiet"
                        onPress={to[cure.cure]!.go}
                        testID={`do-${cure.cure}`}
                      />
                    </View>
                  ) : null}
                </Row>
              </View>
            ))
        : null}
    </Section>
  );
}

function signalOf({ not, within }: ShapeCure): SignalKind {
  if (not !== null) return 'stop';
  return within === null ? 'hold' : within ? 'ready' : 'due';
}
