import type { CareItem, KindWrite, SurfaceKind, Verdict } from '@even-bed/contract';
import { FACES } from '@even-bed/core/fit/compatibility';
import { MATERIALS } from '@even-bed/core/fit/materials';
import { groupFacts, GROUPS, type SurfaceGroup } from '@even-bed/core/surfaces/groups';
import { FACE_NAMES } from '@even-bed/words/compat';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useJudgedForm } from '../api/useJudgedForm';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { bodyOf, KIND_FIELDS, typedKind } from './typedKind';
import { useSaveKindMutation } from './surfacesApi';

const CARE: { item: CareItem; label: string }[] = [
  { item: 'water', label: 'Water' },
  { item: 'soap', label: 'Soap' },
  { item: 'alcohol', label: 'Alcohol' },
  { item: 'acetone', label: 'Acetone' },
  { item: 'scrub-pad', label: 'Scrub pad' },
  { item: 'steel-wool', label: 'Steel wool' },
  { item: 'fine-abrasive', label: 'Fine abrasive' },
  { item: 'scraper', label: 'Scraper' },
  { item: 'glue-stick', label: 'Glue stick' },
];

const NOT_KNOWN = { value: '', label: 'Not known' };
const FACE_CHOICES = FACES.map((value) => ({ value: value as string, label: FACE_NAMES[value] }));

/** What a shop knows of a kind of surface, to be added or changed. */
export default function KindForm({ kind, onClose }: { kind: SurfaceKind | null; onClose: () => void }) {
  const [id] = useState(() => kind?.id ?? uuid());
  const [save, { isLoading, error }] = useSaveKindMutation();
  const failure = errorOf(error);
  const { form, set, text, errorAt, submit } = useJudgedForm({
    initial: typedKind(kind),
    schema: ({ kindWriteSchema }) => kindWriteSchema,
    bodyOf: (typed) => ({ ...bodyOf(typed), version: kind?.version ?? 0, at: Date.now() }),
    fieldOf: KIND_FIELDS,
    failure,
  });
  const send = async (body: object) => {
    const result = await save({ id, key: uuid(), body: body as KindWrite });
    if (!result.error) onClose();
  };
  // What it is made of as a rule, where nobody has said otherwise.
  const choose = (next: SurfaceGroup) => {
    const [was, usual] = [groupFacts(form.group).usual, groupFacts(next).usual];
    if (form.material === '' || form.material === was.material) set('material', usual.material);
    if (form.faceA === '' || form.faceA === was.face) set('faceA', usual.face ?? '');
    set('group', next);
  };
  const pick = (name: 'material' | 'faceA' | 'faceB') => ({ ...text(name), error: errorAt(name) });
  return (
    <Page
      title={kind ? `Change ${kind.name}` : 'Add a kind'}
      testID="kind-form"
      tools={<ActionButton label="Back to the kinds" icon="back" kind="quiet" onPress={onClose} />}
      actions={
        <ActionButton label="Save" kind="main" grow busy={isLoading} onPress={() => submit(send)} testID="kind-save" />
      }
    >
      {failure && Object.keys(failure.fields).length === 0 ? (
        <Notice kind="stop" title="Not saved">
          {failure.message}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.m, maxWidth: 560 }}>
        <Field label="Name" {...text('name')} testID="kind-name" />
        <Pick
          label="Group"
          value={form.group}
          options={GROUPS.map((value) => ({ value, label: groupFacts(value).many }))}
          onChange={(value) => choose(value as SurfaceGroup)}
          error={errorAt('group')}
          testID="kind-group"
        />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
          <Field label="Thickness" unit="mm" keyboard="decimal" {...text('thickness')} testID="kind-thickness" />
          <Field
            label="For hours up to"
            unit="°C"
            keyboard="decimal"
            {...text('limit')}
            hint="Empty: not known"
            testID="kind-limit"
          />
        </View>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
          <Field label="Finish of side A" {...text('sideA')} testID="kind-side-a" />
          <Field label="Finish of side B" {...text('sideB')} hint="Empty: one side" testID="kind-side-b" />
        </View>
        <Pick
          label="Made of"
          options={[NOT_KNOWN, ...MATERIALS.map(({ id: value, name: label }) => ({ value, label }))]}
          {...pick('material')}
          testID="kind-material"
        />
        <Pick
          label="Face of side A, for what it takes"
          options={[NOT_KNOWN, ...FACE_CHOICES]}
          {...pick('faceA')}
          testID="kind-face-a"
        />
        {form.sideB.trim() === '' ? null : (
          <Pick
            label="Face of side B, for what it takes"
            options={[NOT_KNOWN, ...FACE_CHOICES]}
            {...pick('faceB')}
            testID="kind-face-b"
          />
        )}
        <Choice
          label="Poles in lines (magnetic base or cover; plain spring steel has none)"
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'no', label: 'no' },
          ]}
          value={form.directional}
          onChange={(value) => set('directional', value)}
        />
        <Choice
          label="Its life is counted in"
          options={[
            { value: 'prints', label: 'prints' },
            { value: 'grams', label: 'grams' },
            { value: 'days', label: 'days' },
            { value: 'none', label: 'not counted' },
          ]}
          value={form.unit}
          onChange={(value) => set('unit', value)}
        />
        {form.unit === 'none' ? null : (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
            <Field label="Expected" keyboard="decimal" {...text('expected')} testID="kind-expected" />
            <Field label="Give or take" keyboard="decimal" {...text('spread')} testID="kind-spread" />
          </View>
        )}
        <Section title="WHAT MAY TOUCH IT">
          {CARE.map(({ item, label }) => (
            <Choice
              key={item}
              label={label}
              options={[
                { value: 'yes', label: 'yes' },
                { value: 'care', label: 'with care' },
                { value: 'no', label: 'no' },
              ]}
              value={form.care[item] ?? null}
              onChange={(value) => set('care', { ...form.care, [item]: value as Verdict })}
            />
          ))}
        </Section>
        <Field label="Note" lines={2} {...text('note')} />
      </View>
    </Page>
  );
}
