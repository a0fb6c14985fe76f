import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { dayAndTime } from '../ui/formatTime';
import { Notice } from '../ui/Notice';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { useMakeMachineTokenMutation, useRevokeTokenMutation, useMachineTokensQuery } from './peopleApi';

/** Tokens with which a machine posts its own prints and readings. A new one is shown once. */
export function MachineTokens({ machineId }: { machineId: string }) {
  const { data: tokens = [] } = useMachineTokensQuery({ machineId });
  const [make, { data: made, error, isLoading }] = useMakeMachineTokenMutation();
  const [revoke] = useRevokeTokenMutation();
  const [name, setName] = useState('');
  const [open, setOpen] = useState(false);
  const failure = errorOf(error);
  if (usePrinting()) return null;
  const submit = async () => {
    const result = await make({ machineId, id: uuid(), key: uuid(), body: { name, at: Date.now() } });
    if (!result.error) setOpen(false);
  };
  return (
    <Section
      title="TOKENS FOR THE MACHINE ITSELF"
      testID="tokens"
      folded={tokens.length === 0 ? 'none' : String(tokens.length)}
    >
      {made ? (
        <Notice kind="due" title="Copy it now: it is shown this once">
          <Words testID="token-shown">{made.token}</Words>
        </Notice>
      ) : null}
      {tokens.map(({ id, name: known, createdAt, lastUsedAt }) => (
        <Row key={id} end={<ActionButton label="Revoke" kind="quiet" onPress={() => void revoke({ id })} />}>
          <Words bold>{known}</Words>
          <Words
            size="small"
            tone="steel"
          >{`Made ${dayAndTime(createdAt)}${lastUsedAt ? `, last used ${dayAndTime(lastUsedAt)}` : ', not used yet'}`}</Words>
        </Row>
      ))}
      {open ? (
        <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-start', maxWidth: 460 }}>
          <Field
            label="Name of the token"
            value={name}
            onChange={setName}
            error={failure ? (failure.fields['name'] ?? failure.message) : undefined}
            testID="token-name"
          />
          <View style={{ paddingTop: 23 }}>
            <ActionButton
              label="Make it"
              kind="main"
              busy={isLoading}
              onPress={() => void submit()}
              testID="token-make"
            />
          </View>
        </View>
      ) : (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Make a token" onPress={() => setOpen(true)} testID="token-open" />
        </View>
      )}
      <Words size="small" tone="steel">
        With it a machine may post its prints and readings, and nothing else. How: /api/docs.
      </Words>
    </Section>
  );
}
