import { timeTaken } from '@even-bed/words/span';
import type { Soak, SoakInput } from '@even-bed/core';
import { MATERIALS } from '@even-bed/core/fit/materials';
import { SAFE_TO_HANDLE, setpointForTop } from '@even-bed/core/fit/soak';
import { soakOf } from '@even-bed/core/fit/toolInputs';
import { lazy, Suspense, useState } from 'react';
import { View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Facts } from '../ui/Facts';
import { Field } from '../ui/Field';
import { Figure } from '../ui/Figure';
import { size, temperature, temperatureDifference } from '../ui/formatHeight';
import { clockTime } from '../ui/formatTime';
import { Notice } from '../ui/Notice';
import { numberIn } from '../ui/numberIn';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';
import { CalibratePart } from './CalibratePart';
import { curvesOf, startOf } from './curves';
import { FieldRow } from './FieldRow';
import { FillFromMachine } from './FillFromMachine';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';
import { useWorked } from './useWorked';

const HeatChart = lazy(() => import('../ui/charts').then(({ HeatChart: chart }) => ({ default: chart })));
const workSoak = (input: SoakInput) => summer().soak(input);
const workCool = (input: Parameters<ReturnType<typeof summer>['coolDown']>[0]) => summer().coolDown(input);

/** When the top is hot, how hot it gets, and when it may be touched again. */
export function SoakTool() {
  const tool = useToolForm('soak');
  const { input } = tool;
  const asked = input ? soakOf(input) : null;
  const worked = useWorked(asked, workSoak);
  const result = worked.kind === 'done' ? worked.result : null;
  const [kept, setKept] = useState<{ result: Soak; words: string } | null>(null);
  return (
    <ToolPage
      tool={tool}
      failure={worked.kind === 'failed' ? worked.message : null}
      working={worked.kind === 'busy'}
      answer={
        asked && input && result ? (
          <>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
              <Figure
                label={`Top within ${temperatureDifference(input.within)} after`}
                value={result.seconds === null ? 'over a day' : timeTaken(result.seconds)}
                testID="soak-time"
              />
              <Figure label="Top ends at" value={temperature(result.steadyTop)} testID="soak-top" />
            </View>
            {result.holdsSetpoint ? null : (
              <Notice kind="due" title="The heater is too weak">
                {`It can't hold ${temperature(input.setpoint)} under this stack and this air.`}
              </Notice>
            )}
            <Suspense fallback={<View style={{ height: 200 }} />}>
              <HeatChart {...curvesOf(result, kept)} />
            </Suspense>
            <Uses asked={asked} result={result} />
            <Section title="AGAINST ANOTHER STACK">
              <Choice
                label="Comparing"
                hideLabel
                options={[
                  { value: 'keep', label: 'Keep this one to compare' },
                  { value: 'drop', label: 'Nothing kept' },
                ]}
                value={kept ? 'keep' : 'drop'}
                onChange={(value) =>
                  setKept(
                    value === 'keep'
                      ? {
                          result,
                          words: input.layers
                            .map(({ material, thickness }) => `${material} ${size(thickness)}`)
                            .join(' + '),
                        }
                      : null,
                  )
                }
                testID="compare"
              />
              {kept ? (
                <Words size="small" testID="compared">
                  {`Kept: ${kept.words}. It took ${kept.result.seconds === null ? 'over a day' : timeTaken(kept.result.seconds)} and ended at ${temperature(kept.result.steadyTop)}. Change the layers and look.`}
                </Words>
              ) : null}
            </Section>
          </>
        ) : (
          <Words tone="steel">Being worked out…</Words>
        )
      }
    >
      <FillFromMachine
        ready={tool.ready}
        onFill={(_, stack) => {
          const layers = stack.layers
            .filter(({ slot, thickness }) => slot !== 'film' && thickness > 0)
            .flatMap(({ material, thickness, fixed }) =>
              material ? [{ material, thickness: String(thickness), dry: !fixed }] : [],
            );
          if (layers.length > 0) tool.set('layers', layers);
        }}
      />
      <RowList
        title="LAYERS, BOTTOM FIRST"
        one="layer"
        count={tool.form.layers.length}
        least={1}
        onAdd={() => tool.addTo('layers', { material: 'glass', thickness: '3', dry: true })}
        onRemove={(i) => tool.removeFrom('layers', i)}
        testID="layers"
        render={(i) => (
          <>
            <FieldRow>
              <Pick
                label="Material"
                options={MATERIALS.map(({ id, name }) => ({ value: id, label: name }))}
                value={tool.form.layers[i]!.material}
                onChange={(material) => tool.set(`layers.${i}.material`, material)}
                testID={`material-${i}`}
              />
              <ToolField tool={tool} path={`layers.${i}.thickness`} label="Thickness" unit="mm" />
            </FieldRow>
            {i > 0 ? (
              <Choice
                label={`How layer ${i + 1} lies`}
                hideLabel
                options={[
                  { value: 'stuck', label: 'stuck on' },
                  { value: 'dry', label: 'lies dry, a little air under it' },
                ]}
                value={tool.form.layers[i]!.dry ? 'dry' : 'stuck'}
                onChange={(lies) => tool.set(`layers.${i}.dry`, lies === 'dry')}
              />
            ) : null}
          </>
        )}
      />
      <Section title="HEATER AND AIR">
        <FieldRow>
          <ToolField tool={tool} path="setpoint" label="Set temperature" unit="°C" />
          <ToolField tool={tool} path="within" label="Hot means within" unit="K" />
        </FieldRow>
        <FieldRow>
          <ToolField tool={tool} path="flux" label="Heater" unit="W/m²" hint="Watts over the area of the bed" />
          <ToolField tool={tool} path="ambient" label="Air" unit="°C" />
        </FieldRow>
        <ToolField
          tool={tool}
          path="loss"
          label="Loss at the top"
          unit="W/m²K"
          hint="About 8 to 12 in still air, less in an enclosure, more in a draught"
        />
      </Section>
      {input ? <CalibratePart tool={tool} input={input} /> : null}
      <Words size="small" tone="steel">
        {`Sources: ${[...new Set(tool.form.layers.map(({ material }) => MATERIALS.find(({ id }) => id === material)?.source))].filter(Boolean).join('; ')}.`}
      </Words>
    </ToolPage>
  );
}

/** What the curve is good for: when to begin, what to set, when to touch. */
function Uses({ asked, result }: { asked: SoakInput; result: Soak }) {
  const now = useNow();
  const [wanted, setWanted] = useState('');
  const [release, setRelease] = useState('');
  const [hotBy, setHotBy] = useState('');
  const { layers, ambient, loss } = asked;
  const top = numberIn(wanted);
  const better = top > ambient && Number.isFinite(top) ? setpointForTop({ layers, ambient, loss, top }) : null;
  const typed = numberIn(release);
  const to = Number.isFinite(typed) ? typed : SAFE_TO_HANDLE;
  const bottom = result.holdsSetpoint ? asked.setpoint : result.curve.bottom.at(-1)!;
  const cooling = useWorked(
    to > ambient && loss > 0 ? { layers, bottom, top: result.steadyTop, ambient, loss, to } : null,
    workCool,
  );
  const start = result.seconds === null ? null : startOf(hotBy, result.seconds, now);
  return (
    <Section title="WHAT FOLLOWS">
      <Facts
        rows={[
          ['Begun now', result.seconds === null ? '–' : `hot at ${clockTime(now + result.seconds * 1000)}`],
          ...(start ? ([['To be hot then', start]] as const) : []),
          [
            `Down to ${temperature(to)}`,
            cooling.kind === 'done' && cooling.result.seconds !== null
              ? `${timeTaken(cooling.result.seconds)} after switching off, at most`
              : '–',
          ],
          ...(better
            ? ([
                [
                  `For a top of ${temperature(top)}`,
                  `set ${temperature(better.setpoint)}${better.flux > asked.flux ? ': more than this heater gives' : ''}`,
                ],
              ] as const)
            : []),
        ]}
      />
      <Field label="To be hot at" value={hotBy} onChange={setHotBy} placeholder="14:30" testID="hot-by" />
      <FieldRow>
        <Field label="Wanted at the top" unit="°C" value={wanted} onChange={setWanted} testID="wanted-top" />
        <Field
          label="Cool down to"
          unit="°C"
          value={release}
          onChange={setRelease}
          hint={`Empty: ${SAFE_TO_HANDLE}, safe to hold (ISO 13732-1)`}
          testID="cool-to"
        />
      </FieldRow>
    </Section>
  );
}
