import { readLength } from '@even-bed/core/fleet/readLength';
import { MOTOR_THREAD } from '@even-bed/core/level/plainAdjuster';
import { THREADS } from '@even-bed/core/level/threads';
import { Controller, useFieldArray, useFormState, useWatch, type Control } from 'react-hook-form';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { adjusterPattern, type AdjusterForm, type AdjusterPattern, type MachineForm } from './machineForm';
import { prose } from '../ui/prose';

const PATTERNS: readonly { value: AdjusterPattern; label: string }[] = [
  { value: 'four', label: 'Four corners' },
  { value: 'three-rear', label: 'Two front, one rear' },
  { value: 'three-front', label: 'One front, two rear' },
  { value: 'none', label: 'None' },
];
const MOST = 12;
/** Threads with what a turn of them moves, in the shop's units. */
const threadOptions = () => [
  ...THREADS.map(({ name, pitch }) => ({
    value: name,
    label: prose(`${name}, ${Number(pitch.toFixed(3))} mm a turn`),
  })),
  { value: 'other', label: 'Another thread' },
  { value: MOTOR_THREAD, label: 'A motor of its own' },
];

/** The adjusters: a usual pattern to start from, then each with its place, thread and sense. */
export function AdjusterEditor({ control }: { control: Control<MachineForm> }) {
  const palette = usePalette();
  const { fields, append, remove, replace } = useFieldArray({ control, name: 'adjusters', keyName: 'key' });
  const [printWidth, printDepth] = useWatch({ control, name: ['printWidth', 'printDepth'] });
  const start = (pattern: AdjusterPattern) =>
    replace(adjusterPattern(pattern, readLength(printWidth) ?? 200, readLength(printDepth) ?? 200));
  const add = () => {
    const used = new Set(fields.map(({ id }) => id));
    const number = Array.from({ length: MOST + 1 }, (_, i) => i + 1).find((n) => !used.has(`knob-${n}`))!;
    append({
      id: `knob-${number}`,
      name: `knob ${number}`,
      x: '',
      y: '',
      thread: 'M4',
      pitch: '0.7',
      clockwise: 'lowers',
    });
  };
  return (
    <View style={{ gap: 12 }}>
      {fields.length === 0 ? (
        <Choice label="Start from" options={PATTERNS} value={null} onChange={start} testID="adjuster-pattern" />
      ) : null}
      {fields.map((field, i) => (
        <View
          key={field.key}
          style={{ gap: 8, paddingBottom: 12, borderBottomWidth: 1, borderBottomColor: palette.hairline }}
        >
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Part control={control} index={i} part="name" label="Name" />
            <Part control={control} index={i} part="x" label="X" unit="mm" />
            <Part control={control} index={i} part="y" label="Y" unit="mm" />
          </View>
          <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start', flexWrap: 'wrap' }}>
            <Controller
              control={control}
              name={`adjusters.${i}.thread`}
              render={({ field: thread }) => (
                <Pick
                  label="Thread"
                  options={threadOptions()}
                  value={thread.value}
                  onChange={thread.onChange}
                  testID={`adjuster-${i}-thread`}
                />
              )}
            />
            <PitchField control={control} index={i} />
          </View>
          <SenseField control={control} index={i} />
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label={`Take out ${field.name || `adjuster ${i + 1}`}`}
              kind="quiet"
              icon="remove"
              onPress={() => remove(i)}
            />
          </View>
        </View>
      ))}
      {fields.length > 0 && fields.length < MOST ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Add an adjuster" kind="quiet" icon="add" onPress={add} />
        </View>
      ) : null}
      <Words size="small" tone="steel">
        X to the right, Y to the rear, from the front-left corner of the print area. Turn one knob once and look: that
        settles its sense for good.
      </Words>
    </View>
  );
}

function Part({
  control,
  index,
  part,
  label,
  unit,
}: {
  control: Control<MachineForm>;
  index: number;
  part: keyof Pick<AdjusterForm, 'name' | 'x' | 'y' | 'pitch'>;
  label: string;
  unit?: string;
}) {
  const name = `adjusters.${index}.${part}` as const;
  const { errors } = useFormState({ control, name });
  const error = errors.adjusters?.[index]?.[part]?.message;
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Field
          label={label}
          unit={unit}
          value={field.value}
          onChange={field.onChange}
          onBlur={field.onBlur}
          error={error}
          testID={`adjuster-${index}-${part}`}
        />
      )}
    />
  );
}

/** Only a thread that the table doesn't hold needs its pitch typed. */
function PitchField({ control, index }: { control: Control<MachineForm>; index: number }) {
  const thread = useWatch({ control, name: `adjusters.${index}.thread` });
  return thread === 'other' ? <Part control={control} index={index} part="pitch" label="Pitch" unit="mm" /> : null;
}

/** What clockwise does; a motor has no such thing: it is told how far up. */
function SenseField({ control, index }: { control: Control<MachineForm>; index: number }) {
  const thread = useWatch({ control, name: `adjusters.${index}.thread` });
  if (thread === MOTOR_THREAD)
    return (
      <Words size="small" tone="steel">
        It is told by how much to go up or down; nobody turns it.
      </Words>
    );
  return (
    <Controller
      control={control}
      name={`adjusters.${index}.clockwise`}
      render={({ field: sense }) => (
        <Choice
          label="Clockwise"
          options={[
            { value: 'lowers', label: 'Lowers the bed' },
            { value: 'raises', label: 'Raises the bed' },
          ]}
          value={sense.value}
          onChange={sense.onChange}
          testID={`adjuster-${index}-clockwise`}
        />
      )}
    />
  );
}
