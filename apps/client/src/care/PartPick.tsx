import type { MachineOverview, Surface } from '@even-bed/contract';
import type { Procedure, Side } from '@even-bed/core';
import { partLosses } from '@even-bed/core/care/together';
import { lossWords } from '@even-bed/words/spoken';
import { useEffect, useEffectEvent, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useKindsQuery, useSaveSurfaceMutation, useStackQuery, useSurfacesQuery } from '../surfaces/surfacesApi';
import { sideWords } from '../surfaces/surfaceWords';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { area } from '../ui/formatHeight';
import { Pick } from '../ui/Pick';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';

/** What a part of a job is: a surface, or that it is not followed, which somebody has said. */
export interface PickedPart {
  surfaceId: string | null;
  side: Side;
  tag: string;
  place: string;
}
export const NOT_FOLLOWED: PickedPart = { surfaceId: null, side: 'A', tag: '', place: '' };

interface Props {
  procedure: Procedure;
  part: Procedure['parts'][number];
  machine: MachineOverview;
  /** undefined: nobody has said yet. */
  value: PickedPart | undefined;
  onChange: (picked: PickedPart) => void;
  /** Surfaces that other machines of the same job take. */
  taken: readonly string[];
  error?: string | undefined;
  testID: string;
}

/** How much wider than the plate a thing may be and still be one that fits, mm. */
const OVER = 15;

/** A part of a job: one that fits, a new one, or plainly none. */
export function PartPick({ procedure, part, machine, value, onChange, taken, error, testID }: Props) {
  const { data: stack } = useStackQuery({ id: machine.id });
  const { data: racked } = useSurfacesQuery({ state: 'in-rack', limit: 200 }, { skip: part.from !== 'rack' });
  const [adding, setAdding] = useState(false);
  const lies = (stack?.layers ?? []).flatMap(({ surfaceId, tag, name, slot }) =>
    surfaceId && tag ? [{ id: surfaceId, tag, name, slot, place: machine.name }] : [],
  );
  const { data: kinds = [] } = useKindsQuery();
  const groupOf = (name: string) => kinds.find((kind) => kind.name === name)?.group;
  const offered =
    part.from === 'machine'
      ? lies.filter(({ name }) => part.groups.includes(groupOf(name) as never))
      : (racked ?? [])
          .filter((one) => part.groups.includes(one.kind.group) && fits(one, machine) && !taken.includes(one.id))
          .map(({ id, tag, kind, state, width, depth }) => ({
            id,
            tag,
            // Its size comes first: a list on a phone cuts what is long.
            name: width === null || depth === null ? kind.name : `${area(width, depth)}, ${kind.name}`,
            place: state.where.kind === 'rack' ? state.where.place : '',
          }));
  const loaded = part.from === 'machine' ? stack !== undefined && kinds.length > 0 : racked !== undefined;
  const choose = (id: string) => {
    const one = offered.find((option) => option.id === id);
    onChange(one ? { surfaceId: one.id, side: 'A', tag: one.tag, place: one.place } : NOT_FOLLOWED);
  };
  // What only one can be is not asked; on a machine on which nothing of the kind lies there is nothing to follow.
  const settle = useEffectEvent(() => {
    if (value !== undefined) return;
    if (offered.length === 1) choose(offered[0]!.id);
    else if (offered.length === 0 && part.from === 'machine') onChange(NOT_FOLLOWED);
  });
  useEffect(() => {
    if (loaded) settle();
  }, [loaded, offered.length]);
  const chosen = (racked ?? []).find(({ id }) => id === value?.surfaceId);
  const nothingThere = part.from === 'machine' && loaded && offered.length === 0;
  if (nothingThere && value?.surfaceId === null) return null;
  const options = [
    ...offered.map(({ id, tag, name, place }) => ({
      value: id,
      label: `${tag} ${name}${part.from === 'rack' && place ? `, ${place}` : ''}`,
    })),
    ...(value?.surfaceId && !offered.some(({ id }) => id === value.surfaceId)
      ? [{ value: value.surfaceId, label: value.tag }]
      : []),
    { value: '', label: 'Not followed' },
  ];
  return (
    <View style={{ gap: 4 }}>
      <Pick
        label={part.label}
        options={options}
        value={value === undefined ? null : (value.surfaceId ?? '')}
        placeholder={offered.length === 0 ? 'None that fits is in the rack' : 'Choose'}
        onChange={choose}
        {...(error ? { error } : {})}
        testID={testID}
      />
      {value?.surfaceId === null ? (
        <Words size="small" tone="due" testID={`${testID}-cost`}>
          {lossWords(partLosses(procedure, part.id))}
        </Words>
      ) : null}
      {part.from === 'rack' && (value === undefined || value.surfaceId === null) ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Add a new one"
            icon="add"
            kind="quiet"
            onPress={() => setAdding(true)}
            testID={`${testID}-add`}
          />
        </View>
      ) : null}
      {chosen && value && chosen.kind.sides.length > 1 ? (
        <Choice
          label={`Side of ${chosen.tag} that goes up`}
          options={(['A', 'B'] as const).map((side) => ({ value: side, label: sideWords(side, chosen.kind) }))}
          value={value.side}
          onChange={(side) => onChange({ ...value, side })}
        />
      ) : null}
      {adding ? <NewPart part={part} machine={machine} onClose={() => setAdding(false)} onAdded={onChange} /> : null}
    </View>
  );
}

/** It lies on the plate: where its size is known, neither much larger than the plate nor smaller than half of it. */
function fits({ width, depth }: Surface, { plateWidth, plateDepth }: MachineOverview): boolean {
  if (width === null || depth === null) return true;
  return width <= plateWidth + OVER && depth <= plateDepth + OVER && width >= plateWidth / 2 && depth >= plateDepth / 2;
}

/** A thing that was bought for this job: its kind and its size, the rest when there is time. */
function NewPart({
  part,
  machine,
  onClose,
  onAdded,
}: {
  part: Procedure['parts'][number];
  machine: MachineOverview;
  onClose: () => void;
  onAdded: (picked: PickedPart) => void;
}) {
  const { data: kinds = [] } = useKindsQuery();
  const [save, { isLoading, error }] = useSaveSurfaceMutation();
  const own = kinds.filter(({ group }) => part.groups.includes(group));
  const [kindId, setKindId] = useState<string | null>(null);
  const [width, setWidth] = useState(String(machine.plateWidth));
  const [depth, setDepth] = useState(String(machine.plateDepth));
  const [id] = useState(() => uuid());
  const failure = errorOf(error);
  const kind = kindId ?? (own.length === 1 ? own[0]!.id : null);
  const add = async () => {
    if (kind === null) return;
    const body = {
      tag: '',
      kindId: kind,
      width,
      depth,
      thickness: null,
      boughtAt: rightNow(),
      price: null,
      note: '',
      place: 'new',
      version: 0,
      at: rightNow(),
    };
    const { data } = await save({ id, key: id, body: body as never });
    if (!data) return;
    onAdded({ surfaceId: id, side: 'A', tag: (data as Surface).tag, place: 'new' });
    onClose();
  };
  return (
    <DialogFrame open title={`${part.label}: a new one`} onClose={onClose} testID="new-part">
      <Pick
        label="Kind"
        options={own.map((one) => ({ value: one.id, label: one.name }))}
        value={kind}
        onChange={setKindId}
        testID="new-part-kind"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <Field
          label="Width"
          unit="mm"
          value={width}
          onChange={setWidth}
          keyboard="decimal"
          error={failure?.fields['width']}
          testID="new-part-width"
        />
        <Field
          label="Depth"
          unit="mm"
          value={depth}
          onChange={setDepth}
          keyboard="decimal"
          error={failure?.fields['depth']}
          testID="new-part-depth"
        />
      </View>
      <Words size="small" tone="steel">
        It gets the next free tag. Its thickness is measured in the job.
      </Words>
      {failure ? (
        <Words tone="stop" live>
          {failure.message}
        </Words>
      ) : null}
      <ActionButton
        label="Add it"
        kind="main"
        busy={isLoading}
        disabled={kind === null}
        onPress={() => void add()}
        testID="new-part-add"
      />
    </DialogFrame>
  );
}
