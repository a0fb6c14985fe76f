import { View } from 'react-native';
import { BedPlan } from '../ui/BedPlan';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useMachineQuery } from '../fleet/fleetApi';
import { machineState, plateOf } from '../fleet/machineState';

/** The machine that a work is about, beside it: its plate, where it stands, what lies on it. */
export function MachineGlance({ machineId }: { machineId: string }) {
  const now = useNow();
  const { data: machine } = useMachineQuery({ id: machineId });
  if (!machine) return null;
  const { signal, words } = machineState(machine, now, false);
  return (
    <Section title="THE MACHINE" testID="machine-glance">
      <BedPlan
        plate={plateOf(machine)}
        adjusters={machine.adjusters}
        cells={machine.lastCheck?.map ?? null}
        {...(machine.lastCheck ? { aim: machine.lastCheck.aim } : {})}
        maxHeight={170}
        label={`Plate of ${machine.name}`}
      />
      <Row href={`/floor/${machine.id}`} end={<Signal kind={signal} word={words} />}>
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          <Words bold>{machine.name}</Words>
          {machine.shelf ? <Tag>{machine.shelf}</Tag> : null}
        </View>
        <Words size="small" tone="steel">
          {[machine.areaName, machine.top ? `${machine.top.tag}, side ${machine.top.sideUp}` : null]
            .filter(Boolean)
            .join(' · ')}
        </Words>
      </Row>
    </Section>
  );
}
