import type { MachineOverview } from '@even-bed/contract';
import { Link } from 'expo-router';
import { Pressable, View } from 'react-native';
import { useAppSelector } from '../state/store';
import { BedPlan } from '../ui/BedPlan';
import { length } from '../ui/formatHeight';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { usePalette } from '../ui/theme';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { areasOf } from './FloorList';
import { machineState, plateOf } from '../fleet/machineState';

/** The whole floor at once, for a wide screen: plates side by side, area by area, all on one scale. */
export function FloorPlates({ machines }: { machines: readonly MachineOverview[] }) {
  const now = useNow();
  const palette = usePalette();
  const drafts = useAppSelector((state) => state.level.drafts);
  const busy = new Set(Object.values(drafts).map(({ machineId }) => machineId));
  const largest = Math.max(...machines.map(({ plateDepth }) => plateDepth), 1);
  return (
    <>
      {areasOf(machines).map(([area, list]) => (
        <Section key={area} title={area.toUpperCase()}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
            {list.map((machine) => {
              const state = machineState(machine, now, busy.has(machine.id));
              return (
                <Link key={machine.id} href={`/floor/${machine.id}`} asChild>
                  <Pressable
                    testID={`machine-${machine.name}`}
                    style={{
                      width: 212,
                      flexDirection: 'row',
                      gap: 12,
                      paddingVertical: 12,
                      borderTopWidth: 1,
                      borderTopColor: palette.hairline,
                    }}
                  >
                    <View style={{ width: 72, justifyContent: 'flex-end', height: 78 }}>
                      <BedPlan
                        plate={plateOf(machine)}
                        cells={machine.lastCheck?.map ?? null}
                        {...(machine.lastCheck ? { aim: machine.lastCheck.aim } : {})}
                        label=""
                        maxHeight={Math.max(30, (78 * machine.plateDepth) / largest)}
                        small
                      />
                    </View>
                    <View style={{ flex: 1, gap: 3 }}>
                      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
                        <Words bold>{machine.name}</Words>
                        {machine.shelf ? <Tag>{machine.shelf}</Tag> : null}
                      </View>
                      <Words size="small" tone="steel">
                        {machine.lastCheck ? `range ${length(machine.lastCheck.after)}` : machine.model}
                      </Words>
                      {machine.top ? (
                        <Words size="small" tone="steel">
                          {`${machine.top.tag}, side ${machine.top.sideUp}`}
                        </Words>
                      ) : null}
                      <Signal kind={state.signal} word={state.words} size={15} />
                    </View>
                  </Pressable>
                </Link>
              );
            })}
          </View>
        </Section>
      ))}
    </>
  );
}
