import type { MachineOverview } from '@even-bed/contract';
import type { FirstLayerPrintAsk } from '@even-bed/core/level/firstLayerPrint';
import { PRINT_HEAT, PRINT_MATERIALS } from '@even-bed/core/level/printHeat';
import { useState } from 'react';
import { View } from 'react-native';
import { saveFile } from '../fit/saveFile';
import { useWorked } from '../fit/useWorked';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { shortDecimal, size, temperature } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { numberIn } from '../ui/numberIn';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';

interface Props {
  machine: MachineOverview;
  places: readonly { x: number; y: number }[];
  layer: number | null;
  compensation: 'on' | 'off';
}

const USUAL_LAYER = 0.25;
/** Size of a pad and width of its lines, mm. */
export const PAD = { pad: 20, line: 0.45 };
const work = (input: FirstLayerPrintAsk) => shaper().print(input);

/** The test print for one machine, as G-code and as a solid. */
export function LayerPrint({ machine, places, layer, compensation }: Props) {
  const [material, setMaterial] = useState<(typeof PRINT_MATERIALS)[number]>('pla');
  const [nozzle, setNozzle] = useState('');
  const [bed, setBed] = useState('');
  const [command, setCommand] = useState('');
  const usual = PRINT_HEAT[material];
  const ask: FirstLayerPrintAsk = {
    print: { x: 0, y: 0, width: machine.printWidth, depth: machine.printDepth },
    height: 250,
    places,
    ...PAD,
    layer: layer ?? USUAL_LAYER,
    filament: 1.75,
    nozzle: nozzle.trim() === '' ? usual.nozzle : numberIn(nozzle),
    bed: bed.trim() === '' ? Math.min(usual.bed, machine.hottest ?? usual.bed) : numberIn(bed),
    hottest: machine.hottest,
    offCommand: command.trim() === '' ? null : command.trim(),
    compensation,
  };
  const worked = useWorked(ask, work);
  // What is saved is what is asked now, never what was asked before.
  const made = worked.kind === 'done' && !worked.stale ? worked.result : null;
  const name = `${machine.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-first-layer`;
  return (
    <Section title="PRINT IT" folded="a file of pads" testID="layer-print">
      <Words tone="steel">
        {`${places.length} pads of one layer, where the map is highest, lowest, and far apart. The decisive one is printed with compensation off.`}
      </Words>
      <Pick
        label="Material"
        options={PRINT_MATERIALS.map((one) => ({
          value: one,
          label: `${one.toUpperCase()}, ${temperature(PRINT_HEAT[one].nozzle)} on ${temperature(PRINT_HEAT[one].bed)}`,
        }))}
        value={material}
        onChange={(one) => setMaterial(one as typeof material)}
        testID="layer-material"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <Field
          label="Nozzle"
          unit="°C"
          keyboard="decimal"
          value={nozzle}
          placeholder={String(usual.nozzle)}
          onChange={setNozzle}
          testID="layer-nozzle"
        />
        <Field
          label="Bed"
          unit="°C"
          keyboard="decimal"
          value={bed}
          placeholder={String(ask.bed)}
          onChange={setBed}
          testID="layer-bed"
        />
      </View>
      {compensation === 'off' ? (
        <Field
          label="The machine’s own command that switches it off"
          value={command}
          onChange={setCommand}
          hint="Left empty: the print stops after homing until you have switched it off at the machine. Don’t home again."
          testID="layer-command"
        />
      ) : null}
      {worked.kind === 'failed' ? (
        <Words tone="stop" live testID="layer-print-fault">
          {worked.message}
        </Words>
      ) : made === null ? null : (
        <>
          <Notice kind="due" title="Hot, and moving">
            Clean nozzle and plate; stay with it, a hand at the switch for the first lines: too near scrapes, too high
            strings. The file counts from the front left of what is printed on; where a machine counts from elsewhere,
            use the STL.
          </Notice>
          <Words size="small" tone="steel">
            {`About ${Math.max(1, Math.round(made.minutes))} min of printing, ${currentManner().units === 'in' ? size(made.filament, 0) : `${shortDecimal(made.filament / 1000, 2)} m`} of filament.${made.left.length > 0 ? ` ${made.left.length} places too near to another were left out.` : ''}`}
          </Words>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <ActionButton
              label="G-code"
              onPress={() => saveFile(`${name}.gcode`, made.gcode, 'text/x-gcode')}
              testID="layer-gcode"
            />
            <ActionButton
              label="STL"
              onPress={() =>
                void shaper()
                  .solid({ pads: made.pads, layer: ask.layer })
                  .then((solid) => (solid.ok ? saveFile(`${name}.stl`, solid.result, 'model/stl') : undefined))
              }
              testID="layer-stl"
            />
          </View>
        </>
      )}
    </Section>
  );
}
