import type { AccessToken } from '@even-bed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { dayAndTime } from '../ui/formatTime';
import { Notice } from '../ui/Notice';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { useRevokeTokenMutation } from './peopleApi';

interface Props {
  title: string;
  /** What its holder may do. */
  about: string;
  testID: string;
  tokens: AccessToken[];
  /** The one just made, with its secret. */
  made: { token: string } | undefined;
  making: boolean;
  error: unknown;
  /** Whether it was made. */
  onMake: (name: string) => Promise<boolean>;
}

/** Tokens in force, a way to make one and to revoke them. A new one is shown once. */
export function TokenList({ title, about, testID, tokens, made, making, error, onMake }: Props) {
  const [revoke] = useRevokeTokenMutation();
  const [name, setName] = useState('');
  const [open, setOpen] = useState(false);
  const failure = errorOf(error);
  if (usePrinting()) return null;
  const submit = async () => {
    if (await onMake(name)) setOpen(false);
  };
  return (
    <Section title={title} testID={testID} folded={tokens.length === 0 ? 'none' : String(tokens.length)}>
      {made ? (
        <Notice kind="due" title="Copy it now: it is shown this once">
          <Words testID="token-shown">{made.token}</Words>
        </Notice>
      ) : null}
      {tokens.map(({ id, name: known, createdAt, lastUsedAt }) => (
        <Row
          key={id}
          end={
            <ActionButton
              label="Revoke"
              kind="quiet"
              onPress={() => void revoke({ id })}
              testID={`token-revoke-${known}`}
            />
          }
        >
          <Words bold>{known}</Words>
          <Words
            size="small"
            tone="steel"
          >{`Made ${dayAndTime(createdAt)}${lastUsedAt ? `, last used ${dayAndTime(lastUsedAt)}` : ', not used yet'}`}</Words>
        </Row>
      ))}
      {open ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start', maxWidth: 460 }}>
          <Field
            label="Name of the token"
            value={name}
            onChange={setName}
            error={failure ? (failure.fields['name'] ?? failure.message) : undefined}
            testID="token-name"
          />
          <View style={{ paddingTop: 23 }}>
            <ActionButton label="Make it" kind="main" busy={making} onPress={() => void submit()} testID="token-make" />
          </View>
        </View>
      ) : (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Make a token" onPress={() => setOpen(true)} testID="token-open" />
        </View>
      )}
      <Words size="small" tone="steel">
        {about}
      </Words>
    </Section>
  );
}
