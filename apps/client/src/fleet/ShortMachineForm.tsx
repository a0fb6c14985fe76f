import type { Finding, MachineFacts } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import type { ReadableError } from '../api/errorOf';
import { deviceStore } from '../offline/deviceStore';
import { ActionButton } from '../ui/ActionButton';
import { Choice, type Option } from '../ui/Choice';
import { Field } from '../ui/Field';
import { area, length } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { Page, type Crumb } from '../ui/Page';
import { PlateGlyph } from '../ui/PlateGlyph';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { COMMON_PLATES, withPlate } from './commonPlates';
import { judgeMachine, NEW_AREA } from './judgeMachine';
import { adjusterPattern, EMPTY_FORM, MACHINE_FORMS, type AdjusterPattern, type MachineForm } from './machineForm';

/** Drawn width of the largest plate, px. */
const DRAWN = 56;
const LARGEST = Math.max(...COMMON_PLATES.flatMap(({ plate }) => plate));
const OTHER = 'other';

const PLATES: readonly Option<string>[] = [
  ...COMMON_PLATES.map(({ label, family, plate, print }) => ({
    value: label,
    label: family === 'resin' ? `${area(...print)} resin` : area(...print),
    drawing: <PlateGlyph width={(plate[0] / LARGEST) * DRAWN} depth={(plate[1] / LARGEST) * DRAWN} />,
  })),
  { value: OTHER, label: 'another size' },
];

const INSET = 0.14;
const [NEAR, FAR] = [INSET, 1 - INSET];
const KNOBS: Record<AdjusterPattern, { label: string; places: [number, number][] }> = {
  four: {
    label: 'four knobs',
    places: [
      [NEAR, NEAR],
      [FAR, NEAR],
      [NEAR, FAR],
      [FAR, FAR],
    ],
  },
  'three-rear': {
    label: 'three, one at the rear',
    places: [
      [NEAR, NEAR],
      [FAR, NEAR],
      [0.5, FAR],
    ],
  },
  'three-front': {
    label: 'three, one at the front',
    places: [
      [0.5, NEAR],
      [NEAR, FAR],
      [FAR, FAR],
    ],
  },
  none: { label: 'none', places: [] },
};
const PATTERNS: readonly Option<AdjusterPattern>[] = (Object.keys(KNOBS) as AdjusterPattern[]).map((value) => ({
  value,
  label: KNOBS[value].label,
  drawing: <PlateGlyph width={52} depth={52} knobs={KNOBS[value].places} />,
}));

const FINDINGS: readonly Option<Finding>[] = [
  { value: 'contact-probe', label: 'a probe that touches' },
  { value: 'inductive-probe', label: 'a probe that senses metal' },
  { value: 'endstop', label: 'an endstop' },
  { value: 'by-hand', label: 'paper, by hand' },
];

/** What resin and filament differ in, where nothing was said. */
const USUAL: Record<MachineFacts['family'], Partial<MachineForm>> = {
  filament: { firstLayer: EMPTY_FORM.firstLayer, compensation: EMPTY_FORM.compensation, finding: EMPTY_FORM.finding },
  resin: { firstLayer: '0.05', compensation: 'off', finding: 'endstop' },
};

interface Start {
  form: MachineForm;
  plate: string | null;
  knobs: AdjusterPattern;
}

const patterned = (form: MachineForm, knobs: AdjusterPattern): MachineForm => ({
  ...form,
  adjusters: adjusterPattern(knobs, readLength(form.printWidth) ?? 200, readLength(form.printDepth) ?? 200),
});

const begun = (areas: Props['areas']): Start => ({
  form: patterned(
    {
      ...EMPTY_FORM,
      areaId: areas.length === 0 ? NEW_AREA : areas.length === 1 ? areas[0]!.id : '',
      newArea: areas.length === 0 ? 'Workshop' : '',
    },
    'four',
  ),
  plate: null,
  knobs: 'four',
});

interface Props {
  crumbs: readonly Crumb[];
  areas: readonly { id: string; name: string }[];
  busy: boolean;
  failure: ReadableError | null;
  onAll: () => void;
  /** @param andCheck whether its first level check is wanted at once */
  onSubmit: (facts: MachineFacts, newArea: string | null, andCheck: boolean) => Promise<boolean>;
}

/** A machine in a few taps: its name, where it stands, its plate drawn; all else as usual, to be changed later. */
export function ShortMachineForm({ crumbs, areas, busy, failure, onAll, onSubmit }: Props) {
  const [{ form, plate, knobs }, setStart] = useState(() => begun(areas));
  const [found, setFound] = useState<Record<string, string>>({});
  useEffect(() => {
    void deviceStore.get<MachineForm>(MACHINE_FORMS, 'new').then((kept) => {
      if (kept) setStart(({ knobs: pattern }) => ({ form: { ...EMPTY_FORM, ...kept }, plate: OTHER, knobs: pattern }));
    });
  }, []);
  const put = (next: Start) => {
    setStart(next);
    void deviceStore.set(MACHINE_FORMS, 'new', next.form);
  };
  const change = (fields: Partial<MachineForm>) => put({ form: { ...form, ...fields }, plate, knobs });
  const choosePlate = (label: string) => {
    const known = COMMON_PLATES.find((common) => common.label === label);
    if (!known) return put({ form, plate: OTHER, knobs });
    const pattern = known.family === 'resin' ? 'none' : form.family === 'resin' ? 'four' : knobs;
    const sized = withPlate({ ...form, ...(known.family === form.family ? {} : USUAL[known.family]) }, known);
    put({ form: patterned(sized, pattern), plate: label, knobs: pattern });
  };
  const measured = (fields: Partial<MachineForm>) => {
    const next = { ...form, ...fields };
    put({ form: patterned(next, knobs), plate, knobs });
  };
  const submit = async (andCheck: boolean) => {
    const whole = { ...form, model: form.model.trim() || `${form.printWidth} × ${form.printDepth} ${form.family}` };
    const judged = await judgeMachine(whole);
    const faults = judged.ok ? {} : { ...judged.faults };
    if (plate === null) faults['plate'] = 'Choose the plate that is nearest, or another size.';
    setFound(faults);
    if (!judged.ok || plate === null) return;
    if (await onSubmit(judged.facts, judged.newArea, andCheck)) await deviceStore.remove(MACHINE_FORMS, 'new');
  };
  const fault = (name: string) => found[name] ?? failure?.fields[name];
  const levellable = form.adjusters.length >= 3;
  // Faults of facts that this short form doesn't show are told above it.
  const hidden = Object.entries(found).filter(([name]) => !SHOWN.has(name));
  return (
    <Page
      title="Add a machine"
      crumbs={crumbs}
      testID="machine-short"
      actions={
        <>
          {levellable ? <ActionButton label="Only save" onPress={() => void submit(false)} testID="save-only" /> : null}
          <ActionButton
            label={levellable ? 'Save and check its level' : 'Save the machine'}
            kind="main"
            grow
            busy={busy}
            onPress={() => void submit(levellable)}
            testID="save-and-check"
          />
        </>
      }
    >
      {failure || hidden.length > 0 ? (
        <Notice kind="stop" title="Not saved" testID="short-failure">
          {failure?.message ?? hidden.map(([, message]) => message).join(' ')}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.l, maxWidth: 720 }}>
        <Field
          label="Name"
          value={form.name}
          onChange={(name) => change({ name })}
          error={fault('name')}
          testID="field-name"
        />
        {areas.length > 0 ? (
          <Choice
            label="Where it stands"
            options={[
              ...areas.map(({ id, name }) => ({ value: id, label: name })),
              { value: NEW_AREA, label: 'elsewhere' },
            ]}
            value={form.areaId || null}
            onChange={(areaId) => change({ areaId })}
            error={fault('areaId')}
            testID="short-area"
          />
        ) : null}
        {form.areaId === NEW_AREA ? (
          <Field
            label={areas.length > 0 ? 'Name of the new area' : 'Where it stands: a room or a bench'}
            value={form.newArea}
            onChange={(newArea) => change({ newArea })}
            error={fault('newArea')}
            testID="field-newArea"
          />
        ) : null}
        <Section title="ITS PLATE, BY THE PRINT AREA">
          <Choice
            label="Its plate"
            hideLabel
            options={PLATES}
            value={plate}
            onChange={choosePlate}
            error={fault('plate')}
            testID="short-plate"
          />
          {plate === OTHER ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
              <Field
                label="Print area, left to right"
                unit="mm"
                keyboard="decimal"
                value={form.printWidth}
                onChange={(printWidth) => measured({ printWidth })}
                error={fault('printWidth')}
                testID="field-printWidth"
              />
              <Field
                label="Print area, front to rear"
                unit="mm"
                keyboard="decimal"
                value={form.printDepth}
                onChange={(printDepth) => measured({ printDepth })}
                error={fault('printDepth')}
                testID="field-printDepth"
              />
              <Field
                label="Plate, left to right"
                unit="mm"
                keyboard="decimal"
                value={form.plateWidth}
                onChange={(plateWidth) => measured({ plateWidth })}
                error={fault('plateWidth')}
                testID="field-plateWidth"
              />
              <Field
                label="Plate, front to rear"
                unit="mm"
                keyboard="decimal"
                value={form.plateDepth}
                onChange={(plateDepth) => measured({ plateDepth })}
                error={fault('plateDepth')}
                testID="field-plateDepth"
              />
            </View>
          ) : null}
        </Section>
        <Section title="UNDER THE BED">
          <Choice
            label="Adjusters"
            hideLabel
            options={PATTERNS}
            value={knobs}
            onChange={(pattern) => put({ form: patterned(form, pattern), plate, knobs: pattern })}
            testID="short-knobs"
          />
        </Section>
        <Section title="WHAT FINDS Z">
          <Choice
            label="What finds Z"
            hideLabel
            options={FINDINGS}
            value={form.finding}
            onChange={(finding) => change({ finding })}
            testID="short-finding"
          />
        </Section>
        <Words size="small" tone="steel">
          {`Taken as usual until you say otherwise: first layer ${length(Number(form.firstLayer))}${levellable ? `, knobs ${length(15, 0)} inside the edge of the print area on M4 screws, clockwise lowers the bed. If yours differ, say so under all facts before you turn` : ''}.`}
        </Words>
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="All facts"
            icon="edit"
            onPress={() => void deviceStore.set(MACHINE_FORMS, 'new', form).then(onAll)}
            testID="all-facts"
          />
        </View>
      </View>
    </Page>
  );
}

const SHOWN = new Set(['name', 'areaId', 'newArea', 'plate', 'printWidth', 'printDepth', 'plateWidth', 'plateDepth']);
