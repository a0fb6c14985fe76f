import type { DemoAccount } from '@even-bed/contract';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppDispatch, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { RADIUS, SPACE, TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useSignInMutation } from './peopleApi';
import { nameForgotten, signedIn } from '../state/peopleSlice';

interface Props {
  locked: boolean;
  demo: DemoAccount[] | null;
  /** Given where somebody is signed in and another one takes over. */
  onCancel?: () => void;
}

/** Who is at this device: a name that was used here, or typed, and its passphrase or PIN. */
export function SignInView({ locked, demo, onCancel }: Props) {
  const dispatch = useAppDispatch();
  const { person, names, shared: wasShared } = useAppSelector((state) => state.people);
  const [name, setName] = useState(locked && person ? person.name : names.length === 1 ? names[0]! : '');
  const [secret, setSecret] = useState('');
  const [device, setDevice] = useState<'own' | 'shared'>(wasShared ? 'shared' : 'own');
  const [signIn, { isLoading, error, reset }] = useSignInMutation();
  const failure = errorOf(error);
  const submit = async (as = { name, secret }) => {
    const result = await signIn({ body: { ...as, shared: device === 'shared' } });
    if (result.data) dispatch(signedIn(result.data));
    else setSecret('');
  };
  const choose = (value: string) => {
    reset();
    setName(value);
    setSecret('');
  };
  const title = onCancel ? 'Who takes over?' : locked && person ? 'Locked' : 'Sign in';
  return (
    <Page
      title={title}
      testID="sign-in"
      tools={onCancel ? <ActionButton label={`Stay ${person?.name ?? ''}`.trim()} onPress={onCancel} /> : undefined}
    >
      <View style={{ maxWidth: 420, gap: SPACE.m }}>
        {locked && person ? (
          <Words tone="steel">{`${person.name} goes on with the passphrase or PIN, or somebody else signs in. Nothing that was typed is lost.`}</Words>
        ) : null}
        {names.length > 0 ? (
          <View
            style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}
            role="radiogroup"
            aria-label="People on this device"
          >
            {names.map((known) => (
              <NameButton key={known} name={known} taken={known === name} onPress={() => choose(known)} />
            ))}
          </View>
        ) : null}
        <Field label="Name" value={name} onChange={setName} error={failure?.fields['name']} testID="sign-in-name" />
        <Field
          label="Passphrase or PIN"
          secret
          value={secret}
          onChange={setSecret}
          onSubmit={() => void submit()}
          error={failure ? (failure.fields['secret'] ?? failure.message) : undefined}
          testID="sign-in-secret"
        />
        <Choice
          label="This device is"
          value={device}
          onChange={setDevice}
          options={[
            { value: 'own', label: 'my own' },
            { value: 'shared', label: 'shared: locks itself' },
          ]}
          testID="sign-in-device"
        />
        <ActionButton
          label="Sign in"
          kind="main"
          busy={isLoading}
          disabled={name.trim() === '' || secret === ''}
          onPress={() => void submit()}
          testID="sign-in-go"
        />
        {names.includes(name) && name !== person?.name ? (
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label={`Forget ${name} on this device`}
              kind="quiet"
              onPress={() => {
                dispatch(nameForgotten(name));
                choose('');
              }}
            />
          </View>
        ) : null}
        {demo ? (
          <DemoAccounts
            accounts={demo}
            onUse={({ name: demoName, secret: demoSecret }) => void submit({ name: demoName, secret: demoSecret })}
          />
        ) : null}
      </View>
    </Page>
  );
}

function NameButton({ name, taken, onPress }: { name: string; taken: boolean; onPress: () => void }) {
  const palette = usePalette();
  return (
    <Pressable
      role="radio"
      aria-checked={taken}
      onPress={onPress}
      testID={`known-${name}`}
      style={{
        minHeight: TOUCH + 8,
        paddingHorizontal: 14,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        borderWidth: taken ? 2 : 1,
        borderColor: taken ? palette.accent : palette.edge,
        borderRadius: RADIUS,
        backgroundColor: palette.raised,
      }}
    >
      <Icon name="person" size={20} />
      <Words bold={taken}>{name}</Words>
    </Pressable>
  );
}

function DemoAccounts({ accounts, onUse }: { accounts: DemoAccount[]; onUse: (account: DemoAccount) => void }) {
  return (
    <Section title="THIS IS THE DEMO: TRY IT AS" testID="demo-accounts">
      {accounts.map((account) => (
        <View
          key={account.name}
          style={{ flexDirection: 'row', alignItems: 'center', gap: 12, justifyContent: 'space-between' }}
        >
          <View style={{ flexShrink: 1 }}>
            <Words bold>{account.name}</Words>
            <Words size="small" tone="steel">{`${account.role} · ${account.secret}`}</Words>
          </View>
          <ActionButton label="Enter" onPress={() => onUse(account)} testID={`demo-${account.role}`} />
        </View>
      ))}
    </Section>
  );
}
