import type { Finding, MachineFacts } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import { AIM_WITH_COMPENSATION, AIM_WITHOUT_COMPENSATION } from '@even-bed/core/level/firstLayerAim';
import { useEffect, useRef } from 'react';
import { Controller, useForm, useWatch, type Control, type Path, type Resolver } from 'react-hook-form';
import { View } from 'react-native';
import type { ReadableError } from '../api/errorOf';
import { deviceStore } from '../offline/deviceStore';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Choice, type Option } from '../ui/Choice';
import { Field } from '../ui/Field';
import { length } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { Page, type Crumb } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { COMMON_PLATES, PLATE_FIELDS, withPlate } from './commonPlates';
import { Section } from '../ui/Section';
import { useIsWide } from '../ui/theme';
import { Words } from '../ui/Words';
import { AdjusterEditor } from './AdjusterEditor';
import { centredMargin } from './centredMargin';
import { FINDING_NAMES } from './findingNames';
import { judgeMachine, NEW_AREA } from './judgeMachine';
import { MACHINE_FORMS, type MachineForm } from './machineForm';
import { prose } from '../ui/prose';
import { currentManner } from '../ui/manner';

interface Props {
  title: string;
  crumbs: Crumb[];
  initial: MachineForm;
  areas: readonly { id: string; name: string }[];
  /** Under this name the device keeps what was typed until it is saved. */
  draftName: string;
  busy: boolean;
  failure: ReadableError | null;
  onSubmit: (facts: MachineFacts, newArea: string | null) => Promise<boolean>;
}

/** Where a fault of the contract's fields shows in the form. */
const FORM_FIELD: Record<string, Path<MachineForm>> = {
  'mapExtent.x0': 'mapX0',
  'mapExtent.y0': 'mapY0',
  'mapExtent.x1': 'mapX1',
  'mapExtent.y1': 'mapY1',
  mapExtent: 'mapX0',
  'console.host': 'host',
  'console.port': 'port',
  'console.scanCommand': 'scanCommand',
  'console.bedTemperature': 'bedTemperature',
};
const fieldOf = (path: string) => (FORM_FIELD[path] ?? path) as Path<MachineForm>;

const resolver: Resolver<MachineForm> = async (form) => {
  const judged = await judgeMachine(form);
  if (judged.ok) return { values: form, errors: {} };
  const errors: Record<string, unknown> = {};
  for (const [path, message] of Object.entries(judged.faults)) {
    const field = fieldOf(path);
    const [head, index, leaf] = field.split('.');
    if (leaf === undefined) errors[head!] = { type: 'joi', message };
    else {
      const list = (errors[head!] ??= []) as Record<string, unknown>[];
      list[Number(index)] = { ...list[Number(index)], [leaf]: { type: 'joi', message } };
    }
  }
  return { values: {}, errors };
};

/** The facts of a machine, as a form that keeps what is typed on the device until it is saved. */
export default function MachineFormView({ title, crumbs, initial, areas, draftName, busy, failure, onSubmit }: Props) {
  const wide = useIsWide();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { control, getValues, handleSubmit, reset, setError, setValue, formState } = useForm<MachineForm>({
    defaultValues: initial,
    resolver,
    mode: 'onBlur',
  });
  const { isDirty } = formState;
  const typed = useWatch({ control });
  const saved = useRef(false);

  useEffect(() => {
    void deviceStore.get<MachineForm>(MACHINE_FORMS, draftName).then((kept) => {
      if (kept) reset({ ...initial, ...kept }, { keepDefaultValues: true });
    });
    // The kept form is read once, when the form opens.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    if (isDirty && !saved.current) void deviceStore.set(MACHINE_FORMS, draftName, typed);
  }, [typed, isDirty, draftName]);
  useEffect(() => {
    for (const [path, message] of Object.entries(failure?.fields ?? {}))
      setError(fieldOf(path), { type: 'server', message });
  }, [failure, setError]);

  const send = async (form: MachineForm) => {
    const judged = await judgeMachine(form);
    if (!judged.ok) return;
    saved.current = true;
    const done = await onSubmit(judged.facts, judged.newArea);
    if (done) await deviceStore.remove(MACHINE_FORMS, draftName);
    else saved.current = false;
  };
  const submit = () => void handleSubmit(send)();
  const text = (name: Path<MachineForm>, label: string, more: Partial<Parameters<typeof TextField>[0]> = {}) => (
    <TextField control={control} name={name} label={label} {...more} />
  );
  const choice = <T extends string>(name: Path<MachineForm>, label: string, options: readonly Option<T>[]) => (
    <ChoiceField control={control} name={name} label={label} options={options} />
  );
  const row = { flexDirection: 'row' as const, gap: 12, flexWrap: 'wrap' as const };
  const left = (
    <>
      <Section title="WHAT AND WHERE">
        {text('name', 'Name')}
        <AreaField control={control} areas={areas} />
        <View style={row}>
          {text('model', 'Model')}
          {text('shelf', 'Shelf (optional)')}
        </View>
        <View style={row}>
          {text('tag', 'Tag', { hint: 'Empty: the next free one, M-…' })}
          {text('hottest', 'Hottest bed it prints at', { unit: '°C', hint: 'Empty: not known' })}
        </View>
        {choice('family', 'Family', [
          { value: 'filament', label: 'Filament' },
          { value: 'resin', label: 'Resin' },
        ])}
        {typed.family === 'resin'
          ? text('platformKey', 'Key of the platform’s screws', { unit: 'mm', hint: 'Empty: not known' })
          : null}
      </Section>
      <Section title="PLATE, MEASURED WITH A RULER">
        <Words size="small" tone="steel">
          {`The real plate, not the advertised print area: ${prose('they differ by 5 to 30 mm')}. ${currentManner().units === 'in' ? 'Metric works too, with its unit: 235 mm.' : 'Inches work too: 9 1/4 in.'}`}
        </Words>
        <Pick
          label="Begin with a common one"
          value={null}
          placeholder="Print area …"
          options={COMMON_PLATES.map(({ label }) => ({ value: label, label }))}
          onChange={(label) => {
            const chosen = withPlate(
              getValues(),
              COMMON_PLATES.find((known) => known.label === label)!,
            );
            for (const name of PLATE_FIELDS)
              setValue(name, chosen[name], { shouldDirty: true, shouldValidate: name !== 'family' });
          }}
          testID="common-plate"
        />
        <View style={row}>
          {text('plateWidth', 'Plate, left to right', { unit: 'mm' })}
          {text('plateDepth', 'Plate, front to rear', { unit: 'mm' })}
        </View>
        <View style={row}>
          {text('printWidth', 'Print area, left to right', { unit: 'mm' })}
          {text('printDepth', 'Print area, front to rear', { unit: 'mm' })}
        </View>
        <View style={row}>
          {text('originX', 'Left margin (empty: centred)', { unit: 'mm' })}
          {text('originY', 'Front margin (empty: centred)', { unit: 'mm' })}
        </View>
      </Section>
      <Section title="ADJUSTERS">
        <FormPlan control={control} />
        <AdjusterEditor control={control} />
        {choice('seenFrom', 'Clockwise is meant', [
          { value: 'above', label: 'Looking down' },
          { value: 'below', label: 'Looking up from below' },
        ])}
      </Section>
    </>
  );
  const right = (
    <>
      <Section title="FIRST LAYER AND AIM">
        {choice('compensation', 'Compensation by a height map', [
          { value: 'on', label: 'On' },
          { value: 'off', label: 'Off' },
        ])}
        <View style={row}>
          {text('firstLayer', 'First layer', { unit: 'mm' })}
          <AimField control={control} />
        </View>
        <Controller
          control={control}
          name="finding"
          render={({ field }) => (
            <Pick
              label="What finds Z"
              value={field.value}
              onChange={field.onChange}
              options={(Object.keys(FINDING_NAMES) as Finding[]).map((value) => ({
                value,
                label: FINDING_NAMES[value],
              }))}
              testID="field-finding"
            />
          )}
        />
      </Section>
      <Section title="HEIGHTS IT GIVES">
        {choice('plus', '+ in its heights means', [
          { value: 'higher', label: 'Higher, nearer the nozzle' },
          { value: 'lower', label: 'Lower' },
        ])}
        <Words size="small" tone="steel">
          A bare height map does not say where it lies. If this machine prints one, say where its outermost readings
          are; leave it empty otherwise.
        </Words>
        <View style={row}>
          {text('mapX0', 'First x', { unit: 'mm' })}
          {text('mapX1', 'Last x', { unit: 'mm' })}
        </View>
        <View style={row}>
          {text('mapY0', 'First y', { unit: 'mm' })}
          {text('mapY1', 'Last y', { unit: 'mm' })}
        </View>
        {choice('mapFirstRow', 'The first row of its map lies', [
          { value: 'unknown', label: "Don't know" },
          { value: 'front', label: 'At the front' },
          { value: 'rear', label: 'At the rear' },
        ])}
        {isLead ? (
          <>
            {choice('hasConsole', 'Its console can be reached', [
              { value: 'no', label: 'No' },
              { value: 'yes', label: 'Yes, over the network' },
            ])}
            <ConsoleFields control={control} />
          </>
        ) : (
          <Words tone="steel" testID="console-by-lead">
            Where its console is, a lead says.
          </Words>
        )}
      </Section>
      <Section title="NOTE">{text('note', 'Note (optional)', { lines: 3 })}</Section>
    </>
  );
  return (
    <Page
      title={title}
      crumbs={crumbs}
      testID="machine-form"
      actions={
        <ActionButton label="Save the machine" kind="main" grow busy={busy} onPress={submit} testID="save-machine" />
      }
    >
      {failure ? (
        <Notice kind="stop" title="Not saved" testID="form-failure">
          {failure.message}
        </Notice>
      ) : null}
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 40 }}>
          <View style={{ flex: 1, gap: 24 }}>{left}</View>
          <View style={{ flex: 1, gap: 24 }}>{right}</View>
        </View>
      ) : (
        <View style={{ gap: 24 }}>
          {left}
          {right}
        </View>
      )}
    </Page>
  );
}

type FormControl = Control<MachineForm>;

function TextField({
  control,
  name,
  label,
  unit,
  lines,
  hint,
}: {
  control: FormControl;
  name: Path<MachineForm>;
  label: string;
  unit?: string;
  lines?: number;
  hint?: string;
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Field
          ref={field.ref}
          label={label}
          value={String(field.value)}
          onChange={field.onChange}
          onBlur={field.onBlur}
          error={fieldState.error?.message}
          hint={hint}
          unit={unit}
          lines={lines}
          keyboard={unit ? 'decimal' : 'text'}
          testID={`field-${name}`}
        />
      )}
    />
  );
}

function ChoiceField<T extends string>({
  control,
  name,
  label,
  options,
}: {
  control: FormControl;
  name: Path<MachineForm>;
  label: string;
  options: readonly Option<T>[];
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Choice
          label={label}
          options={options}
          value={field.value as T}
          onChange={field.onChange}
          error={fieldState.error?.message}
          testID={`field-${name}`}
        />
      )}
    />
  );
}

function AreaField({ control, areas }: { control: FormControl; areas: Props['areas'] }) {
  const areaId = useWatch({ control, name: 'areaId' });
  return (
    <>
      <Controller
        control={control}
        name="areaId"
        render={({ field, fieldState }) => (
          <Pick
            label="Area"
            value={field.value || null}
            onChange={field.onChange}
            options={[
              ...areas.map(({ id, name }) => ({ value: id, label: name })),
              { value: NEW_AREA, label: 'A new area' },
            ]}
            placeholder="Choose an area"
            error={fieldState.error?.message}
            testID="field-areaId"
          />
        )}
      />
      {areaId === NEW_AREA ? <TextField control={control} name="newArea" label="Name of the new area" /> : null}
    </>
  );
}

function AimField({ control }: { control: FormControl }) {
  const [firstLayer, compensation] = useWatch({ control, name: ['firstLayer', 'compensation'] });
  const height = readLength(firstLayer);
  const share = compensation === 'on' ? AIM_WITH_COMPENSATION : AIM_WITHOUT_COMPENSATION;
  const hint =
    height === null
      ? undefined
      : `Empty: ${length(height * share, 3)}, ${compensation === 'on' ? 'half' : 'a quarter'} of the first layer (common practice)`;
  return <TextField control={control} name="aim" label="Aim: largest range" unit="mm" hint={hint} />;
}

function ConsoleFields({ control }: { control: FormControl }) {
  const hasConsole = useWatch({ control, name: 'hasConsole' });
  if (hasConsole === 'no') return null;
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <TextField control={control} name="host" label="Address" />
        <TextField control={control} name="port" label="Port" />
      </View>
      <TextField control={control} name="scanCommand" label="Commands that print its heights, one a line" lines={2} />
      <TextField control={control} name="bedTemperature" label="Warm the bed first to (0: leave it)" unit="°C" />
    </>
  );
}

/** The plate as the form has it so far. */
function FormPlan({ control }: { control: FormControl }) {
  const form = useWatch({ control }) as MachineForm;
  const length = (value: string) => readLength(value) ?? NaN;
  const plate = {
    width: length(form.plateWidth),
    depth: length(form.plateDepth),
    originX: length(form.originX || centredMargin(form.plateWidth, form.printWidth)),
    originY: length(form.originY || centredMargin(form.plateDepth, form.printDepth)),
    printWidth: length(form.printWidth),
    printDepth: length(form.printDepth),
  };
  if (!Object.values(plate).every((value) => Number.isFinite(value)) || !(plate.width > 0) || !(plate.depth > 0))
    return null;
  const adjusters = (form.adjusters ?? []).flatMap(({ id, x, y }) => {
    const [px, py] = [readLength(x), readLength(y)];
    return px === null || py === null ? [] : [{ id, x: px, y: py }];
  });
  return <BedPlan plate={plate} adjusters={adjusters} label="The plate with its adjusters" maxHeight={240} />;
}
