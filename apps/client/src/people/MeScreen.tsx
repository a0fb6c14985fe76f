import { CSV_LISTS } from '@even-bed/contract/shop/csvLists';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { selectWaitingCount } from '../offline/waitingSlice';
import { useAppDispatch, useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { dayAndTime } from '../ui/formatTime';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Prompt } from '../ui/Prompt';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Tag } from '../ui/Tag';
import { Words } from '../ui/Words';
import { forgetRecords } from './forgetRecords';
import {
  useChangeSecretMutation,
  useEndSessionMutation,
  useLockMutation,
  useSessionsQuery,
  useSignOutMutation,
} from './peopleApi';
import { useLastBackupQuery } from './shopApi';
import { deviceLocked } from '../state/peopleSlice';
import { SignInView } from './SignInView';
import { ThisDevice } from './ThisDevice';

/** The person at this device: switch, lock, sign out, devices, own secret; and the way to the shop's settings. */
export function MeScreen() {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const { person } = useAppSelector((state) => state.people);
  const waiting = useAppSelector(selectWaitingCount);
  const [switching, setSwitching] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [lock] = useLockMutation();
  const [signOut] = useSignOutMutation();
  if (!person) return null;
  if (switching) return <SwitchPerson onDone={() => setSwitching(false)} />;
  const leave = () => {
    setLeaving(false);
    void signOut().then(forgetRecords);
  };
  return (
    <Page
      title={person.name}
      testID="me"
      state={<Tag>{person.role}</Tag>}
      actions={
        <>
          <ActionButton
            label="Lock"
            icon="lock"
            onPress={() => {
              dispatch(deviceLocked());
              void lock();
            }}
            testID="lock"
          />
          <ActionButton
            label="Switch person"
            kind="main"
            icon="person"
            grow
            onPress={() => setSwitching(true)}
            testID="switch-person"
          />
        </>
      }
    >
      <Section title="THE SHOP">
        <Row href="/settings" lead={null} testID="to-settings">
          <Words bold>Settings</Words>
          <Words size="small" tone="steel">
            Units, time zone, numbers, lock time
          </Words>
        </Row>
        <Row href="/people" testID="to-people">
          <Words bold>People</Words>
          <Words size="small" tone="steel">
            Who works here, and what each may do
          </Words>
        </Row>
      </Section>
      <TakeAlong isLead={person.role === 'lead'} />
      <ThisDevice />
      <Devices />
      <OwnSecret />
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Sign out on this device"
          onPress={() => (waiting > 0 ? setLeaving(true) : leave())}
          testID="sign-out"
        />
      </View>
      <Prompt
        open={leaving}
        title="Entries are still waiting"
        text={`${waiting === 1 ? '1 entry waits' : `${waiting} entries wait`} on this device for the server. They stay here and are sent when ${person.name} signs in on it again.`}
        confirm="Sign out"
        cancel="Stay"
        onConfirm={leave}
        onCancel={() => setLeaving(false)}
      />
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Parts by others, and their terms"
          kind="quiet"
          onPress={() => window.open('/notices.txt')}
          testID="notices"
        />
      </View>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label="Back to the bench" kind="quiet" icon="back" onPress={() => router.push('/bench')} />
      </View>
    </Page>
  );
}

/** Every list as CSV; for a lead the whole shop in one file. */
function TakeAlong({ isLead }: { isLead: boolean }) {
  const [list, setList] = useState<string>('machines');
  return (
    <Section title="TAKE IT ALONG" testID="take-along">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-end', maxWidth: 460 }}>
        <Pick
          label="A list as CSV"
          value={list}
          options={CSV_LISTS.map((value) => ({ value, label: value }))}
          onChange={setList}
          testID="csv-list"
        />
        <ActionButton label="Get it" icon="download" onPress={() => window.open(`/api/csv/${list}`)} testID="csv-get" />
      </View>
      {isLead ? (
        <View style={{ gap: 8 }}>
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label="The whole shop in one file"
              icon="download"
              onPress={() => window.open('/api/export')}
              testID="export"
            />
          </View>
          <Words size="small" tone="steel">
            Tables, photos and the book. It also lets everybody sign in again where it is read in: keep it like a key.
          </Words>
          <LastBackup />
        </View>
      ) : null}
    </Section>
  );
}

/** When the server last put the shop by on its own. */
function LastBackup() {
  const { data } = useLastBackupQuery();
  if (!data) return null;
  return (
    <Words size="small" tone={data.at === null ? 'due' : 'steel'} testID="last-backup">
      {data.at === null ? 'No backup is known here.' : `The last backup was made ${dayAndTime(data.at)}.`}
    </Words>
  );
}

function SwitchPerson({ onDone }: { onDone: () => void }) {
  const person = useAppSelector((state) => state.people.person);
  const [before] = useState(person);
  if (person !== before) onDone();
  return <SignInView locked={false} demo={null} onCancel={onDone} />;
}

function Devices() {
  const { data = [] } = useSessionsQuery();
  const [end] = useEndSessionMutation();
  return (
    <Section title="SIGNED-IN DEVICES" testID="devices">
      {data.map(({ id, personName, device, shared, lastSeenAt, current }) => (
        <Row
          key={id}
          end={
            current ? (
              <Tag>this one</Tag>
            ) : (
              <ActionButton label="Sign it out" kind="quiet" onPress={() => void end({ id })} testID={`end-${id}`} />
            )
          }
        >
          <Words bold>{`${personName} · ${device}`}</Words>
          <Words size="small" tone="steel">{`${shared ? 'Shared, ' : ''}last used ${dayAndTime(lastSeenAt)}`}</Words>
        </Row>
      ))}
    </Section>
  );
}

function OwnSecret() {
  const [open, setOpen] = useState(false);
  const [current, setCurrent] = useState('');
  const [secret, setSecret] = useState('');
  const [change, { isLoading, error, isSuccess }] = useChangeSecretMutation();
  const failure = errorOf(error);
  const submit = async () => {
    const result = await change({ body: { current, secret } });
    if (result.error) return;
    setOpen(false);
    setCurrent('');
    setSecret('');
  };
  return (
    <Section title="PASSPHRASE OR PIN">
      {isSuccess && !open ? (
        <Notice kind="ready" title="Changed">
          Other devices of yours are signed out.
        </Notice>
      ) : null}
      {open ? (
        <View style={{ gap: 12, maxWidth: 420 }}>
          <Field
            label="Present passphrase or PIN"
            secret
            value={current}
            onChange={setCurrent}
            error={
              failure
                ? (failure.fields['current'] ?? (failure.fields['secret'] ? undefined : failure.message))
                : undefined
            }
            testID="own-current"
          />
          <Field
            label="New passphrase or PIN"
            secret
            value={secret}
            onChange={setSecret}
            error={failure?.fields['secret']}
            hint="A passphrase of 8 characters or more, or a PIN of 6 digits or more."
            testID="own-secret"
          />
          <ActionButton
            label="Change it"
            kind="main"
            busy={isLoading}
            onPress={() => void submit()}
            testID="own-change"
          />
        </View>
      ) : (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Change passphrase or PIN" onPress={() => setOpen(true)} testID="own-open" />
        </View>
      )}
    </Section>
  );
}
