import {
  feelFindings,
  FEELS,
  gapAt,
  MIDDLE,
  NEAR,
  nextMove,
  outAt,
  replayFeel,
  startFeel,
  sureOf,
  WITHIN,
  type Feel,
  type FeelEvent,
  type FeelState,
} from '@even-bed/core/level/feel';
import { gaugeEffect, gaugeOf, GAUGE_KINDS, type GaugeAsk, type GaugeKind } from '@even-bed/core/level/gauge';
import { readLength } from '@even-bed/core/fleet/readLength';
import { roundTurn } from '@even-bed/core/level/roundTurn';
import { turnsAsSeen } from '@even-bed/core/level/seenFrom';
import {
  FEEL_HINTS,
  feelFindingWords,
  feelStopWords,
  feelTurnWords,
  gaugeWords,
  LIFT_FIRST,
} from '@even-bed/words/feel';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { BeginAgain } from '../ui/BeginAgain';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { FeelPlan, type FeltPlace } from '../ui/FeelPlan';
import { Field } from '../ui/Field';
import { length, size } from '../ui/formatHeight';
import { KeyRow } from '../ui/KeyRow';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Section } from '../ui/Section';
import { canSpeak } from '../ui/speak';
import { TickRow } from '../ui/TickRow';
import { useSteadyTap } from '../ui/useSteadyTap';
import { Words } from '../ui/Words';
import { GaugePick } from './GaugePick';
import type { CheckDraft, FeltEntry } from './levelSlice';
import { turnUnit, typedTurn } from './typedTurn';
import { useSaid } from './useSaid';
import { prose } from '../ui/prose';

/** What must be so before a gap is felt at all. */
const GATES = [
  'Bed warm, about 60 °C, and the nozzle hot, at least 190 °C, and wiped: hard drips hold the paper off',
  'Homed; motors off, or moved by their own jog, hands clear of belts',
] as const;

const KINDS: Record<GaugeKind, string> = {
  paper: 'paper',
  card: 'card',
  leaflet: 'leaflet',
  film: 'film',
  shim: 'shim',
};

export const NOT_FELT: FeltEntry = {
  ready: [],
  begun: false,
  gauge: { kind: 'paper', caliper: null, layers: 1 },
  history: [],
};

/** What a bed that is felt rests on: where its adjusters stand, looking down, and how they are called. */
export interface FeltBed {
  adjusters: CheckDraft['setup']['adjusters'];
  seenFrom: CheckDraft['setup']['seenFrom'];
  names: Readonly<Record<string, string>>;
}

/** The bed as it is known from what was felt and turned so far; null before the gauge is named. */
export function feltState(
  { adjusters }: Pick<FeltBed, 'adjusters'>,
  { begun, gauge, history }: FeltEntry,
): FeelState | null {
  return begun ? replayFeel(startFeel({ adjusters, gauge: gaugeOf(gauge) }), history) : null;
}

interface Props {
  bed: FeltBed;
  felt: FeltEntry;
  onChange: (next: FeltEntry) => void;
  /** Pitch of the screw that moves home, mm; not given: there is none, or it isn't known. */
  stopPitch?: number | null;
}

/** A level by paper and feel: about five seconds a point, and what to turn by how much. */
export function FeelHeights({ bed, felt, onChange, stopPitch = null }: Props) {
  const change = (next: Partial<FeltEntry>) => onChange({ ...felt, ...next });
  const state = useMemo(() => feltState(bed, felt), [bed, felt]);
  if (!state) return <Before felt={felt} onChange={change} />;
  return <Feeling bed={bed} felt={felt} state={state} onChange={change} stopPitch={stopPitch} />;
}

/** The gates, and the gauge: it is part of the result. */
function Before({ felt, onChange }: { felt: FeltEntry; onChange: (next: Partial<FeltEntry>) => void }) {
  const [asked, setAsked] = useState(false);
  const [reading, setReading] = useState(felt.gauge.caliper ? String(felt.gauge.caliper.reading) : '');
  const { kind, layers } = felt.gauge;
  const caliper = reading.trim() === '' ? null : { pieces: 10, reading: readLength(reading) ?? NaN };
  const fault =
    caliper !== null && !(caliper.reading > 0 && caliper.reading < 100)
      ? 'Ten of them between the calipers, in mm, such as 1.04.'
      : undefined;
  const ready = GATES.every((_, i) => felt.ready.includes(i));
  const gauge: GaugeAsk = { kind, layers, caliper: fault ? null : caliper };
  const { thickness, uncertainty } = gaugeOf(gauge);
  const take = (taken: GaugeAsk) => {
    onChange({ gauge: taken });
    // The field holds ten of them, whatever number was between the calipers.
    setReading(taken.caliper ? String(Number(((10 * taken.caliper.reading) / taken.caliper.pieces).toFixed(4))) : '');
  };
  return (
    <View style={{ gap: 12 }}>
      <Notice kind="due" title="Hot, and moving parts">
        Nozzle and bed burn; belts and axes pinch. Hands off while it homes.
      </Notice>
      {GATES.map(prose).map((words, i) => (
        <TickRow
          key={words}
          words={words}
          ticked={felt.ready.includes(i)}
          missing={asked}
          onPress={() =>
            onChange({ ready: felt.ready.includes(i) ? felt.ready.filter((n) => n !== i) : [...felt.ready, i] })
          }
          testID={`feel-gate-${i}`}
        />
      ))}
      <GaugePick gauge={gauge} whole={!fault} onPick={take} />
      <Choice
        label="Felt with"
        narrow
        options={GAUGE_KINDS.map((value) => ({ value, label: KINDS[value] }))}
        value={kind}
        onChange={(value) => onChange({ gauge: { ...felt.gauge, kind: value } })}
        testID="gauge-kind"
      />
      <Choice
        label="Layers: fold it for a textured or permanent top"
        options={['1', '2', '4'].map((value) => ({
          value,
          label: value === '1' ? 'single' : value === '2' ? 'folded' : 'folded twice',
        }))}
        value={String(layers)}
        onChange={(value) => onChange({ gauge: { ...felt.gauge, layers: Number(value) } })}
        testID="gauge-layers"
      />
      <Field
        label="Ten of them between the calipers"
        unit="mm"
        value={reading}
        onChange={setReading}
        keyboard="decimal"
        hint="May be left out: then it goes by its name, and is known to a fifth."
        {...(fault ? { error: fault } : {})}
        testID="gauge-caliper"
      />
      <Words size="small" tone="steel" testID="gauge-thickness">
        {`${size(thickness, 3)}, give or take ${size(uncertainty, 3)}`}
      </Words>
      <ActionButton
        label="Feel it"
        kind="main"
        onPress={() => {
          setAsked(true);
          if (ready && !fault) onChange({ begun: true, gauge });
        }}
        testID="begin-feel"
      />
      {asked && !ready ? (
        <Words tone="stop" live testID="feel-refusal">
          Not yet: tick what is so.
        </Words>
      ) : null}
    </View>
  );
}

function Feeling({
  bed,
  felt,
  state,
  onChange,
  stopPitch,
}: {
  bed: FeltBed;
  felt: FeltEntry;
  state: FeelState;
  onChange: (next: Partial<FeltEntry>) => void;
  stopPitch: number | null;
}) {
  const steady = useSteadyTap();
  const { adjusters, seenFrom, names } = bed;
  const [own, setOwn] = useState(false);
  const nameOf = (id: string) => {
    const name = id === MIDDLE ? 'The middle' : (names[id] ?? id);
    return name[0]!.toUpperCase() + name.slice(1);
  };
  const isMotor = (id: string) => adjusters.find((one) => one.id === id)?.motor === true;
  const advised = nextMove(state);
  const middleFelt = state.history.some((event) => event.do === 'feel' && event.at === MIDDLE);
  // The middle last: what it says is shape, and no screw cures it.
  const level = advised.do === 'done' || (advised.do === 'stop' && advised.why === 'as-near-as-felt');
  const move = level && !middleFelt ? ({ do: 'feel', at: MIDDLE, again: false } as const) : advised;
  const stop =
    move.do === 'stop'
      ? feelStopWords(move, 'adjuster' in move && move.adjuster !== null ? nameOf(move.adjuster) : '', currentManner())
      : null;
  // What is sure already is said before what was asked for is.
  const near = move.do !== 'done' && move.do !== 'stop' && sureOf(state, NEAR * WITHIN) >= 0.95;
  const at = move.do === 'feel' ? move.at : move.do === 'turn' ? move.adjuster : null;
  const add = (...events: FeelEvent[]) => onChange({ history: [...felt.history, ...events] });
  const places = state.places.map(({ id, x, y }): FeltPlace => {
    const out = outAt(state, id);
    const touched = state.history.some((event) => event.do === 'feel' && event.at === id);
    return {
      id,
      x,
      y,
      middle: id === MIDDLE,
      stands: !touched && out > 0.1 ? 'open' : out < 0.1 ? 'ok' : out > 0.9 ? 'out' : 'open',
      ...(move.do === 'turn' && move.adjuster === id
        ? isMotor(id)
          ? { turns: move.turns, motor: true }
          : { turns: turnsAsSeen(move.turns, seenFrom) }
        : {}),
    };
  });
  const title =
    move.do === 'feel'
      ? `${nameOf(move.at)}: how does it feel${move.again ? ' now? Feel it again' : '?'}`
      : move.do === 'turn'
        ? `${nameOf(move.adjuster)}: ${feelTurnWords({ ...move, motor: isMotor(move.adjuster) }, seenFrom, currentManner())}`
        : move.do === 'stop'
          ? stop!.title
          : `Even: ${Math.round(100 * move.sure)} % sure`;
  const say = useSaid(move.do === 'turn' && move.mayTouch ? `${LIFT_FIRST} ${title}` : title);
  const gap = at === null ? null : gapAt(state, at);
  const known = gap !== null && state.history.length > 0 && gap.sd < 0.3;
  return (
    <View style={{ gap: 12 }} testID="feeling">
      <Words size="turn" bold live testID="feel-title">
        {title}
      </Words>
      <FeelPlan places={places} at={at} feels={move.do === 'feel'} label={title} testID="feel-plan" />
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12, flexWrap: 'wrap' }}>
        <Words size="small" tone="steel" testID="feel-gap">
          {known
            ? `Gap about ${length(Math.max(0, state.gauge.thickness + gap.mean - 1.28 * gap.sd))} to ${length(Math.max(0, state.gauge.thickness + gap.mean + 1.28 * gap.sd))}`
            : `touch ${state.history.length + 1}`}
        </Words>
        <Words size="small" tone="steel">
          {`${KINDS[felt.gauge.kind]} ${size(state.gauge.thickness, 3)}`}
        </Words>
      </View>
      {stop ? (
        level ? (
          <Words testID="feel-stop">{stop.words}</Words>
        ) : (
          <Notice kind="stop" title="What to do" testID="feel-stop">
            {stop.words}
          </Notice>
        )
      ) : null}
      {near ? (
        <Words size="small" testID="feel-near">
          {`Even within ${size(NEAR * WITHIN, 3)} already, 19 times in 20. Go on for ${size(WITHIN, 3)}, or use it as it is.`}
        </Words>
      ) : null}
      {state.contradiction && move.do !== 'stop' ? (
        <Notice kind="due" title="That does not fit what was felt before" testID="contradiction">
          {`${nameOf(state.contradiction.at)} is ${state.contradiction.feel} and should be about ${state.contradiction.expected}, with no turn between. Feel it again.`}
        </Notice>
      ) : null}
      {move.do === 'feel' ? (
        <>
          <KeyRow
            keys={FEELS.map((feel) => ({ id: feel, label: feel, hint: FEEL_HINTS[feel] }))}
            onPress={(feel) => steady(() => add({ do: 'feel', at: move.at, feel: feel as Feel }))()}
            testID="feel"
          />
          <Words size="small" tone="steel">
            If it jams: press the bed down by hand, slide it in, feel again. A screw that is reached only with the bed
            moved away: turn, move back, feel.
          </Words>
        </>
      ) : null}
      {move.do === 'turn' && move.mayTouch ? (
        <Notice kind="stop" title="It may come up against the nozzle" testID="lift-first">
          {LIFT_FIRST}
        </Notice>
      ) : null}
      {move.do === 'turn' && allAlike(state.history) ? (
        <Words size="small" tone="steel" testID="feel-alike">
          All places feel the same so far. One small turn checks that the feel really changes.
        </Words>
      ) : null}
      {move.do === 'turn' ? (
        <ActionButton
          label="Turned"
          kind="main"
          onPress={() => steady(() => add({ do: 'turn', adjuster: move.adjuster, turns: move.turns }))()}
          testID="feel-turned"
        />
      ) : null}
      {move.do === 'done' || (move.do === 'stop' && level) ? (
        <Words testID="gauge-effect">
          {gaugeWords(
            {
              thickness: state.gauge.thickness,
              ...gaugeEffect({ thickness: state.gauge.thickness, pitch: stopPitch }),
            },
            currentManner(),
          )}
        </Words>
      ) : null}
      <Findings state={state} nameOf={nameOf} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        <ActionButton
          label="I turned till it dragged"
          kind="quiet"
          onPress={() => setOwn(true)}
          testID="till-dragged"
        />
        <ActionButton
          label="Undo"
          kind="quiet"
          icon="back"
          disabled={felt.history.length === 0}
          onPress={() => onChange({ history: felt.history.slice(0, -1) })}
          testID="feel-undo"
        />
        {canSpeak() ? <ActionButton label="Say it" kind="quiet" onPress={say} testID="feel-say" /> : null}
        <BeginAgain
          what={`Every touch and every turn (${felt.history.length})`}
          onBegin={() => onChange({ ...NOT_FELT, gauge: felt.gauge })}
          testID="feel-again"
        />
      </View>
      {own ? (
        <OwnTurn
          adjusters={adjusters.map(({ id }) => ({ value: id, label: nameOf(id) }))}
          first={at !== null && at !== MIDDLE ? at : adjusters[0]!.id}
          seenFrom={seenFrom}
          onClose={() => setOwn(false)}
          onDone={(adjuster, turns) => {
            add({ do: 'turn', adjuster, turns }, { do: 'feel', at: adjuster, feel: 'drags' });
            setOwn(false);
          }}
        />
      ) : null}
    </View>
  );
}

/** Whether every touch so far had the same key, with nothing turned between. */
const allAlike = ([first, ...rest]: readonly FeelEvent[]): boolean =>
  first?.do === 'feel' && rest.every((event) => event.do === 'feel' && event.feel === first.feel);

function Findings({ state, nameOf }: { state: FeelState; nameOf: (id: string) => string }) {
  const findings = feelFindings(state);
  if (findings.length === 0) return null;
  return (
    <Section title="WHAT STANDS OUT" testID="feel-findings">
      {findings.map((finding) => (
        <Words key={`${finding.code} ${'adjuster' in finding ? finding.adjuster : ''}`}>
          {feelFindingWords(finding, 'adjuster' in finding ? nameOf(finding.adjuster) : '')}
        </Words>
      ))}
    </Section>
  );
}

/** Turned by feel until it dragged: by how much is a reading too. */
function OwnTurn({
  adjusters,
  first,
  seenFrom,
  onClose,
  onDone,
}: {
  adjusters: readonly { value: string; label: string }[];
  first: string;
  seenFrom: CheckDraft['setup']['seenFrom'];
  onClose: () => void;
  onDone: (adjuster: string, turns: number) => void;
}) {
  const [adjuster, setAdjuster] = useState(first);
  const [way, setWay] = useState<'clockwise' | 'anticlockwise'>('clockwise');
  const [eighths, setEighths] = useState('');
  const unit = turnUnit();
  const turns = typedTurn(eighths);
  const fault =
    eighths.trim() !== '' && turns === null ? `${unit.name} of a turn, such as ${unit.example}.` : undefined;
  return (
    <DialogFrame open title="Turned till it dragged" onClose={onClose} testID="own-turn">
      <Choice label="Which one" options={adjusters} value={adjuster} onChange={setAdjuster} testID="own-adjuster" />
      <Choice
        label={seenFrom === 'above' ? 'Looking down' : 'Looking up from below'}
        options={[
          { value: 'clockwise', label: 'clockwise' },
          { value: 'anticlockwise', label: 'anticlockwise' },
        ]}
        value={way}
        onChange={setWay}
        testID="own-way"
      />
      <Field
        label={`By how many ${unit.name}`}
        value={eighths}
        onChange={setEighths}
        keyboard="decimal"
        {...(fault ? { error: fault } : {})}
        testID="own-eighths"
      />
      <ActionButton
        label="It drags now"
        kind="main"
        disabled={turns === null}
        onPress={() =>
          turns !== null && onDone(adjuster, turnsAsSeen(roundTurn((way === 'clockwise' ? 1 : -1) * turns), seenFrom))
        }
        testID="own-done"
      />
    </DialogFrame>
  );
}

/** Whether a level by feel is done, so that it may be taken as a reading. */
export const isFelt = (state: FeelState | null): boolean =>
  state !== null && sureOf(state, NEAR * WITHIN) >= 0.5 && state.history.length > 0;
