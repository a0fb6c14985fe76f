import { CAUTIONS } from '@even-bed/core/care/cautions';
import type { ProcedureStep } from '@even-bed/core/care/procedure';
import { readLength } from '@even-bed/core/fleet/readLength';
import type { RunRefusal } from '@even-bed/core/care/runProcedure';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Notice } from '../ui/Notice';
import { StepPicture } from '../ui/StepPicture';
import { numberIn } from '../ui/numberIn';
import { RADIUS, TOUCH, usePalette } from '../ui/theme';
import { rightNow } from '../ui/useNow';
import type { useSteadyTap } from '../ui/useSteadyTap';
import { Words } from '../ui/Words';
import { StepSum } from './StepSum';
import { StepTimer } from './StepTimer';
import type { JobInHand } from './useJob';

const STOPS = new Set(['once', 'knock', 'mains', 'insulate', 'glass']);

type SteadyTap = ReturnType<typeof useSteadyTap>;

/** What is typed and ticked for the step in hand, and what takes it on. */
export function useStepCard(step: ProcedureStep, { take }: JobInHand, steady: SteadyTap) {
  const [readings, setReadings] = useState<Record<string, string>>({});
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [refusal, setRefusal] = useState<RunRefusal | null>(null);
  const [cant, setCant] = useState(false);
  const done = (answer: string | null) =>
    steady(() => {
      const values = Object.fromEntries(
        (step.readings ?? []).map(({ id, unit }) => {
          const text = readings[id] ?? '';
          // A length may be typed as it is read: 5 1/4 in.
          return [id, unit === 'mm' ? (readLength(text) ?? NaN) : numberIn(text)];
        }),
      );
      setRefusal(
        take({ kind: 'done', at: rightNow(), stepId: step.id, readings: values, checks: [...ticked].sort(), answer }),
      );
    })();
  const toggle = (i: number) =>
    setTicked((old) => {
      const next = new Set(old);
      if (!next.delete(i)) next.add(i);
      return next;
    });
  return {
    readings,
    read: (id: string, text: string) => setReadings((old) => ({ ...old, [id]: text })),
    ticked,
    toggle,
    refusal,
    done,
    cant,
    openCant: () => setCant(true),
    closeCant: () => setCant(false),
  };
}

interface Props {
  step: ProcedureStep;
  inHand: JobInHand;
  mayDo: boolean;
  card: ReturnType<typeof useStepCard>;
}

/** One step: cautions above the doing, the doing large, then what is read, ticked and answered. */
export function StepCard({ step, inHand, mayDo, card }: Props) {
  const { take } = inHand;
  const { readings, read, ticked, toggle, refusal, done, cant, closeCant } = card;
  return (
    <View style={{ gap: 16 }} testID={`step-${step.id}`}>
      {(step.cautions ?? []).map((id) => (
        <Notice key={id} kind={STOPS.has(id) ? 'stop' : 'due'} title={CAUTIONS[id].title}>
          {CAUTIONS[id].text}
        </Notice>
      ))}
      <View style={{ gap: 8 }}>
        <Words size="turn" bold testID="doing">
          {step.doing}
        </Words>
        {step.why ? <Words tone="steel">{step.why}</Words> : null}
      </View>
      {step.picture ? <StepPicture name={step.picture} mark={step.mark} label={step.title} /> : null}
      <StepSum step={step} job={inHand.job} state={inHand.state} />
      <StepTimer inHand={inHand} />
      {(step.readings ?? []).map(({ id, label, unit, least, most }) => (
        <Field
          key={id}
          label={label}
          {...(unit ? { unit } : {})}
          value={readings[id] ?? ''}
          onChange={(text) => read(id, text)}
          keyboard="decimal"
          {...(refusal?.fields[`readings.${id}`] ? { error: refusal.fields[`readings.${id}`]! } : {})}
          {...(least !== undefined || most !== undefined
            ? {
                hint: `To go on: ${[least === undefined ? '' : `at least ${least}`, most === undefined ? '' : `at most ${most}`].filter(Boolean).join(', ')} ${unit}`,
              }
            : {})}
          testID={`reading-${id}`}
        />
      ))}
      {(step.gate?.checks ?? []).map((check, i) => (
        <Check
          key={i}
          words={check}
          ticked={ticked.has(i)}
          missing={refusal?.fields[`checks.${i}`] !== undefined}
          onPress={() => toggle(i)}
          testID={`check-${i}`}
        />
      ))}
      {step.photo && mayDo ? (
        <Words size="small" tone="steel">
          A photo of this is worth having: below.
        </Words>
      ) : null}
      {refusal ? (
        <Words tone="stop" bold live testID="refusal">
          {refusal.message}
        </Words>
      ) : null}
      {mayDo && step.ask ? (
        <View style={{ gap: 12 }}>
          <Words size="lead" bold>
            {step.ask.question}
          </Words>
          {step.ask.answers.map(({ id, label }) => (
            <ActionButton key={id} label={label} onPress={() => done(id)} testID={`answer-${id}`} />
          ))}
        </View>
      ) : null}
      <CantDialog open={cant} step={step} onClose={closeCant} take={take} />
    </View>
  );
}

function Check({
  words,
  ticked,
  missing,
  onPress,
  testID,
}: {
  words: string;
  ticked: boolean;
  missing: boolean;
  onPress: () => void;
  testID: string;
}) {
  const palette = usePalette();
  return (
    <Pressable
      role="checkbox"
      aria-checked={ticked}
      aria-label={words}
      onPress={onPress}
      testID={testID}
      style={{ flexDirection: 'row', gap: 12, alignItems: 'center', minHeight: TOUCH + 8, paddingVertical: 6 }}
    >
      <View
        style={{
          width: 32,
          height: 32,
          borderRadius: RADIUS,
          borderWidth: 2,
          borderColor: missing && !ticked ? palette.stop : palette.ink,
          backgroundColor: ticked ? palette.ink : 'transparent',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {ticked ? <Icon name="check" size={24} color={palette.paper} /> : null}
      </View>
      <View style={{ flex: 1 }}>
        <Words tone={missing && !ticked ? 'stop' : 'ink'}>{words}</Words>
      </View>
    </Pressable>
  );
}

/** What is in the way, each leading to where it is put right; or the end, with a reason. */
function CantDialog({
  open,
  step,
  onClose,
  take,
}: {
  open: boolean;
  step: ProcedureStep;
  onClose: () => void;
  take: JobInHand['take'];
}) {
  const [note, setNote] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  return (
    <DialogFrame open={open} title="What is in the way?" onClose={onClose} testID="cant-dialog">
      <Field label="A note, if it helps" value={note} onChange={setNote} testID="cant-note" />
      {step.cant.map(({ label }, way) => (
        <ActionButton
          key={label}
          label={label}
          onPress={() => {
            onClose();
            take({ kind: 'cant', at: rightNow(), stepId: step.id, way, note });
          }}
          testID={`cant-${way}`}
        />
      ))}
      <ActionButton
        label="End the job here"
        kind="quiet"
        onPress={() => {
          const refusal = take({ kind: 'stopped', at: rightNow(), stepId: step.id, why: note });
          if (refusal) setFault(`${refusal.message} Use the note.`);
          else onClose();
        }}
        testID="stop-job"
      />
      {fault ? (
        <Words tone="stop" live>
          {fault}
        </Words>
      ) : null}
      <ActionButton label="Go on with the step" kind="quiet" onPress={onClose} />
    </DialogFrame>
  );
}
