import type { DemoAccount } from '@even-bed/contract';
import { lazy, Suspense, useState } from 'react';
import { Pressable, View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppDispatch, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { RADIUS, SPACE, TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useSignInMutation } from './peopleApi';
import { nameForgotten, signedIn } from '../state/peopleSlice';

/** Only who is not signed in sees it: it is not in the piece that every page fetches. */
const Welcome = lazy(() => import('./greeting').then((part) => ({ default: part.Welcome })));
const DemoAccounts = lazy(() => import('./greeting').then((part) => ({ default: part.DemoAccounts })));

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
  // Somebody who is new here is told first what this is.
  const greets = !onCancel && !(locked && person);
  const accounts = demo ? (
    <DemoAccounts
      accounts={demo}
      onUse={({ name: demoName, secret: demoSecret }) => void submit({ name: demoName, secret: demoSecret })}
    />
  ) : null;
  const title = onCancel ? 'Who takes over?' : greets ? 'Even Bed' : 'Locked';
  return (
    <Page
      title={title}
      testID="sign-in"
      tools={onCancel ? <ActionButton label={`Stay ${person?.name ?? ''}`.trim()} onPress={onCancel} /> : undefined}
    >
      {/* With nothing in its place meanwhile: what comes late would push the form. */}
      <Suspense fallback={null}>
        <Columns
          left={greets ? <Welcome /> : null}
          right={
            <View style={{ maxWidth: 420, gap: SPACE.m }}>
              {locked && person ? (
                <Words tone="steel">{`${person.name} goes on with the passphrase or PIN, or somebody else signs in. Nothing that was typed is lost.`}</Words>
              ) : null}
              {greets ? accounts : null}
              <Section
                title={demo && greets ? 'OR SIGN IN WITH YOUR NAME' : 'SIGN IN'}
                testID="sign-in-form"
                {...(demo && greets && names.length === 0 ? { folded: 'name and passphrase' } : {})}
              >
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
                <Field
                  label="Name"
                  value={name}
                  onChange={setName}
                  error={failure?.fields['name']}
                  testID="sign-in-name"
                />
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
              </Section>
              {greets ? null : accounts}
            </View>
          }
        />
      </Suspense>
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
