import { useRef, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { Welcome } from '../ui/Welcome';
import { Words } from '../ui/Words';
import { useMakeFirstPersonMutation } from './peopleApi';
import { useImportShopMutation } from './shopApi';
import { signedIn } from '../state/peopleSlice';

/** The first start of a shop: its first account, a lead. */
export function FirstStart() {
  const dispatch = useAppDispatch();
  const id = useRef(uuid());
  const [name, setName] = useState('');
  const [secret, setSecret] = useState('');
  const [again, setAgain] = useState('');
  const [code, setCode] = useState('');
  const [make, { isLoading, error }] = useMakeFirstPersonMutation();
  const failure = errorOf(error);
  const differs = again !== '' && again !== secret;
  const submit = async () => {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const result = await make({ body: { id: id.current, name, secret, shared: false, zone, code, at: Date.now() } });
    if (result.data) dispatch(signedIn(result.data));
  };
  return (
    <Page title="Even Bed" testID="first-start">
      <Columns
        left={<Welcome />}
        right={
          <View style={{ maxWidth: 420, gap: SPACE.m }}>
            <Words size="lead" bold heading={2}>
              A new shop
            </Words>
            <Words>
              The first account is yours: a lead, who sets rules, lets others in and can restore. It stays on this
              computer.
            </Words>
            <Field
              label="Code from the server’s terminal"
              value={code}
              onChange={setCode}
              keyboard="decimal"
              error={failure?.fields['code']}
              hint="It stands where the shop was started: nobody else in the network makes the first account."
              testID="first-code"
            />
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
                failure
                  ? (failure.fields['secret'] ??
                    (failure.fields['name'] || failure.fields['code'] ? undefined : failure.message))
                  : undefined
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
            <BringAlong code={code} />
          </View>
        }
      />
    </Page>
  );
}

/** An export of another shop, read into this empty one. */
function BringAlong({ code }: { code: string }) {
  const [bring, { isLoading, error }] = useImportShopMutation();
  const failure = errorOf(error);
  const choose = async () => {
    const file = await pickFile('.zip,application/zip');
    if (file) await bring({ id: uuid(), file, code });
  };
  return (
    <Section title="OR BRING A SHOP ALONG">
      <Words tone="steel">
        A file that “The whole shop in one file” made elsewhere: everything is as it was there, and everybody signs in
        as before.
      </Words>
      {failure ? (
        <Notice kind="stop" title="Nothing was read in" testID="import-refused">
          {failure.message}
        </Notice>
      ) : null}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Choose the file"
          icon="file"
          busy={isLoading}
          onPress={() => void choose()}
          testID="import-shop"
        />
      </View>
    </Section>
  );
}
