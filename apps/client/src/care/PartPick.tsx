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
import { useJobsQuery } from './jobApi';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { area } from '../ui/formatHeight';
import { Pick } from '../ui/Pick';
import { TickRow } from '../ui/TickRow';
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
  /** Other machines of the same job for which nobody has said yet what this part is. */
  others: readonly MachineOverview[];
  onChangeOther: (machineId: string, picked: PickedPart) => void;
  /** Surfaces that other machines of the same job take. */
  taken: readonly string[];
  error?: string | undefined;
  testID: string;
}

/** How much wider than the plate a thing may be and still be one that fits, mm. */
const OVER = 15;
/** Smaller than this share of the plate it is meant for another machine. Our own choice. */
const LEAST = 0.75;

/** A part of a job: one that fits, a new one, or plainly none. */
export function PartPick({
  procedure,
  part,
  machine,
  value,
  onChange,
  others,
  onChangeOther,
  taken,
  error,
  testID,
}: Props) {
  const { data: stack } = useStackQuery({ id: machine.id });
  const { data: racked } = useSurfacesQuery({ state: 'in-rack', limit: 200 }, { skip: part.from !== 'rack' });
  const { data: jobs = [] } = useJobsQuery({ open: true }, { skip: part.from !== 'rack' });
  const [adding, setAdding] = useState(false);
  // What another job has in hand is not fetched for this one.
  const elsewhere = new Set(jobs.flatMap(({ parts }) => Object.values(parts)));
  const lies = (stack?.layers ?? []).flatMap(({ surfaceId, tag, name, slot }) =>
    surfaceId && tag ? [{ id: surfaceId, tag, name, slot, place: machine.name }] : [],
  );
  const { data: kinds = [] } = useKindsQuery();
  const groupOf = (name: string) => kinds.find((kind) => kind.name === name)?.group;
  const own = lies.filter(({ name }) => part.groups.includes(groupOf(name) as never));
  const suits = (racked ?? []).filter((one) => part.groups.includes(one.kind.group) && fits(one, machine));
  const free = suits.filter(({ id }) => !taken.includes(id) && !elsewhere.has(id));
  const offered =
    part.from === 'machine'
      ? own
      : // What lies on this very machine may go back on: its own sheet on a new base.
        [
          ...own,
          ...free.map(({ id, tag, kind, state, width, depth }) => ({
            id,
            tag,
            // Its size comes first: a list on a phone cuts what is long.
            name: width === null || depth === null ? kind.name : `${area(width, depth)}, ${kind.name}`,
            place: state.where.kind === 'rack' ? state.where.place : '',
          })),
        ];
  const loaded = stack !== undefined && (part.from === 'machine' ? kinds.length > 0 : racked !== undefined);
  const choose = (id: string) => {
    const one = offered.find((option) => option.id === id);
    onChange(one ? { surfaceId: one.id, side: 'A', tag: one.tag, place: one.place } : NOT_FOLLOWED);
  };
  // What only one can be is not asked; on a machine on which nothing of the kind lies there is nothing to follow.
  const settle = useEffectEvent(() => {
    if (value !== undefined) return;
    if (offered.length === 1 && (part.from === 'machine' || own.length === 0)) choose(offered[0]!.id);
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
      {free.length < suits.length ? (
        <Words size="small" tone="steel" testID={`${testID}-elsewhere`}>
          {`${suits.length - free.length} more that would fit ${suits.length - free.length === 1 ? 'is' : 'are'} in use by other jobs.`}
        </Words>
      ) : null}
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
      {adding ? (
        <NewPart
          part={part}
          machine={machine}
          others={others.filter(
            ({ plateWidth, plateDepth }) => plateWidth === machine.plateWidth && plateDepth === machine.plateDepth,
          )}
          onClose={() => setAdding(false)}
          onAdded={(id, picked) => (id === machine.id ? onChange(picked) : onChangeOther(id, picked))}
        />
      ) : null}
    </View>
  );
}

/** It lies on the plate: where its size is known, neither much larger than the plate nor much smaller, in either direction. */
function fits({ width, depth }: Surface, { plateWidth, plateDepth }: MachineOverview): boolean {
  if (width === null || depth === null) return true;
  return (
    width <= plateWidth + OVER &&
    depth <= plateDepth + OVER &&
    width >= LEAST * plateWidth &&
    depth >= LEAST * plateDepth
  );
}

/** A thing that was bought for this job: its kind and its size, the rest when there is time. */
function NewPart({
  part,
  machine,
  others,
  onClose,
  onAdded,
}: {
  part: Procedure['parts'][number];
  machine: MachineOverview;
  others: readonly MachineOverview[];
  onClose: () => void;
  onAdded: (machineId: string, picked: PickedPart) => void;
}) {
  const { data: kinds = [] } = useKindsQuery();
  const [save, { isLoading, error }] = useSaveSurfaceMutation();
  const own = kinds.filter(({ group }) => part.groups.includes(group));
  const [kindId, setKindId] = useState<string | null>(null);
  const [width, setWidth] = useState(String(machine.plateWidth));
  const [depth, setDepth] = useState(String(machine.plateDepth));
  // One is bought for each machine of the job, as a rule.
  const [forAll, setForAll] = useState(true);
  const all = forAll ? [machine, ...others] : [machine];
  // Each keeps its id while the dialog is open: sent twice, it is added once.
  const [ids] = useState(() => Object.fromEntries([machine, ...others].map((one) => [one.id, uuid()])));
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
    for (const one of all) {
      const id = ids[one.id]!;
      const { data } = await save({ id, key: id, body: body as never });
      if (!data) return;
      onAdded(one.id, { surfaceId: id, side: 'A', tag: (data as Surface).tag, place: 'new' });
    }
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
      {others.length > 0 ? (
        <TickRow
          words={`Also one each for ${others.map(({ name }) => name).join(', ')}`}
          ticked={forAll}
          onPress={() => setForAll(!forAll)}
          testID="new-part-all"
        />
      ) : null}
      <Words size="small" tone="steel">
        The next free tag is given. The thickness is measured in the job.
      </Words>
      {failure ? (
        <Words tone="stop" live>
          {failure.message}
        </Words>
      ) : null}
      <ActionButton
        label={all.length > 1 ? `Add ${all.length}` : 'Add it'}
        kind="main"
        busy={isLoading}
        disabled={kind === null}
        onPress={() => void add()}
        testID="new-part-add"
      />
    </DialogFrame>
  );
}
