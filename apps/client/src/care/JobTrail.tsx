import { useState } from 'react';
import { View } from 'react-native';
import { usePeopleQuery } from '../people/peopleApi';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { clockTime, shortDate } from '../ui/formatTime';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { rightNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { StepPhoto } from './StepPhoto';
import type { Procedure } from '@even-bed/core';
import type { RunRefusal } from '@even-bed/core/care/runProcedure';
import type { JobInHand } from './useJob';
import { readingSize } from './readingWords';

/** A reading as it is told: in the shop's unit, or by the word that was chosen for it. */
function readingWords(procedure: Procedure, key: string, value: number): string {
  const [stepId, id] = key.split('.');
  const step = procedure.steps.find((one) => one.id === stepId);
  const asked = step?.readings?.find((one) => one.id === id);
  const option = asked?.options?.find((one) => one.value === value);
  if (option) return option.label;
  return readingSize(value, asked?.unit ?? '');
}

const HOW = { done: '', cant: ', could not', branch: ', put right elsewhere', late: ', too late' } as const;

/** What was done so far, with notes; undoing, a note, handing over, printing. */
export function JobTrail({
  inHand,
  now,
  mayDo,
  onUndo,
}: {
  inHand: JobInHand;
  now: number;
  mayDo: boolean;
  /** Takes the last card back. */
  onUndo: () => RunRefusal | null;
}) {
  const [dialog, setDialog] = useState<'note' | 'hand-over' | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { state, job } = inHand;
  const title = (id: string) => job.procedure.steps.find((step) => step.id === id)?.title ?? id;
  const reading = (stepId: string) =>
    Object.entries(state.readings)
      .filter(([key]) => key.startsWith(`${stepId}.`))
      .map(([key, value]) => readingWords(job.procedure, key, value))
      .join(', ');
  return (
    <Section title="SO FAR" testID="job-trail">
      {state.trail.length === 0 ? <Words tone="steel">Nothing yet.</Words> : null}
      {state.trail.slice(-6).map(({ stepId, leftAt, how }, i) => (
        <Words key={i} size="small" tone="steel">
          {`${clockTime(leftAt)} ${title(stepId)}${HOW[how]}${reading(stepId) ? `: ${reading(stepId)}` : ''}`}
        </Words>
      ))}
      {state.notes.map(({ note, at }, i) => (
        <Words key={i} size="small" testID={`note-${i}`}>
          {`${shortDate(at, now)} ${clockTime(at)}: ${note}`}
        </Words>
      ))}
      {mayDo ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
          <ActionButton
            label="Undo the last card"
            kind="quiet"
            icon="back"
            disabled={state.before === null}
            onPress={() => setFault(onUndo()?.message ?? null)}
            testID="undo-step"
          />
          <ActionButton label="A note" kind="quiet" icon="edit" onPress={() => setDialog('note')} testID="add-note" />
          <ActionButton
            label="Hand over"
            kind="quiet"
            icon="person"
            onPress={() => setDialog('hand-over')}
            testID="hand-over"
          />
          <ActionButton
            label="Print"
            kind="quiet"
            icon="print"
            onPress={() => window.open(`/jobs/paper?job=${job.id}`)}
            testID="print-job"
          />
        </View>
      ) : null}
      {mayDo ? (
        <StepPhoto
          machineId={job.machineId}
          note={`${job.title}: ${state.at === null ? 'at its end' : title(state.at)}`}
        />
      ) : null}
      {fault ? <Words tone="stop">{fault}</Words> : null}
      {dialog === 'note' ? <NoteDialog inHand={inHand} onClose={() => setDialog(null)} /> : null}
      {dialog === 'hand-over' ? <HandOverDialog inHand={inHand} onClose={() => setDialog(null)} /> : null}
    </Section>
  );
}

function NoteDialog({ inHand: { state, take }, onClose }: { inHand: JobInHand; onClose: () => void }) {
  const [note, setNote] = useState('');
  return (
    <DialogFrame open title="A note" onClose={onClose} testID="note-dialog">
      <Field label="What should be known" value={note} onChange={setNote} lines={3} testID="note-text" />
      <ActionButton
        label="Keep it"
        kind="main"
        disabled={note.trim() === ''}
        onPress={() => {
          take([{ kind: 'noted', at: rightNow(), stepId: state.at!, note }]);
          onClose();
        }}
        testID="note-keep"
      />
    </DialogFrame>
  );
}

function HandOverDialog({ inHand: { state, take }, onClose }: { inHand: JobInHand; onClose: () => void }) {
  const { data: everybody = [] } = usePeopleQuery();
  const people = everybody.filter(({ active, role }) => active && role !== 'looker');
  const [toId, setToId] = useState<string | null>(null);
  const [note, setNote] = useState('');
  const to = people.find(({ id }) => id === toId);
  return (
    <DialogFrame open title="Hand over" onClose={onClose} testID="hand-over-dialog">
      <Pick
        label="To whom"
        options={people.map(({ id, name }) => ({ value: id, label: name }))}
        value={toId}
        onChange={setToId}
        testID="hand-over-to"
      />
      <Field label="What they should know" value={note} onChange={setNote} lines={3} testID="hand-over-note" />
      <ActionButton
        label="Hand over"
        kind="main"
        disabled={!to}
        onPress={() => {
          if (to)
            take([{ kind: 'handed-over', at: rightNow(), stepId: state.at!, toId: to.id, toName: to.name, note }]);
          onClose();
        }}
        testID="hand-over-go"
      />
    </DialogFrame>
  );
}
