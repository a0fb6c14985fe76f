import type { JobFacts } from '@even-bed/core/care/jobSum';
import {
  PICTURE_PLACES,
  type PictureId,
  type ProcedureReading,
  type ProcedureStep,
} from '@even-bed/core/care/procedure';
import type { RunManner } from '@even-bed/core/care/runCard';
import { doingOf, type RunSetup } from '@even-bed/core/care/runProcedure';
import { CORNERS } from '@even-bed/core/level/tugs';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { StepPicture } from '../ui/StepPicture';
import { TOUCH, usePalette } from '../ui/theme';
import { TickRow } from '../ui/TickRow';
import { Words } from '../ui/Words';
import { LapReadings } from './LapReadings';
import { PieceReadings } from './PieceReadings';
import { StepSum } from './StepSum';
import { TugReadings } from './TugReadings';
import type { CardInHand } from './useCard';
import { limitWords } from './readingWords';

/** Sums that an answer or a number on the card hangs on; the others are looked up when wanted. */
const FED: readonly unknown[] = [
  'stack',
  'underbed',
  'top',
  'light',
  'level',
  'blanks',
  'tugs',
  'pieces',
  'skirt',
  'strips',
  'lap',
];

/** Practised hands know it without being told: no gate, nothing to type, nothing that can't be undone or may knock. */
const isFolded = ({ gate, onceOnly, bound, timer, readings = [], ask, sum, cautions }: ProcedureStep) =>
  !gate &&
  !cautions?.includes('knock') &&
  !onceOnly &&
  !bound &&
  !timer &&
  !ask &&
  !FED.includes(sum) &&
  readings.every(({ optional }) => optional);

/** A sheet at each corner, pulled one after another: asked on a plan. */
const isTugged = ({ sum, readings }: ProcedureStep) => sum === 'tugs' && readings?.length === CORNERS.length;

interface Props {
  hand: CardInHand;
  setup: RunSetup;
  facts: JobFacts | null;
  machineId: string;
  jobId: string;
  manner: RunManner;
}

/** The doings of a card as lines, each with what it asks for. */
export function CardLines({ hand, manner, ...rest }: Props) {
  const { card } = hand;
  const several = card.steps.length > 1;
  // One picture for hands that are full: the last, of what takes longest.
  const shown = card.bound ? card.steps.findLast(({ picture }) => picture) : null;
  // Several places of one picture: it is drawn once, and the one meant now is the first that is not answered.
  const placed = card.steps.filter(({ picture, mark }) => picture && mark !== undefined);
  const meant = placed.find((step) => (step.readings ?? []).some((reading) => hand.text(step, reading) === ''));
  return (
    <View style={{ gap: several ? 18 : 16 }}>
      {placed.length > 1 ? (
        <StepPicture
          name={placed[0]!.picture!}
          mark={(meant ?? placed.at(-1)!).mark}
          label={(meant ?? placed.at(-1)!).title}
        />
      ) : null}
      {card.steps.map((step) => (
        <CardLine
          key={step.id}
          step={step}
          hand={hand}
          folded={manner === 'practised' && several && isFolded(step)}
          told={manner === 'step-by-step'}
          named={placed.length > 1 && step.mark !== undefined && step !== placed[0]}
          drawn={card.bound ? step === shown : placed.length < 2 || step.mark === undefined}
          {...rest}
        />
      ))}
    </View>
  );
}

interface LineProps extends Omit<Props, 'manner'> {
  step: ProcedureStep;
  folded: boolean;
  /** With its reason, and numbers that nothing hangs on. */
  told: boolean;
  drawn: boolean;
  /** One of several places of a picture that are asked in a row: its name stands at what is asked. */
  named: boolean;
}

function CardLine({ step, hand, setup, facts, machineId, jobId, folded, told, drawn, named }: LineProps) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const { card } = hand;
  const doing = doingOf(step, setup.choices);
  const shut = folded && !open;
  if (shut)
    return (
      <Pressable
        role="button"
        aria-expanded={false}
        aria-label={`${step.title}: show it`}
        onPress={() => setOpen(true)}
        testID={`step-${step.id}`}
        style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: TOUCH }}
      >
        <View style={{ flex: 1 }}>
          <Words size="lead">{step.title}</Words>
        </View>
        <Icon name="next" size={22} color={palette.steel} />
      </Pressable>
    );
  return (
    <View style={{ gap: 10 }} testID={`step-${step.id}`}>
      <View style={{ gap: 6 }}>
        {named ? null : (
          <Words size="turn" bold testID="doing">
            {card.bound && !told ? `${step.title}.` : doing}
          </Words>
        )}
        {step.why && (told || open) && !card.bound ? <Words tone="steel">{step.why}</Words> : null}
      </View>
      {step.picture && drawn && (told || open || card.bound || card.steps.length === 1) ? (
        <PlacedPicture name={step.picture} mark={step.mark} label={step.title} still={card.bound} />
      ) : null}
      {step.sum !== undefined && (told || open || FED.includes(step.sum)) ? (
        <StepSum step={step} machineId={machineId} jobId={jobId} setup={setup} ahead={hand.ahead} facts={facts} />
      ) : null}
      {isTugged(step) ? (
        <TugReadings step={step} hand={hand} drag={setup.choices.drag === 'still' ? 'still' : 'firm'} />
      ) : null}
      {step.sum === 'pieces' ? <PieceReadings step={step} hand={hand} facts={facts} /> : null}
      {step.sum === 'lap' ? <LapReadings step={step} hand={hand} /> : null}
      {(isTugged(step) || step.sum === 'pieces' || step.sum === 'lap' ? [] : (step.readings ?? []))
        .filter((reading) => hand.asked(step, reading) && (told || open || !reading.optional || reading.where))
        .map((reading) => (
          <Reading key={reading.id} step={step} reading={reading} hand={hand} />
        ))}
      {(step.gate?.checks ?? []).map((check, i) => (
        <TickRow
          key={i}
          words={check}
          ticked={hand.ticked(step.id, i)}
          missing={hand.refusal?.fields[`${step.id}.checks.${i}`] !== undefined}
          onPress={() => hand.toggle(step.id, i)}
          testID={`check-${step.id}-${i}`}
        />
      ))}
    </View>
  );
}

/** A picture; where its places are taken one after another, the one meant now is marked, and a tap goes on to the next. */
function PlacedPicture({
  name,
  mark,
  label,
  still,
}: {
  name: PictureId;
  mark: number | undefined;
  label: string;
  /** A tap is meant for the whole card. */
  still: boolean;
}) {
  const places = PICTURE_PLACES[name];
  const [at, setAt] = useState(1);
  if (!places || mark !== undefined || still) return <StepPicture name={name} mark={mark} label={label} />;
  return (
    <Pressable
      role="button"
      aria-label={`${label}: ${places[at - 1]!}, ${at} of ${places.length}. The next`}
      onPress={() => setAt((at % places.length) + 1)}
      testID="next-place"
    >
      <StepPicture name={name} mark={at} label={`${label}: ${places[at - 1]!}`} />
      <Words size="small" tone="steel" align="center">
        {`${places[at - 1]!}; tap for the next`}
      </Words>
    </Pressable>
  );
}

function Reading({ step, reading, hand }: { step: ProcedureStep; reading: ProcedureReading; hand: CardInHand }) {
  const { id, label, unit, least, most, options, optional } = reading;
  const error = hand.refusal?.fields[`${step.id}.readings.${id}`];
  const testID = `reading-${step.id}-${id}`;
  const value = hand.text(step, reading);
  if (options)
    return (
      <Choice
        label={label}
        narrow={options.length > 4}
        options={options.map((option) => ({ value: String(option.value), label: option.label }))}
        value={value === '' ? null : value}
        onChange={(next) => hand.read(step.id, id, next)}
        {...(error ? { error } : {})}
        testID={testID}
      />
    );
  const limits = limitWords({ unit, least, most }).replace(/^, /, '');
  const hints = [
    hand.fromRecords(step, reading) ? 'As it is written down. Type over it if it is another.' : '',
    limits === '' ? '' : `To go on: ${limits}`,
    optional && value === '' ? 'May be left out.' : '',
  ].filter(Boolean);
  return (
    <Field
      label={label}
      {...(unit ? { unit } : {})}
      value={value}
      onChange={(text) => hand.read(step.id, id, text)}
      keyboard={reading.min < 0 ? 'signed' : 'decimal'}
      {...(error ? { error } : {})}
      {...(hints.length > 0 ? { hint: hints.join(' ') } : {})}
      testID={testID}
    />
  );
}
