import type { MachineOverview } from '@even-bed/contract';
import { View } from 'react-native';
import { useAppSelector } from '../state/store';
import { BedPlan } from '../ui/BedPlan';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { machineState, plateOf } from '../fleet/machineState';

interface Props {
  machines: readonly MachineOverview[];
  selectedId?: string;
}

/** Machines area by area, each with its plate in plan and its state. */
export function FloorList({ machines, selectedId }: Props) {
  const now = useNow();
  const drafts = useAppSelector((state) => state.level.drafts);
  const busy = new Set(Object.values(drafts).map(({ machineId }) => machineId));
  return (
    <>
      {areasOf(machines).map(([area, list]) => (
        <Section key={area} title={area.toUpperCase()}>
          {list.map((machine) => {
            const state = machineState(machine, now, busy.has(machine.id));
            return (
              <Row
                key={machine.id}
                href={`/floor/${machine.id}`}
                selected={machine.id === selectedId}
                testID={`machine-${machine.name}`}
                lead={
                  <View style={{ width: 32 }}>
                    <BedPlan
                      plate={plateOf(machine)}
                      cells={machine.lastCheck?.map ?? null}
                      {...(machine.lastCheck ? { aim: machine.lastCheck.aim } : {})}
                      maxHeight={44}
                      small
                    />
                  </View>
                }
                end={<Signal kind={state.signal} word={state.words} />}
              >
                <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
                  <Words bold>{machine.name}</Words>
                  {machine.shelf ? <Tag>{machine.shelf}</Tag> : null}
                </View>
                <Words size="small" tone="steel">
                  {machine.top ? `${machine.top.tag}, side ${machine.top.sideUp}` : machine.model}
                </Words>
              </Row>
            );
          })}
        </Section>
      ))}
    </>
  );
}

/** Machines grouped by area, in the order in which they come. */
export function areasOf(machines: readonly MachineOverview[]): [string, MachineOverview[]][] {
  const areas = new Map<string, MachineOverview[]>();
  for (const machine of machines) {
    const list = areas.get(machine.areaName);
    if (list) list.push(machine);
    else areas.set(machine.areaName, [machine]);
  }
  return [...areas];
}
