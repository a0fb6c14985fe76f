import type { Surface } from '@even-bed/contract';
import type { HoldKind, QuarterTurn, Side, SurfaceWork } from '@even-bed/core';
import { namedCare } from '@even-bed/core/surfaces/namedCare';
import { isHeld } from '@even-bed/core/surfaces/surfaceState';
import { useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { dayAndTime } from '../ui/formatTime';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { PlaceDialog } from './PlaceDialog';
import { useSurfaceHappens, type SurfaceHappened } from './useSurfaceHappens';
import { careNames, sideWords } from './surfaceWords';

type Open = 'move' | 'work' | 'hold' | 'cut' | 'ask' | 'retire' | 'back' | null;

const ROW = { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } as const;

interface Props {
  surface: Surface;
  now: number;
  /** Only what moves it: on the machine's page. */
  brief?: boolean;
}

/** What can be done with a surface where it stands; each is one line of the book. */
export function SurfaceActions({ surface, now, brief }: Props) {
  const [open, setOpen] = useState<Open>(null);
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { write, isLoading, error, reset } = useSurfaceHappens();
  const failure = errorOf(error);
  const { where, retired } = surface.state;
  const on = where.kind === 'machine' ? where : null;
  const held = isHeld(surface.state, now);
  const happened = async (event: SurfaceHappened) => {
    const result = await write(surface.id, event);
    if (!result.error) setOpen(null);
  };
  const show = (dialog: Open) => {
    reset();
    setOpen(dialog);
  };
  const printing = usePrinting();
  const close = () => setOpen(null);
  const at = () => Date.now();
  const dialog = { failure: failure?.message, busy: isLoading, onClose: close };
  if (printing) return null;
  return (
    <View style={{ gap: 12 }}>
      {failure && open === null ? (
        <Notice kind="stop" title="Not done">
          {failure.message}
        </Notice>
      ) : null}
      <View style={ROW} testID="surface-actions">
        {retired === null && on ? (
          <>
            {surface.kind.sides.length > 1 ? (
              <ActionButton
                label="Turn over"
                grow
                busy={isLoading && open === null}
                onPress={() => void happened({ kind: 'turned', at: at(), sideUp: other(on.sideUp), turned: on.turned })}
                testID="turn-over"
              />
            ) : null}
            <ActionButton
              label="Half a turn"
              grow
              disabled={isLoading}
              onPress={() =>
                void happened({ kind: 'turned', at: at(), sideUp: on.sideUp, turned: opposite(on.turned) })
              }
              testID="half-turn"
            />
          </>
        ) : null}
        {retired === null ? (
          <ActionButton label={on ? 'Take off' : 'Move'} grow onPress={() => show('move')} testID="take-off" />
        ) : isLead ? (
          <ActionButton label="Bring it back" onPress={() => show('back')} testID="bring-back" />
        ) : null}
      </View>
      {retired === null && !brief ? (
        <>
          <View style={ROW}>
            <ActionButton label="Work done" icon="check" grow onPress={() => show('work')} testID="work-done" />
            {held ? (
              <ActionButton label="Cut the hold short" icon="hold" grow onPress={() => show('cut')} testID="cut-hold" />
            ) : (
              <ActionButton label="Put on hold" icon="hold" grow onPress={() => show('hold')} testID="put-on-hold" />
            )}
          </View>
          <View style={ROW}>
            <ActionButton label="Ask for work" kind="quiet" onPress={() => show('ask')} testID="ask-work" />
            {isLead ? (
              <ActionButton label="Retire" kind="quiet" onPress={() => show('retire')} testID="retire" />
            ) : null}
          </View>
        </>
      ) : null}
      {open === 'move' ? (
        <PlaceDialog
          title={on ? `Take ${surface.tag} off to` : `Move ${surface.tag} to`}
          failure={failure?.message}
          onClose={close}
          onPlace={(place) => happened({ kind: on ? 'taken-off' : 'moved', at: at(), place })}
        />
      ) : null}
      {open === 'work' ? <WorkDialog surface={surface} {...dialog} onDone={happened} /> : null}
      {open === 'hold' ? <HoldDialog {...dialog} onDone={happened} /> : null}
      {open === 'cut' ? (
        <ReasonDialog
          {...dialog}
          title="Cut the hold short"
          label="Why"
          hint="A bond that is used too early lets go later. The reason stays in the book."
          confirm="Cut it short"
          onReason={(reason) => happened({ kind: 'hold-cut', at: at(), reason })}
        />
      ) : null}
      {open === 'ask' ? (
        <ReasonDialog
          {...dialog}
          title="Ask for work"
          label="What has to be done"
          confirm="Ask"
          onReason={(what) => happened({ kind: 'work-asked', at: at(), what })}
        />
      ) : null}
      {open === 'retire' ? (
        <ReasonDialog
          {...dialog}
          title={`Retire ${surface.tag}`}
          label="Why"
          hint={on ? 'It is taken off its machine. A lead can bring it back.' : 'A lead can bring it back.'}
          confirm="Retire it"
          onReason={(why) => happened({ kind: 'retired', at: at(), why })}
        />
      ) : null}
      {open === 'back' ? (
        <ReasonDialog
          {...dialog}
          title={`Bring ${surface.tag} back`}
          label="Why"
          confirm="Bring it back"
          onReason={(why) => happened({ kind: 'brought-back', at: at(), why, place: '' })}
        />
      ) : null}
    </View>
  );
}

const other = (side: Side): Side => (side === 'A' ? 'B' : 'A');
const opposite = (turned: QuarterTurn) => ((turned + 180) % 360) as QuarterTurn;

interface DialogProps {
  failure: string | undefined;
  busy: boolean;
  onClose: () => void;
}

function ReasonDialog({
  title,
  label,
  hint,
  confirm,
  failure,
  busy,
  onClose,
  onReason,
}: DialogProps & { title: string; label: string; hint?: string; confirm: string; onReason: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <DialogFrame open title={title} onClose={onClose} testID="reason-dialog">
      <Field
        label={label}
        value={text}
        onChange={setText}
        error={failure}
        hint={hint}
        onSubmit={() => onReason(text)}
        testID="reason"
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton
          label={confirm}
          kind="main"
          busy={busy}
          disabled={text.trim() === ''}
          onPress={() => onReason(text)}
          grow
          testID="reason-go"
        />
      </View>
    </DialogFrame>
  );
}

const WORKS: { value: SurfaceWork; label: string }[] = [
  { value: 'wiped', label: 'wiped' },
  { value: 'washed', label: 'washed' },
  { value: 'scrubbed', label: 'scrubbed' },
  { value: 'renewed', label: 'renewed' },
  { value: 'repaired', label: 'repaired' },
  { value: 'other', label: 'other' },
];

function WorkDialog({
  surface,
  failure,
  busy,
  onClose,
  onDone,
}: DialogProps & { surface: Surface; onDone: (event: SurfaceHappened) => void }) {
  const twoSided = surface.kind.sides.length > 1;
  const { where } = surface.state;
  const [work, setWork] = useState<SurfaceWork>('wiped');
  const [side, setSide] = useState<Side | 'both'>(where.kind === 'machine' ? where.sideUp : twoSided ? 'both' : 'A');
  const [note, setNote] = useState('');
  const save = () => onDone({ kind: 'work-done', at: Date.now(), work, side: side === 'both' ? null : side, note });
  const never = namedCare(note).filter((item) => surface.kind.care[item] === 'no');
  return (
    <DialogFrame open title={`What was done to ${surface.tag}?`} onClose={onClose} testID="work-dialog">
      <Choice label="Work" hideLabel options={WORKS} value={work} onChange={setWork} testID="work" />
      {twoSided ? (
        <Choice
          label="Which side"
          options={[
            { value: 'A', label: sideWords('A', surface.kind) },
            { value: 'B', label: sideWords('B', surface.kind) },
            { value: 'both', label: 'both' },
          ]}
          value={side}
          onChange={setSide}
          testID="work-side"
        />
      ) : null}
      <Field
        label="How, with what"
        value={note}
        onChange={setNote}
        placeholder="2000 grit, alcohol"
        error={failure}
        testID="work-note"
      />
      {never.length > 0 ? (
        <Notice kind="stop" title={`Never on ${surface.kind.name}`} testID="work-never">
          {`${careNames(never)} can damage this face. If it was done anyway, write it down, and look at the face before the next print.`}
        </Notice>
      ) : null}
      {work === 'renewed' ? (
        <Words size="small" tone="steel">
          Its life is counted anew from here on. Abrasive dust: respirator.
        </Words>
      ) : null}
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton
          label={never.length > 0 ? 'It was done anyway' : 'Write it down'}
          kind={never.length > 0 ? 'plain' : 'main'}
          busy={busy}
          onPress={save}
          grow
          testID="work-go"
        />
      </View>
    </DialogFrame>
  );
}

const HOUR_MS = 3_600_000;
const SPANS: { hours: number; label: string }[] = [
  { hours: 0.5, label: '30 min' },
  { hours: 2, label: '2 h' },
  { hours: 24, label: '24 h' },
  { hours: 72, label: '72 h' },
];

function HoldDialog({ failure, busy, onClose, onDone }: DialogProps & { onDone: (event: SurfaceHappened) => void }) {
  const [hold, setHold] = useState<HoldKind>('cure');
  const [hours, setHours] = useState('24');
  const [reason, setReason] = useState('');
  const [now] = useState(() => Date.now());
  const length = Number(hours.replace(',', '.'));
  const until = now + length * HOUR_MS;
  const fault = !(length > 0) || length > 24 * 60 ? 'Type hours, such as 24 or 0,5.' : undefined;
  return (
    <DialogFrame open title="Put on hold" onClose={onClose} testID="hold-dialog">
      <Choice
        label="It has to"
        options={[
          { value: 'cure', label: 'cure' },
          { value: 'dry', label: 'dry' },
          { value: 'cool', label: 'cool' },
          { value: 'soak', label: 'soak' },
        ]}
        value={hold}
        onChange={setHold}
        testID="hold-kind"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {SPANS.map(({ hours: span, label }) => (
          <ActionButton
            key={label}
            label={label}
            kind={length === span ? 'main' : 'plain'}
            onPress={() => setHours(String(span))}
            testID={`hold-${span}`}
          />
        ))}
      </View>
      <Field label="For" unit="h" value={hours} onChange={setHours} error={fault ?? failure} testID="hold-hours" />
      <Field label="Reason" value={reason} onChange={setReason} placeholder="24 h under weight" testID="hold-reason" />
      <Words bold>{fault ? '' : `Free ${dayAndTime(until)}`}</Words>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton
          label="Hold it"
          kind="main"
          busy={busy}
          disabled={fault !== undefined}
          onPress={() => onDone({ kind: 'held', at: Date.now(), hold, until: Date.now() + length * HOUR_MS, reason })}
          grow
          testID="hold-go"
        />
      </View>
    </DialogFrame>
  );
}
