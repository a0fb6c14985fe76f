import type { Surface, SurfaceKind } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import type { SurfaceGroup } from '@even-bed/core';
import { groupFacts, GROUPS, tagLetter } from '@even-bed/core/surfaces/surfaceKind';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { readDay } from '../book/timeSpan';
import { deviceStore } from '../offline/deviceStore';
import { area, size, temperature } from '../ui/formatHeight';
import { useMachinesQuery } from '../fleet/fleetApi';
import { Choice } from '../ui/Choice';
import { GroupGlyph } from '../ui/GroupGlyph';
import { PlateGlyph } from '../ui/PlateGlyph';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { rightNow } from '../ui/useNow';
import { plateSizes } from './plateSizes';
import { useKindsQuery, usePlacesQuery, useSaveSurfaceMutation, useSurfaceQuery } from './surfacesApi';

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
const OTHER = 'other';
const MOST_SIZES = 5;
/** Drawn width of the largest plate, px. */
const DRAWN = 48;
const SELDOM = ['thickness', 'tag', 'bought', 'price', 'note'] as const;
const sizeName = (width: number | string, depth: number | string) => `${width} × ${depth}`;
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
  // The form comes whole: what is offered in it is there before somebody aims at a field.
  const offered = [useMachinesQuery(), usePlacesQuery()];
  const surface = useSurfaceQuery(
    { id: surfaceId ?? '' },
    { skip: surfaceId === undefined, refetchOnMountOrArgChange: true },
  );
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
  if (!kinds.data || !start || draftName === null || offered.some(({ isLoading }) => isLoading))
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
  const fault = (name: string) => faults[name] ?? failure?.fields[name];
  const change = (part: Partial<Form>) => {
    const next = { ...form, ...part };
    setForm(next);
    void deviceStore.set(DRAFTS, draftName, next);
  };
  const set = (name: keyof Form) => (value: string) => change({ [name]: value });
  const { data: machines = [] } = useMachinesQuery();
  const { data: places = [] } = usePlacesQuery();
  const [group, setGroup] = useState<SurfaceGroup | null>(kind?.group ?? null);
  const sizes = plateSizes(machines, group).slice(0, MOST_SIZES);
  const largest = Math.max(1, ...sizes.flatMap(({ width, depth }) => [width, depth]));
  const typedSize =
    form.width !== '' &&
    !sizes.some((known) => sizeName(known.width, known.depth) === sizeName(form.width, form.depth));
  const [ownSize, setOwnSize] = useState(opened !== null || typedSize);
  // What is seldom said stands behind a button, unless something is typed there, or is wrong.
  const [more, setMore] = useState(opened !== null || SELDOM.some((name) => form[name] !== ''));
  const seldomWrong = SELDOM.some((name) => fault(name) !== undefined);
  if (seldomWrong && !more) setMore(true);
  const text = (name: keyof Form, label: string, more: Partial<Parameters<typeof Field>[0]> = {}) => (
    <Field
      label={label}
      value={form[name]}
      onChange={set(name)}
      error={fault(name)}
      testID={`field-${name}`}
      {...more}
    />
  );
  const stale = failure?.code === 'stale' ? (failure.current as Surface) : null;
  const submit = async (andMount: boolean) => {
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
    if (andMount) router.push(`/mount?surface=${id}`);
  };
  const atField = failure !== null && Object.keys(failure.fields).length > 0;
  return (
    <Page
      title={opened ? `Edit ${opened.tag}` : 'Add a surface'}
      testID="surface-form"
      crumbs={opened ? [{ label: opened.tag, href: `/rack/${opened.id}` }] : [{ label: 'Rack', href: '/rack' }]}
      actions={
        <>
          {opened ? null : <ActionButton label="Only save" onPress={() => void submit(false)} testID="save-surface" />}
          <ActionButton
            label={opened ? 'Save' : 'Save and put it on a machine'}
            kind="main"
            grow
            busy={isLoading}
            onPress={() => void submit(opened === null)}
            testID="save-and-mount"
          />
        </>
      }
    >
      {failure && !atField ? (
        <Notice kind="stop" title="Not saved">
          {stale
            ? `Somebody else changed ${stale.tag} meanwhile. Save again to put yours over it, or go back to keep theirs.`
            : failure.message}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.m, maxWidth: 640 }}>
        <KindChoice
          kinds={kinds}
          kindId={form.kindId}
          group={group}
          onGroup={setGroup}
          onChange={set('kindId')}
          error={fault('kindId')}
        />
        {kind ? (
          <Words size="small" tone="steel">
            {`${groupFacts(kind.group).many} · ${size(kind.thickness)} nominal${kind.limit === null ? '' : ` · up to ${temperature(kind.limit)}`}${kind.note ? ` · ${kind.note}` : ''}`}
          </Words>
        ) : null}
        {sizes.length > 0 ? (
          <Choice
            label="How large it is"
            options={[
              ...sizes.map(({ width, depth, names }) => ({
                value: sizeName(width, depth),
                label: `${area(width, depth)}, as ${names[0]!}${names.length > 1 ? ` and ${names.length - 1} more` : ''}`,
                drawing: <PlateGlyph width={(width / largest) * DRAWN} depth={(depth / largest) * DRAWN} />,
              })),
              { value: OTHER, label: 'another size' },
            ]}
            value={ownSize ? OTHER : sizeName(form.width, form.depth)}
            onChange={(value) => {
              const known = sizes.find(({ width, depth }) => sizeName(width, depth) === value);
              setOwnSize(known === undefined);
              if (known) change({ width: String(known.width), depth: String(known.depth) });
            }}
            error={ownSize ? undefined : fault('width')}
            testID="surface-size"
          />
        ) : null}
        {ownSize || sizes.length === 0 ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
            {text('width', 'Width', { unit: 'mm', keyboard: 'decimal' })}
            {text('depth', 'Depth', { unit: 'mm', keyboard: 'decimal' })}
          </View>
        ) : null}
        {opened
          ? null
          : text('place', 'Where it lies', {
              placeholder: 'Rack 1',
              hint: places.length > 0 ? `Known here: ${places.slice(0, 5).join(', ')}` : 'A rack, a drawer, a cabinet',
            })}
        {more ? (
          <>
            {text('thickness', 'Thickness, if measured', {
              unit: 'mm',
              keyboard: 'decimal',
              hint: 'A caliper on an edge without coat counts for Z; empty: the nominal one.',
            })}
            {text('tag', 'Tag', { hint: `Empty: the next free one${kind ? `, ${tagLetter(kind.group)}-…` : ''}.` })}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
              {text('bought', 'Bought', { placeholder: '2026-11-25' })}
              {text('price', 'Price', { keyboard: 'decimal' })}
            </View>
            {text('note', 'Note', { lines: 2 })}
          </>
        ) : (
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label="More: thickness, tag, price"
              kind="quiet"
              onPress={() => setMore(true)}
              testID="more-facts"
            />
          </View>
        )}
      </View>
    </Page>
  );
}

/** What it is: its group by its drawing, then the kind where the group has several. */
function KindChoice({
  kinds,
  kindId,
  group,
  onGroup,
  onChange,
  error,
}: {
  kinds: readonly SurfaceKind[];
  kindId: string;
  group: SurfaceGroup | null;
  onGroup: (group: SurfaceGroup) => void;
  onChange: (kindId: string) => void;
  error: string | undefined;
}) {
  const inGroup = kinds.filter((kind) => kind.group === group);
  const groups = GROUPS.filter((known) => kinds.some((kind) => kind.group === known));
  return (
    <>
      <Choice
        label="What it is"
        options={groups.map((value) => ({
          value,
          label: groupFacts(value).many,
          drawing: <GroupGlyph group={value} />,
        }))}
        value={group}
        onChange={(next) => {
          onGroup(next);
          const of = kinds.filter((kind) => kind.group === next);
          onChange(of.length === 1 ? of[0]!.id : '');
        }}
        error={group === null ? error : undefined}
        testID="surface-group"
      />
      {group !== null && inGroup.length > 1 ? (
        <Pick
          label="Which kind"
          value={kindId || null}
          options={inGroup.map(({ id: value, name }) => ({ value, label: name }))}
          onChange={onChange}
          error={error}
          testID="field-kindId"
        />
      ) : null}
    </>
  );
}
