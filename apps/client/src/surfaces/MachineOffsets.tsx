import { surfaceOperations } from '@even-bed/contract/surfaces/operations';
import type { MachineOverview } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later } from '../state/store';
import { lengthUnit, signedLength, sizeFigure } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { shortDate } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Tag } from '../ui/Tag';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { PredictedOffset } from './PredictedOffset';
import { useOffsetsQuery, useWithdrawOffsetMutation } from './surfacesApi';

interface Props {
  machine: MachineOverview;
  surfaceId: string;
  tag: string;
  now: number;
  mayDo: boolean;
}

const keptWords = (count: number) => (count === 0 ? 'none kept yet' : `${count} kept`);

/** The Z offsets that worked on a machine, the one to expect of what lies there, and keeping a new one. */
export function MachineOffsets({ machine, surfaceId, tag, now, mayDo }: Props) {
  const { data: offsets = [] } = useOffsetsQuery({ machineId: machine.id });
  const printing = usePrinting();
  const [withdraw] = useWithdrawOffsetMutation();
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string>();
  const keep = () => {
    const offset = readLength(text.replace('\u2212', '-'));
    if (offset === null || Math.abs(offset) > 20) {
      setFault(`Type the offset in ${lengthUnit()}, such as ${sizeFigure(-1.25, 2)}.`);
      return;
    }
    setFault(undefined);
    setText('');
    const id = uuid();
    later(surfaceOperations.keepOffset, {
      params: { id },
      body: { machineId: machine.id, surfaceId, offset, weight: 1, note: '', at: Date.now() },
      key: id,
      what: `Z offset of ${machine.name} with ${tag}`,
      at: `/floor/${machine.id}`,
    });
  };
  return (
    <>
      <PredictedOffset machineId={machine.id} surfaceId={surfaceId} />
      {printing && offsets.length === 0 ? null : (
        <Section title="OFFSETS THAT WORKED" testID="offsets" folded={keptWords(offsets.length)}>
          {mayDo && !printing ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start', maxWidth: 460 }}>
              <Field
                label={`Works with ${tag}`}
                unit="mm"
                keyboard="signed"
                value={text}
                onChange={setText}
                onSubmit={keep}
                error={fault}
                placeholder="-1.25"
                testID="offset-typed"
              />
              <View style={{ paddingTop: 23 }}>
                <ActionButton label="Keep it" onPress={keep} disabled={text.trim() === ''} testID="offset-keep" />
              </View>
            </View>
          ) : null}
          {offsets.slice(0, 6).map((known) => (
            <Row
              key={known.id}
              testID={`offset-${known.surfaceTag}`}
              end={
                <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
                  <Words bold figures>
                    {signedLength(known.offset)}
                  </Words>
                  {mayDo ? (
                    <ActionButton label="Forget" kind="quiet" onPress={() => void withdraw({ id: known.id })} />
                  ) : null}
                </View>
              }
            >
              <View style={{ flexDirection: 'row', gap: 8 }}>
                <Tag>{known.surfaceTag}</Tag>
                <Words size="small" tone="steel">
                  {shortDate(known.at, now)}
                </Words>
              </View>
            </Row>
          ))}
        </Section>
      )}
    </>
  );
}
