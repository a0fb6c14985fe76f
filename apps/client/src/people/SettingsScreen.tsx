import type { ShopSettings } from '@even-bed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { useSaveSettingsMutation, useSettingsQuery } from './settingsApi';
import { ProgramTokens } from './ProgramTokens';
import { ZonePick } from './ZonePick';

/** How the shop reads and works. Everybody sees it; a lead changes it. */
export function SettingsScreen() {
  const me = useAppSelector((state) => state.people.person);
  const { data, error, refetch } = useSettingsQuery();
  const failure = errorOf(error);
  return (
    <Page title="Settings" testID="settings" crumbs={[{ label: me?.name ?? 'You', href: '/me' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the settings" /> : null}
      {data ? <SettingsForm settings={data} mayChange={me?.role === 'lead'} /> : null}
    </Page>
  );
}

function SettingsForm({ settings, mayChange }: { settings: ShopSettings; mayChange: boolean }) {
  const [form, setForm] = useState({ ...settings, lockMinutes: String(settings.lockMinutes) });
  const [save, { isLoading, error, isSuccess }] = useSaveSettingsMutation({ fixedCacheKey: 'settings' });
  const failure = errorOf(error);
  const set = <K extends keyof typeof form>(key: K, value: (typeof form)[K]) => setForm({ ...form, [key]: value });
  const submit = async () => {
    const body = { ...form, lockMinutes: Number(form.lockMinutes), at: Date.now() };
    const { data } = await save({ key: uuid(), body });
    if (data) setForm((typed) => ({ ...typed, version: data.version }));
  };
  return (
    <View style={{ maxWidth: 520, gap: SPACE.l }}>
      {failure && Object.keys(failure.fields).length === 0 ? (
        <Notice kind="stop" title="Not saved">
          {failure.message}
        </Notice>
      ) : null}
      {settings.version > form.version && !isLoading ? (
        <Notice kind="due" title="Somebody else changed the settings meanwhile" testID="settings-newer">
          <Words>What you typed is still here.</Words>
          <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap' }}>
            <ActionButton
              label="Take theirs"
              onPress={() => setForm({ ...settings, lockMinutes: String(settings.lockMinutes) })}
            />
            <ActionButton
              label="Go on with mine"
              kind="quiet"
              onPress={() => setForm({ ...form, version: settings.version })}
            />
          </View>
        </Notice>
      ) : null}
      {isSuccess ? <Notice kind="ready" title="Saved" testID="settings-saved" /> : null}
      <Section title="THE SHOP">
        <Field
          label="Name"
          value={form.name}
          onChange={(text) => set('name', text)}
          error={failure?.fields['name']}
          testID="set-name"
        />
        <ZonePick value={form.zone} onChange={(zone) => set('zone', zone)} error={failure?.fields['zone']} />
        <Field
          label="Address for labels"
          value={form.address}
          onChange={(text) => set('address', text)}
          error={failure?.fields['address']}
          placeholder="http://192.168.1.20:4242"
          hint="The address under which phones reach the shop: it stands in the codes on labels. Empty: the one in use."
          testID="set-address"
        />
      </Section>
      <Section title="NUMBERS">
        <Choice
          label="Lengths in"
          value={form.units}
          onChange={(value) => set('units', value)}
          options={[
            { value: 'mm', label: 'millimetres, °C' },
            { value: 'in', label: 'inches, °F' },
          ]}
          testID="set-units"
        />
        <Choice
          label="Decimals with a"
          value={form.numbers}
          onChange={(value) => set('numbers', value)}
          options={[
            { value: 'point', label: 'point: 0.25' },
            { value: 'comma', label: 'comma: 0,25' },
          ]}
          testID="set-numbers"
        />
        <Choice
          label="Turns of a screw in"
          value={form.turns}
          onChange={(value) => set('turns', value)}
          options={[
            { value: 'parts', label: 'parts: a quarter' },
            { value: 'degrees', label: 'degrees: 90°' },
          ]}
          testID="set-turns"
        />
        <Words size="small" tone="steel">
          What is typed is understood either way, and with a unit: 5 1/4 in, 3 mm.
        </Words>
      </Section>
      <Section title="SHARED DEVICES">
        <Field
          label="Lock after"
          unit="min"
          hint="Minutes without a touch"
          value={form.lockMinutes}
          onChange={(text) => set('lockMinutes', text)}
          error={failure?.fields['lockMinutes']}
          testID="set-lock"
        />
      </Section>
      {mayChange ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Save" kind="main" busy={isLoading} onPress={() => void submit()} testID="set-save" />
        </View>
      ) : (
        <Words tone="steel">A lead changes these.</Words>
      )}
      {mayChange ? <ProgramTokens /> : null}
    </View>
  );
}
