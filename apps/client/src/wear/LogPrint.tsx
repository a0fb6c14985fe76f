import { wearOperations } from '@even-bed/contract/wear/operations';
import type { MachineOverview } from '@even-bed/contract';
import type { PlatePlace } from '@even-bed/core/wear/platePlaces';
import { FAILURE_WORDS, FAILURES, type PrintFailure } from '@even-bed/core/wear/printWords';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { deviceStore } from '../offline/deviceStore';
import { later, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { usePrinting } from '../ui/usePrinting';
import { useSteadyTap } from '../ui/useSteadyTap';
import { rightNow } from '../ui/useNow';
import { Row } from '../ui/Row';
import { SayMore } from './SayMore';
import { useWithdrawPrintMutation } from './wearApi';

const NOWHERE: PlatePlace[] = [];

interface Done {
  id: string;
  held: boolean;
  failure: PrintFailure | null;
}

/** The last print in one tap when it held, in two when it failed; it waits here when there is no signal. */
export function LogPrint({ machine }: { machine: MachineOverview }) {
  const steady = useSteadyTap();
  const [asking, setAsking] = useState(false);
  const [material, setMaterial] = useState<string | null>(null);
  const [done, setDone] = useState<Done | null>(null);
  const [withdraw] = useWithdrawPrintMutation();
  const waits = useAppSelector(({ waiting }) => done !== null && waiting.list.some(({ key }) => key === done.id));
  // What was printed here last is probably printed again.
  const [kept, setKept] = useState('');
  useEffect(() => {
    void deviceStore.get<string>('material', machine.id).then((known) => setKept(known ?? ''));
  }, [machine.id]);
  const printing = usePrinting();
  if (printing) return null;
  const said = material ?? kept;
  const log = (held: boolean, failure: PrintFailure | null) => {
    const id = uuid();
    const body = { machineId: machine.id, material: said.trim(), endedAt: rightNow(), held, failure };
    later(wearOperations.logPrint, {
      params: { id },
      body: { ...body, duration: null, grams: null, release: null, note: '' },
      key: id,
      what: `${machine.name}: print ${held ? 'held' : 'failed'}`,
      at: `/floor/${machine.id}`,
    });
    void deviceStore.set('material', machine.id, said.trim());
    setDone({ id, held, failure });
    setAsking(false);
  };
  return (
    <Section title="THE LAST PRINT" testID="log-print">
      {done ? (
        <>
          <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 12 }}>
            <Signal
              kind={done.held ? 'ready' : 'due'}
              word={`${done.held ? 'Held' : `Failed${done.failure ? `, ${FAILURE_WORDS[done.failure]}` : ''}`}${waits ? ', waits to be sent' : ', written down'}`}
            />
            <View style={{ flexDirection: 'row' }}>
              {waits ? null : (
                <ActionButton
                  label="Undo"
                  kind="quiet"
                  onPress={steady(() => {
                    void withdraw({ id: done.id });
                    setDone(null);
                  })}
                  testID="print-undo"
                />
              )}
              <ActionButton label="Next" kind="quiet" onPress={steady(() => setDone(null))} testID="print-next" />
            </View>
          </View>
          {done.held ? null : (
            <SayMore
              failureSaid
              key={done.id}
              machine={machine}
              print={{
                id: done.id,
                machineId: machine.id,
                held: false,
                failure: done.failure,
                release: null,
                places: NOWHERE,
                note: '',
              }}
            />
          )}
          {waits ? null : (
            <Row href={`/prints/${done.id}`} testID="print-open">
              <Words>{done.held ? 'Add details of this print' : 'Add a photo, see what changed'}</Words>
            </Row>
          )}
        </>
      ) : asking ? (
        <View style={{ gap: 8 }}>
          <Words>How did it fail?</Words>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            {FAILURES.map((failure) => (
              <ActionButton
                key={failure}
                label={FAILURE_WORDS[failure]}
                onPress={steady(() => log(false, failure))}
                testID={`failed-${failure}`}
              />
            ))}
          </View>
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton label="It did not fail" kind="quiet" onPress={steady(() => setAsking(false))} />
          </View>
        </View>
      ) : (
        <View style={{ gap: 8 }}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
            <ActionButton
              label="It held"
              icon="check"
              grow
              onPress={steady(() => log(true, null))}
              testID="print-held"
            />
            <ActionButton
              label="It failed"
              icon="failed"
              grow
              onPress={steady(() => setAsking(true))}
              testID="print-failed"
            />
          </View>
          <View style={{ maxWidth: 320 }}>
            <Field
              label="Material"
              value={said}
              onChange={setMaterial}
              placeholder={machine.family === 'resin' ? 'standard resin' : 'PETG'}
              testID="print-material"
            />
          </View>
        </View>
      )}
    </Section>
  );
}
