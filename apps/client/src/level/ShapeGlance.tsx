import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import type { ShapeRecord } from '@even-bed/contract';
import { SHAPE_KIND_NAMES, shapeResultWords } from '@even-bed/words/shape';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { shortDate } from '../ui/formatTime';
import { currentManner } from '../ui/manner';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { rightNow } from '../ui/useNow';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { useShapesQuery } from './shapeApi';

interface Props {
  of: { machineId: string } | { surfaceId: string };
  /** What it can be: a platform is lapped, a bed's first layer is measured. */
  kind: 'filament' | 'resin' | 'surface' | 'platform';
  now: number;
}

const SHOWN = 4;

/** On the page of a machine or a surface: what is known of its shape, and the ways to look, shim, lap and measure. */
export function ShapeGlance({ of, kind, now }: Props) {
  const { data: records = [] } = useShapesQuery(of);
  const router = useRouter();
  const printing = usePrinting();
  const mayDo = useAppSelector((state) => state.people.person?.role) !== 'looker';
  const [name, id] = 'machineId' in of ? ['machine', of.machineId] : ['surface', of.surfaceId];
  if (printing && records.length === 0) return null;
  const go = (tool: string) => () => router.push(`/tools/${tool}?${name}=${id}` as never);
  const [last] = records;
  const back = (record: ShapeRecord) =>
    later(shapeOperations.withdrawShape, {
      params: { id: record.id },
      body: { at: rightNow() },
      key: uuid(),
      what: `${SHAPE_KIND_NAMES[record.kind]} taken back`,
      at: 'machineId' in of ? `/floor/${id}` : `/rack/${id}`,
    });
  return (
    <Section title="ITS SHAPE" testID="shape-glance" folded={last ? shortDate(last.at, now) : 'none yet'}>
      {records.slice(0, SHOWN).map((record) => (
        <View key={record.id} testID={`shape-${record.kind}`}>
          <Row
            lead={<Signal kind={signalOf(record)} />}
            end={
              mayDo && !printing ? (
                <ActionButton
                  label="Take back"
                  kind="quiet"
                  onPress={() => back(record)}
                  testID={`shape-back-${record.kind}`}
                />
              ) : undefined
            }
          >
            <Words>{`${shortDate(record.at, now)}, ${SHAPE_KIND_NAMES[record.kind].toLowerCase()}`}</Words>
            <Words size="small" tone="steel">
              {sentence(record)}
            </Words>
          </Row>
        </View>
      ))}
      {printing ? null : (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
          <ActionButton label="Look by light" kind="quiet" onPress={go('light')} testID="to-light" />
          <ActionButton label="Flat or not" kind="quiet" onPress={go('shape')} testID="to-shape" />
          {kind === 'filament' ? (
            <>
              <ActionButton
                label="Two maps compared"
                kind="quiet"
                onPress={() => router.push(`/floor/${id}/maps` as never)}
                testID="to-maps"
              />
              <ActionButton label="First layer against the map" kind="quiet" onPress={go('layer')} testID="to-layer" />
            </>
          ) : null}
          {kind === 'filament' || kind === 'surface' ? (
            <ActionButton label="Strips of tape" kind="quiet" onPress={go('strips')} testID="to-strips" />
          ) : null}
          {kind === 'resin' || kind === 'platform' ? (
            <ActionButton label="Lap it" kind="quiet" onPress={go('lap')} testID="to-lap" />
          ) : null}
        </View>
      )}
    </Section>
  );
}

const sentence = ({ result }: ShapeRecord) => {
  const text = shapeResultWords(result, currentManner());
  return `${text[0]!.toUpperCase()}${text.slice(1)}`;
};

function signalOf({ result }: ShapeRecord): SignalKind {
  switch (result.kind) {
    case 'light':
      return result.verdict === 'flat' ? 'ready' : result.verdict === 'again' ? 'hold' : 'due';
    case 'strips':
      return 'ready';
    case 'lap':
      return result.verdict === 'done' ? 'ready' : 'due';
    case 'layer':
      return result.verdict === (result.compensation === 'off' ? 'not-applied' : 'compensated')
        ? 'ready'
        : result.verdict === 'untold' || result.verdict === 'sign'
          ? 'hold'
          : 'due';
  }
}
