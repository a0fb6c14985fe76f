import { faultWords } from '@even-bed/words/fault';
import type { SoakCalibration, ToolInputs } from '@even-bed/core';
import { heatLayers } from '@even-bed/core/fit/toolInputs';
import { useState } from 'react';
import { View } from 'react-native';
import { currentManner } from '../ui/manner';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { numberIn } from '../ui/numberIn';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';
import { FieldRow } from './FieldRow';
import type { ToolForm } from './useToolForm';

/** Heater and air from two readings with a surface thermometer. */
export function CalibratePart({ tool, input }: { tool: ToolForm<'soak'>; input: ToolInputs['soak'] }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState({ t1: '3', top1: '', t2: '30', top2: '' });
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const [t1, top1, t2, top2] = [typed.t1, typed.top1, typed.t2, typed.top2].map(numberIn) as [
    number,
    number,
    number,
    number,
  ];
  const complete = [t1, top1, t2, top2].every(Number.isFinite);
  const calibrate = async () => {
    const answer = await summer().calibrate({
      layers: heatLayers(input.layers),
      setpoint: input.setpoint,
      ambient: input.ambient,
      readings: [
        { at: t1 * 60, top: top1 },
        { at: t2 * 60, top: top2 },
      ],
    });
    if (!answer.ok) return setSaid({ text: faultWords(answer.message, currentManner()), bad: true });
    const found: SoakCalibration = answer.result;
    if (!found.found) return setSaid({ text: found.reason, bad: true });
    tool.set('flux', String(Math.round(found.flux)));
    tool.set('loss', String(Number(found.loss.toFixed(1))));
    setSaid({
      text: `Heater ${Math.round(found.flux)} W/m², loss ${found.loss.toFixed(1)} W/m²K. One degree of error in the readings would change them by ${percent(found.perDegree.flux)} and ${percent(found.perDegree.loss)}.`,
      bad: false,
    });
  };
  if (!open)
    return (
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Calibrate with two readings"
          icon="measure"
          onPress={() => setOpen(true)}
          testID="calibrate"
        />
      </View>
    );
  const field = (key: keyof typeof typed) => ({
    value: typed[key],
    onChange: (text: string) => setTyped((old) => ({ ...old, [key]: text })),
    testID: `calibrate-${key}`,
  });
  return (
    <Section title="TWO READINGS OF THE TOP, FROM COLD" testID="calibrate-part">
      <Words size="small" tone="steel">
        Switch the heater on when all is cold. Read a surface thermometer on the top while it rises, and again when it
        hardly does.
      </Words>
      <FieldRow>
        <Field label="First, after" unit="min" {...field('t1')} />
        <Field label="Top" unit="°C" {...field('top1')} />
      </FieldRow>
      <FieldRow>
        <Field label="Second, after" unit="min" {...field('t2')} />
        <Field label="Top" unit="°C" {...field('top2')} />
      </FieldRow>
      <ActionButton
        label="Take heater and air from these"
        disabled={!complete}
        onPress={() => void calibrate()}
        testID="calibrate-go"
      />
      {said ? (
        <Words tone={said.bad ? 'stop' : 'ink'} live testID="calibrated">
          {said.text}
        </Words>
      ) : null}
    </Section>
  );
}

const percent = (part: number) => `${Math.round(part * 100)} %`;
