import { meshOf, stlOf, threeMfOf } from '@even-bed/core/fit/solidFile';
import { spacerSolid, type SpacerAsk } from '@even-bed/core/fit/spacerSolid';
import { useMemo } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Facts } from '../ui/Facts';
import { size, volume } from '../ui/formatHeight';
import { prose } from '../ui/prose';
import { Section } from '../ui/Section';
import { SolidView } from '../ui/SolidView';
import { Words } from '../ui/Words';
import { attempt } from './attempt';
import { FieldRow } from './FieldRow';
import { saveFile } from './saveFile';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';

const SHAPES: readonly { value: SpacerAsk['shape']; label: string }[] = [
  { value: 'pad', label: 'Pad' },
  { value: 'slide-in', label: 'Slide-in' },
  { value: 'clip-over', label: 'Clip-over' },
  { value: 'gauge', label: 'Gauge' },
];

/** What a shape asks for beside thickness, layer and depth. */
const SIZES: Record<SpacerAsk['shape'], Record<string, string>> = {
  pad: { width: '11', hole: '3.3' },
  'slide-in': { width: '11', screw: '3', play: '0.4' },
  'clip-over': { bodyWidth: '6.4', cheek: '5', wall: '1.6', play: '0.15' },
  gauge: { step: '15' },
};

const LABELS: Record<string, { label: string; hint?: string }> = {
  width: { label: 'Width' },
  hole: { label: 'Hole', hint: '0: none' },
  screw: { label: 'Screw' },
  play: { label: 'Play', hint: 'Room on top of the measure' },
  bodyWidth: { label: 'Width of the switch', hint: 'With calipers' },
  cheek: { label: 'Height of the cheeks' },
  wall: { label: 'Wall' },
  step: { label: 'Length of a step' },
};

const WHAT: Record<SpacerAsk['shape'], string> = {
  pad: 'Lies on the switch or under its screw.',
  'slide-in': 'Slides in under a loosened screw.',
  'clip-over': 'Its cheeks grip the body of the switch.',
  gauge: 'A stair: one layer less, the thickness, one layer more. The first goes in, the last does not.',
};

/** A spacer or gauge to print. */
export function SpacerTool() {
  const tool = useToolForm('spacer');
  const { input } = tool;
  const made = useMemo(() => {
    const { answer, failure } = attempt(input, (asked) => {
      const spacer = spacerSolid(asked);
      return { spacer, mesh: meshOf(spacer.solid) };
    });
    return answer ?? failure;
  }, [input]);
  const { shape, thickness, layer, depth } = tool.form;
  const change = (next: SpacerAsk['shape']) => {
    for (const key of Object.keys(SIZES[shape])) if (!(key in SIZES[next])) tool.set(key, undefined);
    tool.fill({ ...SIZES[next], shape: next, thickness, layer, depth } as never);
  };
  const sizes = Object.keys(SIZES[shape]);
  return (
    <ToolPage
      tool={tool}
      failure={typeof made === 'string' ? made : null}
      answer={
        made && typeof made !== 'string' ? (
          <>
            <Words size="turn" bold live testID="spacer-sentence">
              {made.spacer.layers > 0
                ? `${size(made.spacer.printed, 3)}: ${made.spacer.layers} layers of ${size(input!.layer!, 3)}`
                : size(made.spacer.printed, 3)}
            </Words>
            <SolidView {...made.mesh} label={`${shape}, ${size(made.spacer.printed, 3)} thick`} />
            <Facts
              rows={[
                ['Wanted', size(input!.thickness, 3)],
                [
                  'Left over',
                  made.spacer.leftover === 0
                    ? 'nothing'
                    : `${size(made.spacer.leftover, 3)} too thick, so that home trips sooner: the adjusters or zero take it`,
                ],
                [
                  'Outside',
                  `${size(made.spacer.size.width)} × ${size(made.spacer.size.depth)} × ${size(made.spacer.size.height, 3)}`,
                ],
                ['Volume', `${volume(made.spacer.volume)}`],
              ]}
            />
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
              <ActionButton
                label="STL"
                icon="download"
                onPress={() => saveFile(`${shape}-${made.spacer.printed}.stl`, stlOf(made.mesh), 'model/stl')}
                testID="save-stl"
              />
              <ActionButton
                label="3MF"
                icon="download"
                onPress={() => saveFile(`${shape}-${made.spacer.printed}.3mf`, threeMfOf(made.mesh), 'model/3mf')}
                testID="save-3mf"
              />
            </View>
            <Words size="small" tone="steel">
              {`Print it as it lies, with this layer height also for the first layer, and solid. A squashed first layer takes ${prose('0.02 to 0.05 mm')} off: measure it with calipers before it is fitted, and print a second with one layer more or less if need be. Print it before the machine is taken apart.`}
            </Words>
          </>
        ) : null
      }
    >
      <Section title="SHAPE">
        <Choice label="Shape" hideLabel options={SHAPES} value={shape} onChange={change} testID="shape" />
        <Words size="small" tone="steel">
          {WHAT[shape]}
        </Words>
      </Section>
      <Section title="THICKNESS">
        <FieldRow>
          <ToolField tool={tool} path="thickness" label="Wanted" unit="mm" hint="From the stack tool" />
          <ToolField tool={tool} path="layer" label="Layer height" unit="mm" hint="Empty: as wanted" />
        </FieldRow>
      </Section>
      <Section title="SIZES, BY CALIPERS">
        <ToolField tool={tool} path="depth" label="Depth" unit="mm" />
        {pairs(sizes).map((pair) => (
          <FieldRow key={pair.join()}>
            {pair.map((key) => (
              <ToolField key={key} tool={tool} path={key} unit="mm" {...LABELS[key]!} />
            ))}
          </FieldRow>
        ))}
      </Section>
    </ToolPage>
  );
}

const pairs = (keys: readonly string[]) =>
  Array.from({ length: Math.ceil(keys.length / 2) }, (_, i) => keys.slice(2 * i, 2 * i + 2));
