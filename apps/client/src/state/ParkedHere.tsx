import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { dropRecord, isOneThing, sendAgain, sendChanged, useAppSelector } from './store';
import { changeable, changed, type Changeable } from '../offline/changeParked';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Prompt } from '../ui/Prompt';
import { Words } from '../ui/Words';
import { isOf, type Parked, type Waiting } from '../offline/waiting';
import { selectParked } from '../offline/waitingSlice';

/**
 * What goes no further by itself of what was done on this device: with its reason, and what can be done. What another
 * person has left here is theirs: of that the others see how much it is.
 * @param of of this record alone
 */
export function ParkedHere({ of }: { of?: string }) {
  const parked = useAppSelector(selectParked);
  const personId = useAppSelector(({ people }) => people.person?.id ?? null);
  const here = parked.filter((one) => of === undefined || one.of === of);
  const mine = here.filter((one) => isOf(one, personId));
  const others = here.length - mine.length;
  return (
    <>
      {mine.map((one) => (
        <ParkedOne key={one.key} one={one} />
      ))}
      {others > 0 ? (
        <Notice
          kind="hold"
          title={`${others === 1 ? 'One entry' : `${others} entries`} of somebody else could not be sent`}
          testID="parked-others"
        >
          {`The person who made ${others === 1 ? 'it' : 'them'} can sign in here and send, change or drop ${others === 1 ? 'it' : 'them'}.`}
        </Notice>
      ) : null}
    </>
  );
}

function ParkedOne({ one }: { one: Waiting & { parked: Parked } }) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [changing, setChanging] = useState(false);
  const fields = isOneThing(one) ? [] : changeable(one);
  const { what, at, of, key, parked } = one;
  const after = useAppSelector(({ waiting }) => waiting.list.filter((other) => other.of === of).length) - 1;
  const lost =
    after > 0 ? ` With it ${after === 1 ? 'one entry goes' : `${after} entries go`} that came after it.` : '';
  return (
    <Notice
      kind="stop"
      title={`${what}: ${parked.kind === 'refused' ? 'the server refused it' : 'the server could not do it'}`}
      testID="parked"
    >
      <Words>{parked.reason}</Words>
      <Words size="small" tone="steel">
        {after > 0
          ? `${after === 1 ? 'One entry' : `${after} entries`} that came after it wait for it. Everything else goes on.`
          : 'It is kept on this device. Everything else goes on.'}
      </Words>
      <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap', marginTop: 8 }}>
        {fields.length > 0 ? (
          <ActionButton label="Change" onPress={() => setChanging(true)} testID="parked-change" />
        ) : null}
        <ActionButton label="Send again" onPress={() => sendAgain(key)} testID="parked-again" />
        {at === null ? null : (
          <ActionButton label="Look at it" kind="quiet" onPress={() => router.push(at as Href)} testID="parked-look" />
        )}
        <ActionButton label="Let go of it" kind="quiet" onPress={() => setAsking(true)} testID="parked-drop" />
      </View>
      {changing ? <ChangeDialog one={one} fields={fields} onClose={() => setChanging(false)} /> : null}
      <Prompt
        open={asking}
        title="Let go of it?"
        text={`${what}: it is not written down anywhere else.${lost}`}
        confirm="Let go of it"
        onCancel={() => setAsking(false)}
        onConfirm={() => {
          setAsking(false);
          dropRecord(of, key);
        }}
      />
    </Notice>
  );
}

/** Puts right what the server refused, and sends it anew. */
function ChangeDialog({ one, fields, onClose }: { one: Waiting; fields: readonly Changeable[]; onClose: () => void }) {
  const [texts, setTexts] = useState(() => Object.fromEntries(fields.map(({ path, text }) => [path, text])));
  const [faults, setFaults] = useState<Record<string, string>>(() =>
    Object.fromEntries(fields.flatMap(({ path, fault }) => (fault ? [[path, fault]] : []))),
  );
  const send = () => {
    const next = changed(one, texts);
    if (!next.ok) return setFaults(next.faults);
    sendChanged(next.waiting);
    onClose();
  };
  return (
    <DialogFrame open title={one.what} onClose={onClose} testID="change-parked">
      {fields.map(({ path, label }) => (
        <Field
          key={path}
          label={label}
          value={texts[path] ?? ''}
          onChange={(text) => setTexts((old) => ({ ...old, [path]: text }))}
          {...(faults[path] ? { error: faults[path] } : {})}
          testID={`change-${path}`}
        />
      ))}
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" grow onPress={onClose} />
        <ActionButton label="Send it so" kind="main" grow onPress={send} testID="change-send" />
      </View>
    </DialogFrame>
  );
}
