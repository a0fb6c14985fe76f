import { type Person, type Role } from '@even-bed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { clockTime } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { WayIn } from './WayIn';
import { usePeopleQuery, useSavePersonMutation, useUnlockPersonMutation } from './peopleApi';

const ROLE_OPTIONS: { value: Role; label: string }[] = [
  { value: 'looker', label: 'looker: sees' },
  { value: 'technician', label: 'technician: does' },
  { value: 'lead', label: 'lead: rules' },
];

/** Everybody who works here; a lead adds and changes. */
export function PeopleScreen() {
  const me = useAppSelector((state) => state.people.person);
  const { data, error, refetch } = usePeopleQuery();
  const [unlock] = useUnlockPersonMutation();
  const [search, setSearch] = useState('');
  const [edited, setEdited] = useState<Person | 'new' | null>(null);
  const now = useNow();
  const isLead = me?.role === 'lead';
  const failure = errorOf(error);
  const shown = (data ?? []).filter(({ name }) => name.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <Page
      title="People"
      testID="people"
      crumbs={[{ label: me?.name ?? 'You', href: '/me' }]}
      tools={
        isLead ? (
          <ActionButton label="Add a person" icon="add" onPress={() => setEdited('new')} testID="add-person" />
        ) : undefined
      }
    >
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the people" /> : null}
      {(data?.length ?? 0) > 5 ? <SearchField label="Search names" value={search} onChange={setSearch} /> : null}
      {[true, false].map((active) => {
        const list = shown.filter((person) => person.active === active);
        if (list.length === 0) return null;
        return (
          <Section key={String(active)} title={active ? 'HERE' : 'NO LONGER HERE'}>
            {list.map((person) => (
              <Row
                key={person.id}
                testID={`person-${person.name}`}
                lead={<Signal kind={person.lockedUntil && person.lockedUntil > now ? 'stop' : 'ready'} />}
                end={
                  isLead ? (
                    <ActionButton
                      label="Change"
                      kind="quiet"
                      onPress={() => setEdited(person)}
                      testID={`change-${person.name}`}
                    />
                  ) : undefined
                }
              >
                <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
                  <Words bold>{person.name}</Words>
                  <Tag>{person.role}</Tag>
                </View>
                <Words size="small" tone="steel">
                  {person.lockedUntil && person.lockedUntil > now
                    ? `Sign-in refused until ${clockTime(person.lockedUntil)} after wrong tries`
                    : person.secretKind === 'pin'
                      ? 'Signs in with a PIN'
                      : 'Signs in with a passphrase'}
                </Words>
                {isLead && person.lockedUntil && person.lockedUntil > now ? (
                  <View style={{ alignSelf: 'flex-start' }}>
                    <ActionButton
                      label="Let them try again"
                      kind="quiet"
                      onPress={() => void unlock({ id: person.id })}
                    />
                  </View>
                ) : null}
              </Row>
            ))}
          </Section>
        );
      })}
      {data || failure ? (
        <Section title="A NEW DEVICE">
          <WayIn />
        </Section>
      ) : null}
      {isLead ? null : <Words tone="steel">A lead adds people and changes what they may do.</Words>}
      {edited ? <PersonDialog person={edited === 'new' ? null : edited} onClose={() => setEdited(null)} /> : null}
    </Page>
  );
}

function PersonDialog({ person, onClose }: { person: Person | null; onClose: () => void }) {
  const [id] = useState(() => person?.id ?? uuid());
  const [name, setName] = useState(person?.name ?? '');
  const [role, setRole] = useState<Role>(person?.role ?? 'technician');
  const [active, setActive] = useState<'yes' | 'no'>(person?.active === false ? 'no' : 'yes');
  const [secret, setSecret] = useState('');
  const [added, setAdded] = useState(false);
  const [save, { isLoading, error }] = useSavePersonMutation();
  const failure = errorOf(error);
  const submit = async () => {
    const body = {
      name,
      role,
      active: active === 'yes',
      version: person?.version ?? 0,
      at: Date.now(),
      ...(secret === '' ? {} : { secret }),
    };
    const result = await save({ id, key: uuid(), body });
    if (result.error) return;
    if (person) onClose();
    else setAdded(true);
  };
  const atField = failure && Object.keys(failure.fields).length > 0;
  if (added)
    return (
      <DialogFrame open title={`How ${name.trim()} gets in`} onClose={onClose} testID="person-added">
        <WayIn />
        <Words>{`Then: sign in as ${name.trim()}, with`}</Words>
        <Words size="reading" bold testID="first-secret">
          {secret}
        </Words>
        <Words size="small" tone="steel">
          It is shown this once. They change it themselves under their name.
        </Words>
        <ActionButton label="Done" kind="main" onPress={onClose} testID="person-added-done" />
      </DialogFrame>
    );
  return (
    <DialogFrame
      open
      title={person ? `Change ${person.name}` : 'Add a person'}
      onClose={onClose}
      testID="person-dialog"
    >
      <Field label="Name" value={name} onChange={setName} error={failure?.fields['name']} testID="person-name" />
      <Choice
        label="May"
        options={ROLE_OPTIONS}
        value={role}
        onChange={setRole}
        error={failure?.fields['role']}
        testID="person-role"
      />
      {person ? (
        <Choice
          label="Works here"
          value={active}
          onChange={setActive}
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'no', label: 'no longer' },
          ]}
          testID="person-active"
        />
      ) : null}
      <Field
        label={person ? 'New passphrase or PIN, if it changes' : 'First passphrase or PIN'}
        value={secret}
        onChange={setSecret}
        error={failure?.fields['secret'] ?? (failure && !atField ? failure.message : undefined)}
        hint="Say it to them; they can change it themselves."
        testID="person-secret"
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton
          label="Save"
          kind="main"
          busy={isLoading}
          onPress={() => void submit()}
          grow
          testID="person-save"
        />
      </View>
    </DialogFrame>
  );
}
