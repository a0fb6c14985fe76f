import { CAUTIONS } from '@even-bed/core/care/cautions';
import {
  DONE,
  PICTURE_PLACES,
  PICTURES,
  STOPPED,
  type PictureId,
  type StepEffect,
} from '@even-bed/core/care/procedure';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { StepPicture } from '../ui/StepPicture';
import { Words } from '../ui/Words';
import type { TypedProcedure } from './ProcedureScreen';
import { prose } from '../ui/prose';

interface Props {
  form: TypedProcedure;
  index: number;
  edits: boolean;
  faults: readonly string[];
  set: (path: string, value: unknown) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}

const NONE = { value: '', label: 'None' };
const UNITS = ['mm', '°C', 'turns', 'wipes', '%', 'h', ''].map((unit) => ({ value: unit, label: unit || 'no unit' }));

/** One step of a procedure, every part of it. */
export function StepForm({ form, index, edits, faults, set, onMove, onRemove }: Props) {
  const step = form.steps[index]!;
  const places = step.picture ? PICTURE_PLACES[step.picture as PictureId] : undefined;
  const path = (name: string) => `steps.${index}.${name}`;
  const targets = [
    ...form.steps.filter(({ id }) => id !== step.id).map(({ id, title }) => ({ value: id, label: title })),
    { value: DONE, label: 'The end: done' },
    { value: STOPPED, label: 'The end: stopped' },
  ];
  const nameOf = (to: string) => targets.find(({ value }) => value === to)?.label ?? to;
  const text = (name: string, label: string, value: string | undefined, lines?: number) => (
    <Field
      label={label}
      value={value ?? ''}
      onChange={(typed) => set(path(name), typed)}
      {...(lines ? { lines } : {})}
      testID={`step-field-${name}`}
    />
  );
  const list = <T,>(
    name: string,
    items: readonly T[] | undefined,
    empty: unknown,
    one: string,
    render: (item: T, at: string, i: number) => React.ReactNode,
  ) => (
    <>
      {(items ?? []).map((item, i) => (
        <View key={i} style={{ gap: 8 }}>
          {render(item, `${path(name)}.${i}`, i)}
          <View style={{ alignSelf: 'flex-end' }}>
            <ActionButton
              label={`Take this ${one} away`}
              kind="quiet"
              icon="remove"
              onPress={() =>
                // A gate without a check is none.
                name === 'gate.checks' && items!.length === 1
                  ? set(path('gate'), undefined)
                  : set(path(name), without(items!, i))
              }
              testID={`remove-${one}-${i}`}
            />
          </View>
        </View>
      ))}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label={`Another ${one}`}
          icon="add"
          kind="quiet"
          onPress={() => set(path(name), [...(items ?? []), empty])}
          testID={`add-${one}`}
        />
      </View>
    </>
  );
  if (!edits)
    return (
      <View style={{ gap: 12 }} testID="step-shown">
        <Words size="turn" bold>
          {step.doing}
        </Words>
        {step.why ? <Words tone="steel">{step.why}</Words> : null}
        {step.picture ? (
          <StepPicture name={step.picture} mark={step.mark ? Number(step.mark) : undefined} label={step.title} />
        ) : null}
        {(step.cautions ?? []).map((id) => (
          <Words key={id} size="small">{`${CAUTIONS[id].title}: ${prose(CAUTIONS[id].text)}`}</Words>
        ))}
        {(step.readings ?? []).map(({ id, label, unit, least, most }) => (
          <Words
            key={id}
          >{`Reads: ${label}, ${unit}${least ? `, at least ${least}` : ''}${most ? `, at most ${most}` : ''}`}</Words>
        ))}
        {(step.gate?.checks ?? []).map((check) => (
          <Words key={check}>{`Gate: ${check}`}</Words>
        ))}
        {(step.ask?.answers ?? []).map(({ id, label, to }) => (
          <Words key={id}>{`${step.ask!.question} ${label}: ${nameOf(to)}`}</Words>
        ))}
        {step.cant.map(({ label, to }) => (
          <Words key={label} size="small" tone="steel">{`Can’t, ${label}: ${nameOf(to)}`}</Words>
        ))}
        {step.ask ? null : <Words>{`Then: ${nameOf(step.next)}`}</Words>}
      </View>
    );
  return (
    <View style={{ gap: 16 }} testID="step-form">
      {faults.map((fault) => (
        <Words key={fault} tone="stop" bold live>
          {fault}
        </Words>
      ))}
      {text('title', 'Title of the step', step.title)}
      {text('doing', 'What the hands do', step.doing, 3)}
      {text('why', 'Why', step.why, 2)}
      <Section title="CAUTIONS">
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {(Object.keys(CAUTIONS) as (keyof typeof CAUTIONS)[]).map((id) => {
            const on = (step.cautions ?? []).includes(id);
            return (
              <ActionButton
                key={id}
                label={`${on ? '✓ ' : ''}${CAUTIONS[id].title}`}
                kind={on ? 'plain' : 'quiet'}
                onPress={() =>
                  set(
                    path('cautions'),
                    on ? step.cautions!.filter((known) => known !== id) : [...(step.cautions ?? []), id],
                  )
                }
                testID={`caution-${id}`}
              />
            );
          })}
        </View>
      </Section>
      <Pick
        label="Picture"
        options={[NONE, ...PICTURES.map((name) => ({ value: name, label: name.replace('-', ' ') }))]}
        value={step.picture ?? ''}
        onChange={(name) => {
          set(path('picture'), name || undefined);
          set(path('mark'), undefined);
        }}
      />
      {places ? (
        <Pick
          label="The place that is meant"
          options={[
            { value: '', label: 'All of them' },
            ...places.map((place, i) => ({ value: String(i + 1), label: place })),
          ]}
          value={step.mark ?? ''}
          onChange={(place) => set(path('mark'), place || undefined)}
          testID="step-mark"
        />
      ) : null}
      <Choice
        label="Can it be undone"
        options={[
          { value: 'yes', label: 'It can' },
          { value: 'no', label: 'One chance: a gate right before it' },
        ]}
        value={step.onceOnly ? 'no' : 'yes'}
        onChange={(can) => set(path('onceOnly'), can === 'no' ? true : undefined)}
        testID="once-only"
      />
      <Section title="GATE: TICKED BEFORE IT GOES ON">
        {list('gate.checks', step.gate?.checks, '', 'check', (check, at) => (
          <Field label="Check" value={check} onChange={(typed) => set(at, typed)} />
        ))}
      </Section>
      <Section title="READINGS">
        {list(
          'readings',
          step.readings,
          { id: `r${(step.readings?.length ?? 0) + 1}`, label: '', unit: 'mm', min: '0', max: '100' },
          'reading',
          (reading, at) => (
            <>
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                <Field label="What is read" value={reading.label} onChange={(typed) => set(`${at}.label`, typed)} />
                <Pick label="Unit" options={UNITS} value={reading.unit} onChange={(unit) => set(`${at}.unit`, unit)} />
              </View>
              <View style={{ flexDirection: 'row', gap: 8 }}>
                {(
                  [
                    ['min', 'Least possible'],
                    ['max', 'Most possible'],
                    ['least', 'Good from'],
                    ['most', 'Good to'],
                  ] as const
                ).map(([key, label]) => (
                  <Field
                    key={key}
                    label={label}
                    value={reading[key] ?? ''}
                    onChange={(typed) => set(`${at}.${key}`, typed)}
                    testID={`${reading.id}-${key}`}
                  />
                ))}
              </View>
            </>
          ),
        )}
      </Section>
      {step.timer ? (
        <Section title="TIMER">
          <Field label="Name" value={step.timer.name} onChange={(typed) => set(path('timer.name'), typed)} />
          {step.timer.least?.hoursOf ? (
            <Words tone="steel">As long as the school says.</Words>
          ) : (
            <Field
              label="At least"
              unit="s"
              value={step.timer.least?.seconds ?? ''}
              onChange={(typed) => set(path('timer.least.seconds'), typed)}
            />
          )}
          <Field
            label="At most"
            unit="s"
            value={step.timer.most?.seconds ?? ''}
            onChange={(typed) => set(path('timer.most.seconds'), typed)}
          />
          <Pick
            label="Too late leads to"
            options={[NONE, ...targets]}
            value={step.timer.late ?? ''}
            onChange={(to) => set(path('timer.late'), to || undefined)}
          />
          <ActionButton label="No timer" kind="quiet" onPress={() => set(path('timer'), undefined)} />
        </Section>
      ) : (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="A timer"
            icon="hold"
            kind="quiet"
            onPress={() => set(path('timer'), { name: 'Wait', least: { seconds: '600' } })}
            testID="add-timer"
          />
        </View>
      )}
      <Section title="WHERE IT LEADS">
        {step.ask ? (
          <>
            <Field label="Question" value={step.ask.question} onChange={(typed) => set(path('ask.question'), typed)} />
            {list(
              'ask.answers',
              step.ask.answers,
              { id: `a${step.ask.answers.length + 1}`, label: '', to: DONE },
              'answer',
              (answer, at) => (
                <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                  <Field label="Answer" value={answer.label} onChange={(typed) => set(`${at}.label`, typed)} />
                  <Pick label="leads to" options={targets} value={answer.to} onChange={(to) => set(`${at}.to`, to)} />
                </View>
              ),
            )}
          </>
        ) : null}
        <Pick
          label={step.ask ? 'When passed over' : 'Then'}
          options={targets}
          value={step.next}
          onChange={(to) => set(path('next'), to)}
          testID="step-next"
        />
      </Section>
      <Section title="WHEN IT CAN’T BE DONE">
        {list('cant', step.cant, { label: '', to: STOPPED }, 'way', (way, at) => (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Field label="What is in the way" value={way.label} onChange={(typed) => set(`${at}.label`, typed)} />
            <Pick label="leads to" options={targets} value={way.to} onChange={(to) => set(`${at}.to`, to)} />
          </View>
        ))}
      </Section>
      {(step.effects ?? []).length > 0 ? (
        <Section title="WHAT IT WRITES DOWN">
          {step.effects!.map((effect, i) => (
            <View key={i} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <View style={{ flex: 1 }}>
                <Words size="small">{effectWords(effect)}</Words>
              </View>
              <ActionButton
                label="Not any more"
                kind="quiet"
                onPress={() => set(path('effects'), without(step.effects!, i))}
              />
            </View>
          ))}
        </Section>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton label="Up" kind="quiet" disabled={index === 0} onPress={() => onMove(-1)} testID="step-up" />
        <ActionButton label="Down" kind="quiet" disabled={index === form.steps.length - 1} onPress={() => onMove(1)} />
        <ActionButton label="Take the step away" kind="quiet" icon="remove" onPress={onRemove} testID="remove-step" />
      </View>
    </View>
  );
}

const without = <T,>(items: readonly T[], index: number) => items.filter((_, i) => i !== index);

/** What each kind of effect writes down; a kind without words does not compile. */
const EFFECTS: Record<StepEffect['kind'], string> = {
  'take-off': 'taken off the machine',
  mount: 'put on the machine',
  hold: 'on hold',
  retire: 'retired',
  release: 'its hold ends',
  work: 'work written down',
  inspect: 'what was seen',
  thickness: 'its thickness, as measured',
  'lay-layers': 'the plain layers of the stack are there',
  'lift-layers': 'the plain layers under it went with it',
  level: 'a level by hand',
  key: 'the key of the platform’s screws',
  offset: 'the Z offset that works',
  zero: 'zero is set',
  'home-moved': 'home was moved',
  lapped: 'all rounds of lapping',
  surveyed: 'what the lines of light said',
  book: 'in the book',
  materials: 'materials used',
};

interface Shown {
  kind: StepEffect['kind'];
  part?: string;
  text?: string;
  used?: readonly string[];
}
const effectWords = ({ kind, part, text, used }: Shown) =>
  [EFFECTS[kind], part, text, used?.join(', ')].filter(Boolean).join(': ');
