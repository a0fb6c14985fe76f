import { type CareItem, type SurfaceKind, type Verdict } from '@even-bed/contract';
import { FACES, type Face } from '@even-bed/core/fit/compatibility';
import { MATERIALS } from '@even-bed/core/fit/materials';
import { groupFacts, GROUPS, type SurfaceGroup } from '@even-bed/core/surfaces/groups';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { FACE_NAMES } from '@even-bed/words/compat';
import { useAppSelector } from '../state/store';
import { size, temperature } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { useKindsQuery, useSaveKindMutation } from './surfacesApi';

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

/** What the shop knows of each kind of surface; a lead adds and changes. */
export function KindsScreen() {
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { data, error, refetch } = useKindsQuery();
  const [search, setSearch] = useState('');
  const [edited, setEdited] = useState<SurfaceKind | 'new' | null>(null);
  const failure = errorOf(error);
  if (edited) return <KindForm kind={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />;
  const shown = (data ?? []).filter(({ name }) => name.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <Page
      title="Kinds of surfaces"
      testID="kinds"
      crumbs={[{ label: 'Rack', href: '/rack' }]}
      tools={
        isLead ? (
          <ActionButton label="Add a kind" icon="add" onPress={() => setEdited('new')} testID="add-kind" />
        ) : undefined
      }
    >
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the kinds" /> : null}
      <View style={{ flexDirection: 'row', maxWidth: 520 }}>
        <SearchField label="Search kinds" value={search} onChange={setSearch} />
      </View>
      <View>
        {shown.map((kind) => (
          <Row
            key={kind.id}
            testID={`kind-${kind.name}`}
            end={
              isLead ? (
                <ActionButton
                  label="Change"
                  kind="quiet"
                  onPress={() => setEdited(kind)}
                  testID={`change-${kind.name}`}
                />
              ) : undefined
            }
          >
            <Words bold>{kind.name}</Words>
            <Words size="small" tone="steel">
              {[
                groupFacts(kind.group).many,
                size(kind.thickness),
                kind.limit === null ? null : `up to ${temperature(kind.limit)}`,
                kind.sides.join(' / '),
                kind.life ? `${kind.life.expected} ± ${kind.life.spread} ${kind.life.unit}` : null,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Words>
          </Row>
        ))}
      </View>
    </Page>
  );
}

const NOT_KNOWN = { value: '', label: 'Not known' };
const FACE_CHOICES = FACES.map((value) => ({ value: value as string, label: FACE_NAMES[value] }));

function KindForm({ kind, onClose }: { kind: SurfaceKind | null; onClose: () => void }) {
  const [id] = useState(() => kind?.id ?? uuid());
  const [name, setName] = useState(kind?.name ?? '');
  const [group, setGroup] = useState<SurfaceGroup>(kind?.group ?? 'sheet');
  const [thickness, setThickness] = useState(kind ? String(kind.thickness) : '');
  const [limit, setLimit] = useState(kind?.limit === null || !kind ? '' : String(kind.limit));
  const [directional, setDirectional] = useState<'yes' | 'no'>(kind?.directional ? 'yes' : 'no');
  const [material, setMaterial] = useState(kind?.material ?? '');
  const [faceA, setFaceA] = useState<string>(kind?.faces[0] ?? '');
  const [faceB, setFaceB] = useState<string>(kind?.faces[1] ?? '');
  const [sideA, setSideA] = useState(kind?.sides[0] ?? '');
  const [sideB, setSideB] = useState(kind?.sides[1] ?? '');
  const [unit, setUnit] = useState<'prints' | 'grams' | 'days' | 'none'>(
    kind?.life?.unit ?? (kind ? 'none' : 'prints'),
  );
  const [expected, setExpected] = useState(kind?.life ? String(kind.life.expected) : '');
  const [spread, setSpread] = useState(kind?.life ? String(kind.life.spread) : '');
  const [care, setCare] = useState<Partial<Record<CareItem, Verdict>>>(kind?.care ?? {});
  const [note, setNote] = useState(kind?.note ?? '');
  const [save, { isLoading, error }] = useSaveKindMutation();
  const failure = errorOf(error);
  const number = (text: string) => Number(text.replace(',', '.'));
  const fault = (field: string) => failure?.fields[field];
  // What it is made of as a rule, where nobody has said otherwise.
  const choose = (next: SurfaceGroup) => {
    const [was, usual] = [groupFacts(group).usual, groupFacts(next).usual];
    if (material === '' || material === was.material) setMaterial(usual.material);
    if (faceA === '' || faceA === was.face) setFaceA(usual.face ?? '');
    setGroup(next);
  };
  const submit = async () => {
    const body = {
      name,
      group,
      thickness: thickness as unknown as number,
      limit: limit.trim() === '' ? null : number(limit),
      directional: directional === 'yes',
      material: material || null,
      sides: [sideA, sideB].filter((side) => side.trim() !== ''),
      faces: [faceA, faceB].slice(0, sideB.trim() === '' ? 1 : 2).map((face) => (face || null) as Face | null),
      life: unit === 'none' ? null : { unit, expected: number(expected), spread: number(spread || '0') },
      care,
      note,
      version: kind?.version ?? 0,
      at: Date.now(),
    };
    const result = await save({ id, key: uuid(), body });
    if (!result.error) onClose();
  };
  return (
    <Page
      title={kind ? `Change ${kind.name}` : 'Add a kind'}
      testID="kind-form"
      tools={<ActionButton label="Back to the kinds" icon="back" kind="quiet" onPress={onClose} />}
      actions={
        <ActionButton label="Save" kind="main" grow busy={isLoading} onPress={() => void submit()} testID="kind-save" />
      }
    >
      {failure && Object.keys(failure.fields).length === 0 ? (
        <Notice kind="stop" title="Not saved">
          {failure.message}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.m, maxWidth: 560 }}>
        <Field label="Name" value={name} onChange={setName} error={fault('name')} testID="kind-name" />
        <Pick
          label="Group"
          value={group}
          options={GROUPS.map((value) => ({ value, label: groupFacts(value).many }))}
          onChange={(value) => choose(value as SurfaceGroup)}
          error={fault('group')}
          testID="kind-group"
        />
        <View style={{ flexDirection: 'row', gap: 12 }}>
          <Field
            label="Thickness"
            unit="mm"
            keyboard="decimal"
            value={thickness}
            onChange={setThickness}
            error={fault('thickness')}
            testID="kind-thickness"
          />
          <Field
            label="For hours up to"
            unit="°C"
            keyboard="decimal"
            value={limit}
            onChange={setLimit}
            error={fault('limit')}
            hint="Empty: not known"
            testID="kind-limit"
          />
        </View>
        <View style={{ flexDirection: 'row', gap: 12 }}>
          <Field
            label="Finish of side A"
            value={sideA}
            onChange={setSideA}
            error={fault('sides') ?? fault('sides.0')}
            testID="kind-side-a"
          />
          <Field
            label="Finish of side B"
            value={sideB}
            onChange={setSideB}
            error={fault('sides.1')}
            hint="Empty: one side"
            testID="kind-side-b"
          />
        </View>
        <Pick
          label="Made of"
          value={material}
          options={[NOT_KNOWN, ...MATERIALS.map(({ id: value, name: label }) => ({ value, label }))]}
          onChange={setMaterial}
          error={fault('material')}
          testID="kind-material"
        />
        <Pick
          label="Face of side A, for what it takes"
          value={faceA}
          options={[NOT_KNOWN, ...FACE_CHOICES]}
          onChange={setFaceA}
          error={fault('faces.0')}
          testID="kind-face-a"
        />
        {sideB.trim() === '' ? null : (
          <Pick
            label="Face of side B, for what it takes"
            value={faceB}
            options={[NOT_KNOWN, ...FACE_CHOICES]}
            onChange={setFaceB}
            error={fault('faces.1')}
            testID="kind-face-b"
          />
        )}
        <Choice
          label="Poles in lines (magnetic base or cover; plain spring steel has none)"
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'no', label: 'no' },
          ]}
          value={directional}
          onChange={setDirectional}
        />
        <Choice
          label="Its life is counted in"
          options={[
            { value: 'prints', label: 'prints' },
            { value: 'grams', label: 'grams' },
            { value: 'days', label: 'days' },
            { value: 'none', label: 'not counted' },
          ]}
          value={unit}
          onChange={setUnit}
        />
        {unit === 'none' ? null : (
          <View style={{ flexDirection: 'row', gap: 12 }}>
            <Field
              label="Expected"
              keyboard="decimal"
              value={expected}
              onChange={setExpected}
              error={fault('life.expected')}
              testID="kind-expected"
            />
            <Field
              label="Give or take"
              keyboard="decimal"
              value={spread}
              onChange={setSpread}
              error={fault('life.spread')}
              testID="kind-spread"
            />
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
              value={care[item] ?? null}
              onChange={(value) => setCare({ ...care, [item]: value as Verdict })}
            />
          ))}
        </Section>
        <Field label="Note" lines={2} value={note} onChange={setNote} error={fault('note')} />
      </View>
    </Page>
  );
}
