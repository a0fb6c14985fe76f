import type { MachineOverview, Surface } from '@even-bed/contract';
import { Pressable, View } from 'react-native';
import { machineState } from '../fleet/machineState';
import { Icon } from '../ui/Icon';
import { LifeStrip } from '../ui/LifeStrip';
import { Row } from '../ui/Row';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { conditionWords, lifeOfSide, lifeWords, whereWords } from './surfaceWords';

interface Props {
  surface: Surface;
  now: number;
  /** The machine that it lies on, as far as it is known. */
  machine?: MachineOverview | undefined;
  selected: boolean;
  /** null: nothing is being chosen, the row leads to its page. */
  chosen: boolean | null;
  onChoose: () => void;
}

/** A surface as a line of the rack: tag, kind, where it is, and the life of the side that is up. */
export function RackRow({ surface, now, machine, selected, chosen, onChoose }: Props) {
  const palette = usePalette();
  const { where } = surface.state;
  const condition = conditionWords(surface.state, now);
  const life = lifeOfSide(surface, where.kind === 'machine' ? where.sideUp : 'A', now);
  // What lies on a machine that can't print is no sheet to print on, whatever its own state.
  const state = where.kind === 'machine' && machine ? machineState(machine, now, false) : null;
  const stopped = state?.readiness.state === 'not' ? `${machine!.name}: ${state.words}` : null;
  const line = (
    <Row
      lead={<Signal kind={condition.signal} />}
      href={chosen === null ? `/rack/${surface.id}` : undefined}
      selected={selected}
      testID={`surface-${surface.tag}`}
      end={
        <Words size="small" bold={condition.signal !== 'ready'}>
          {condition.words}
        </Words>
      }
    >
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <Tag>{surface.tag}</Tag>
        <View style={{ flexShrink: 1 }}>
          <Words bold>{surface.kind.name}</Words>
        </View>
      </View>
      <Words size="small" tone="steel">
        {whereWords(surface)}
        {stopped ? ` · ${stopped}` : ''}
      </Words>
      {life ? (
        <View style={{ maxWidth: 260 }}>
          <LifeStrip {...life} small label={lifeWords(life)} />
        </View>
      ) : null}
    </Row>
  );
  if (chosen === null) return line;
  return (
    <Pressable
      role="checkbox"
      aria-checked={chosen}
      aria-label={`Choose ${surface.tag}`}
      onPress={onChoose}
      testID={`choose-${surface.tag}`}
      style={{ flexDirection: 'row', alignItems: 'center' }}
    >
      <View
        style={{
          width: TOUCH - 16,
          height: TOUCH - 16,
          marginRight: 12,
          borderWidth: 2,
          borderColor: chosen ? palette.accent : palette.edge,
          borderRadius: 4,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {chosen ? <Icon name="check" size={22} color={palette.accent} /> : null}
      </View>
      <View style={{ flex: 1 }}>{line}</View>
    </Pressable>
  );
}
