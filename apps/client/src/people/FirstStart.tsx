import { useRef, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Page } from '../ui/Page';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { useMakeFirstPersonMutation } from './peopleApi';
import { signedIn } from './peopleSlice';

/** The first start of a shop: its first account, a lead. */
export function FirstStart() {
  const dispatch = useAppDispatch();
  const id = useRef(uuid());
  const [name, setName] = useState('');
  const [secret, setSecret] = useState('');
  const [again, setAgain] = useState('');
  const [make, { isLoading, error }] = useMakeFirstPersonMutation();
  const failure = errorOf(error);
  const differs = again !== '' && again !== secret;
  const submit = async () => {
    const result = await make({ id: id.current, name, secret, shared: false, at: Date.now() });
    if (result.data) dispatch(signedIn(result.data));
  };
  return (
    <Page title="A new shop" testID="first-start">
      <View style={{ maxWidth: 420, gap: SPACE.m }}>
        <Words>
          The first account is yours: a lead, who sets rules, lets others in and can restore. It stays on this computer.
        </Words>
        <Field
          label="Your name"
          value={name}
          onChange={setName}
          error={failure?.fields['name']}
          hint="As it will stand in the book."
          testID="first-name"
        />
        <Field
          label="Passphrase or PIN"
          secret
          value={secret}
          onChange={setSecret}
          error={
            failure ? (failure.fields['secret'] ?? (failure.fields['name'] ? undefined : failure.message)) : undefined
          }
          hint="A passphrase of 8 characters or more, or a PIN of 6 digits or more."
          testID="first-secret"
        />
        <Field
          label="The same again"
          secret
          value={again}
          onChange={setAgain}
          error={differs ? 'The two are not the same.' : undefined}
          onSubmit={() => void submit()}
          testID="first-again"
        />
        <ActionButton
          label="Open the shop"
          kind="main"
          busy={isLoading}
          disabled={name.trim() === '' || secret === '' || again !== secret}
          onPress={() => void submit()}
          testID="first-go"
        />
      </View>
    </Page>
  );
}
