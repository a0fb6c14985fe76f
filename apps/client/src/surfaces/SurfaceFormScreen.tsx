import type { Surface, SurfaceKind } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import { tagLetter } from '@even-bed/core/surfaces/surfaceKind';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { readDay } from '../book/timeSpan';
import { deviceStore } from '../state/deviceStore';
import { size, temperature } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { rightNow } from '../ui/useNow';
import { useKindsQuery, useSaveSurfaceMutation, useSurfaceQuery } from './surfacesApi';
import { GROUP_NAMES } from './surfaceWords';

interface Form {
  tag: string;
  kindId: string;
  width: string;
  depth: string;
  thickness: string;
  bought: string;
  price: string;
  note: string;
  place: string;
}

const EMPTY: Form = {
  tag: '',
  kindId: '',
  width: '',
  depth: '',
  thickness: '',
  bought: '',
  price: '',
  note: '',
  place: '',
};
const DRAFTS = 'surface-form';
const isoDay = (at: number | null) => (at === null ? '' : new Date(at).toISOString().slice(0, 10));
const formOf = (surface: Surface): Form => ({
  tag: surface.tag,
  kindId: surface.kindId,
  width: String(surface.width),
  depth: String(surface.depth),
  thickness: surface.thickness === null ? '' : String(surface.thickness),
  bought: isoDay(surface.boughtAt),
  price: surface.price === null ? '' : String(surface.price),
  note: surface.note,
  place: '',
});

/** Adds a surface, or changes the facts of one. What is typed survives a reload. */
export function SurfaceFormScreen() {
  const { surfaceId } = useLocalSearchParams<{ surfaceId?: string }>();
  const kinds = useKindsQuery();
  const surface = useSurfaceQuery(surfaceId ?? '', { skip: surfaceId === undefined, refetchOnMountOrArgChange: true });
  // As it was opened: a refresh behind the form must not move its version.
  const [opened, setOpened] = useState<Surface | null>(null);
  if (surface.data && !surface.isFetching && !opened) setOpened(surface.data);
  const draftName = surfaceId === undefined ? 'new' : opened ? `${opened.id}-${opened.version}` : null;
  const [start, setStart] = useState<Form | null>(null);
  useEffect(() => {
    if (draftName === null) return;
    void deviceStore.get<Form>(DRAFTS, draftName).then((kept) => setStart(kept ?? (opened ? formOf(opened) : EMPTY)));
  }, [draftName, opened]);
  const failure = errorOf(kinds.error ?? surface.error);
  if (!kinds.data || !start || draftName === null)
    return (
      <Page title="A surface" crumbs={[{ label: 'Rack', href: '/rack' }]}>
        {failure ? <Failed message={failure.message} onRetry={kinds.refetch} /> : <Loading what="the kinds" />}
      </Page>
    );
  return <FormView key={draftName} draftName={draftName} start={start} opened={opened} kinds={kinds.data} />;
}

interface ViewProps {
  draftName: string;
  start: Form;
  opened: Surface | null;
  kinds: SurfaceKind[];
}

function FormView({ draftName, start, opened, kinds }: ViewProps) {
  const router = useRouter();
  const [id] = useState(() => opened?.id ?? uuid());
  const [form, setForm] = useState(start);
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [save, { isLoading, error }] = useSaveSurfaceMutation();
  const failure = errorOf(error);
  const kind = kinds.find((known) => known.id === form.kindId) ?? null;
  const set = (name: keyof Form) => (value: string) => {
    const next = { ...form, [name]: value };
    setForm(next);
    void deviceStore.set(DRAFTS, draftName, next);
  };
  const stale = failure?.code === 'stale' ? (failure.current as Surface) : null;
  const submit = async () => {
    const found: Record<string, string> = {};
    const price = form.price.trim() === '' ? null : Number(form.price.replace(',', '.'));
    const bought = form.bought.trim() === '' ? null : readDay(form.bought, 'start');
    if (form.kindId === '') found['kindId'] = 'Choose what it is.';
    if (form.bought.trim() !== '' && bought === null) found['bought'] = 'Type a day, such as 2026-11-25.';
    if (price !== null && !(price >= 0)) found['price'] = 'Price must be a number, such as 29,90.';
    for (const name of ['width', 'depth'] as const)
      if (readLength(form[name]) === null) found[name] = 'Type a length, such as 235 or 9 1/4 in.';
    setFaults(found);
    if (Object.keys(found).length > 0) return;
    const body = {
      tag: form.tag.trim(),
      kindId: form.kindId,
      width: form.width as unknown as number,
      depth: form.depth as unknown as number,
      thickness: form.thickness.trim() === '' ? null : (form.thickness as unknown as number),
      boughtAt: bought,
      price,
      note: form.note,
      place: form.place,
      version: stale?.version ?? opened?.version ?? 0,
      at: rightNow(),
    };
    const result = await save({ id, key: uuid(), body });
    if (result.error) return;
    await deviceStore.remove(DRAFTS, draftName);
    router.replace(`/rack/${id}`);
  };
  const fault = (name: string) => faults[name] ?? failure?.fields[name];
  const atField = failure !== null && Object.keys(failure.fields).length > 0;
  return (
    <Page
      title={opened ? `Edit ${opened.tag}` : 'Add a surface'}
      testID="surface-form"
      crumbs={opened ? [{ label: opened.tag, href: `/rack/${opened.id}` }] : [{ label: 'Rack', href: '/rack' }]}
      actions={
        <ActionButton
          label="Save"
          kind="main"
          grow
          busy={isLoading}
          onPress={() => void submit()}
          testID="save-surface"
        />
      }
    >
      {failure && !atField ? (
        <Notice kind="stop" title="Not saved">
          {stale
            ? `Somebody else changed ${stale.tag} meanwhile. Save again to put yours over it, or go back to keep theirs.`
            : failure.message}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.m, maxWidth: 520 }}>
        <Pick
          label="What it is"
          value={form.kindId || null}
          options={kinds.map(({ id: value, name }) => ({ value, label: name }))}
          onChange={set('kindId')}
          error={fault('kindId')}
          testID="field-kindId"
        />
        {kind ? (
          <Words size="small" tone="steel">
            {`${GROUP_NAMES[kind.group]} · ${size(kind.thickness)} nominal${kind.limit === null ? '' : ` · up to ${temperature(kind.limit)}`}${kind.note ? ` · ${kind.note}` : ''}`}
          </Words>
        ) : null}
        <View style={{ flexDirection: 'row', gap: 12 }}>
          <Field
            label="Width"
            unit="mm"
            keyboard="decimal"
            value={form.width}
            onChange={set('width')}
            error={fault('width')}
            testID="field-width"
          />
          <Field
            label="Depth"
            unit="mm"
            keyboard="decimal"
            value={form.depth}
            onChange={set('depth')}
            error={fault('depth')}
            testID="field-depth"
          />
        </View>
        <Field
          label="Thickness, if measured"
          unit="mm"
          keyboard="decimal"
          value={form.thickness}
          onChange={set('thickness')}
          error={fault('thickness')}
          hint="A caliper on an edge without coat counts for Z; empty: the nominal one."
          testID="field-thickness"
        />
        <Field
          label="Tag"
          value={form.tag}
          onChange={set('tag')}
          error={fault('tag')}
          hint={`Empty: the next free one${kind ? `, ${tagLetter(kind.group)}-…` : ''}.`}
          testID="field-tag"
        />
        {opened ? null : (
          <Field
            label="Where it lies"
            value={form.place}
            onChange={set('place')}
            error={fault('place')}
            placeholder="Rack 1"
            testID="field-place"
          />
        )}
        <View style={{ flexDirection: 'row', gap: 12 }}>
          <Field
            label="Bought"
            value={form.bought}
            onChange={set('bought')}
            error={fault('bought')}
            placeholder="2026-11-25"
            testID="field-bought"
          />
          <Field
            label="Price"
            keyboard="decimal"
            value={form.price}
            onChange={set('price')}
            error={fault('price')}
            testID="field-price"
          />
        </View>
        <Field
          label="Note"
          lines={2}
          value={form.note}
          onChange={set('note')}
          error={fault('note')}
          testID="field-note"
        />
      </View>
    </Page>
  );
}
