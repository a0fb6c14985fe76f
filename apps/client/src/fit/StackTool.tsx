import type { MachineOverview, MachineStack } from '@even-bed/contract';
import { stackChange, type StackChange } from '@even-bed/core/fit/stackChange';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { useKindsQuery } from '../surfaces/surfacesApi';
import { findingFrom } from '@even-bed/core/fit/findingZ';
import { METALS } from '@even-bed/core/fit/inductiveProbe';
import { stackCautionWords, stackSentence, stackStepWords } from '@even-bed/words/stack';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Facts } from '../ui/Facts';
import { length, shortDecimal, size, temperature } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { StackCompare } from '../ui/StackCompare';
import { Words } from '../ui/Words';
import { FieldRow } from './FieldRow';
import { FillFromMachine } from './FillFromMachine';
import { FINDING_CHOICES, findingForm, layerForm, METAL_NAMES } from './findingOf';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm, type ToolForm } from './useToolForm';

/** What has to move when a stack changes. */
export function StackTool() {
  const router = useRouter();
  const tool = useToolForm('stack');
  const { input } = tool;
  const result = input ? stackChange(input) : null;
  const reader = currentManner();
  const facts = result && input ? { result, by: input.finding.by, family: input.family, home: input.home } : null;
  const fill = (machine: MachineOverview, stack: MachineStack) => {
    const layers = stack.layers.filter(({ slot }) => slot !== 'film').map(layerForm);
    tool.fill({
      before: layers,
      after: layers,
      family: machine.family,
      finding: findingForm(findingFrom(machine.finding, machine.family)),
    } as never);
  };
  return (
    <ToolPage
      tool={tool}
      action={
        result?.spacer ? (
          <ActionButton
            label="Make the spacer"
            kind="main"
            grow
            onPress={() =>
              router.push(`/tools/spacer?thickness=${result.spacer!.ideal}&layer=${input?.spacerLayer ?? ''}`)
            }
            testID="to-spacer"
          />
        ) : undefined
      }
      answer={
        result && input && facts ? (
          <>
            <StackCompare
              before={input.before}
              after={input.after}
              label={`Stack now ${size(result.before, 3)}, planned ${size(result.after, 3)}`}
            />
            {result.verdict === 'stop' ? (
              <Notice kind="stop" title={stackSentence(facts, reader)} testID="stack-sentence" />
            ) : result.verdict === 'do' ? (
              <Steps result={result} family={input.family} />
            ) : (
              <Words size="turn" bold live testID="stack-sentence">
                {stackSentence(facts, reader)}
              </Words>
            )}
            {result.cautions.map(({ code, kind }) =>
              kind === 'stop' ? (
                <Notice key={code} kind="stop" title="Before homing" testID={`caution-${code}`}>
                  {stackCautionWords(code, facts, reader)}
                </Notice>
              ) : null,
            )}
            <Facts rows={factsOf(result)} />
            {result.cautions.flatMap(({ code, kind }) =>
              kind === 'due'
                ? [
                    <Words key={code} size="small" tone="steel" testID={`caution-${code}`}>
                      {stackCautionWords(code, facts, reader)}
                    </Words>,
                  ]
                : [],
            )}
          </>
        ) : null
      }
    >
      <FillFromMachine ready={tool.ready} onFill={fill} />
      <Choice
        label="Family"
        options={[
          { value: 'filament', label: 'Filament' },
          { value: 'resin', label: 'Resin' },
        ]}
        value={tool.form.family as 'filament' | 'resin'}
        onChange={(family) => tool.set('family', family)}
      />
      <Layers tool={tool} path="before" title="NOW, BOTTOM FIRST" />
      <Layers tool={tool} path="after" title="PLANNED, BOTTOM FIRST" />
      <FindingPart tool={tool} />
      <Section title="WHAT CAN MOVE">
        <FieldRow>
          <ToolField tool={tool} path="adjusters.up" label="Adjusters can still raise" unit="mm" />
          <ToolField tool={tool} path="adjusters.down" label="… and lower" unit="mm" />
        </FieldRow>
        <FieldRow>
          <ToolField tool={tool} path="spacerLayer" label="Spacer printed at" unit="mm" hint="Layer height" />
          <ToolField
            tool={tool}
            path="slack"
            label="Gap at home today"
            unit="mm"
            hint="Nozzle to surface when it trips"
          />
        </FieldRow>
        <ToolField tool={tool} path="buildHeight" label="Build height today" unit="mm" />
      </Section>
    </ToolPage>
  );
}

function factsOf(result: ReturnType<typeof stackChange>): [string, string][] {
  const { spacer, adjusters, zero, buildHeight, addedMass, limit } = result;
  const rows: ([string, string] | null)[] = [
    spacer
      ? [
          'Spacer',
          `${size(spacer.ideal, 3)} wanted${spacer.layers > 0 ? `, ${size(spacer.printed, 3)} as printed in ${spacer.layers} layers, ${spacer.leftover === 0 ? 'nothing over' : `${size(Math.abs(spacer.leftover), 3)} ${spacer.leftover > 0 ? 'over' : 'short'}`}` : ''}`,
        ]
      : null,
    adjusters
      ? [
          'Adjusters',
          `${adjusters.take > 0 ? 'raise' : 'lower'} ${size(Math.abs(adjusters.take), 3)} of the ${length(adjusters.have)} they have${adjusters.enough ? '' : ': not enough'}`,
        ]
      : null,
    zero === null ? null : ['Software zero', `${size(Math.abs(zero), 3)} ${zero > 0 ? 'further' : 'nearer'}`],
    buildHeight === null ? null : ['Build height', `${size(buildHeight, 2)} left`],
    addedMass === null ? null : ['Mass', `${addedMass > 0 ? '+' : ''}${shortDecimal(addedMass, 0)} g`],
    limit ? ['Heat', `up to ${temperature(limit.temperature)} for hours: ${limit.layer} sets it`] : null,
  ];
  return rows.filter((row) => row !== null);
}

function Layers({ tool, path, title }: { tool: ToolForm<'stack'>; path: 'before' | 'after'; title: string }) {
  const { data: kinds = [] } = useKindsQuery();
  const layers = tool.form[path];
  const addKind = (id: string) => {
    const kind = kinds.find((known) => known.id === id);
    if (kind) tool.addTo(path, layerForm({ ...kind, measured: false }));
  };
  return (
    <RowList
      title={title}
      one="layer"
      count={layers.length}
      least={path === 'after' ? 1 : 0}
      onAdd={() => tool.addTo(path, { name: '', thickness: '', metal: '' })}
      onRemove={(i) => tool.removeFrom(path, i)}
      testID={`layers-${path}`}
      render={(i) => (
        <>
          <FieldRow>
            <ToolField tool={tool} path={`${path}.${i}.name`} label="Layer" text />
            <ToolField tool={tool} path={`${path}.${i}.thickness`} label="Thickness" unit="mm" />
          </FieldRow>
          <FieldRow>
            <ToolField tool={tool} path={`${path}.${i}.limit`} label="Stands for hours" unit="°C" />
            <ToolField tool={tool} path={`${path}.${i}.mass`} label="Mass" unit="g" />
          </FieldRow>
          {tool.form.finding.by === 'inductive-probe' ? (
            <Pick
              label="The probe senses"
              options={METAL_CHOICES}
              value={layers[i]?.metal ?? ''}
              onChange={(metal) => tool.set(`${path}.${i}.metal`, metal)}
              testID={`${path}.${i}.metal`}
            />
          ) : null}
          {i === layers.length - 1 && kinds.length > 0 ? (
            <Pick
              label={`A kind of surface on top of ${title.toLowerCase()}`}
              hideLabel
              options={kinds.map(({ id, name }) => ({ value: id, label: name }))}
              value={null}
              placeholder="Put a kind of surface on top"
              onChange={addKind}
              testID={`layers-${path}-kind`}
            />
          ) : null}
        </>
      )}
    />
  );
}

const METAL_CHOICES = [
  { value: '', label: 'Nothing: not metal' },
  ...METALS.map((value) => ({ value: value as string, label: METAL_NAMES[value] })),
];

/** The travel to home in words, for the person to check against the machine. */
function travelWords(family: string, moves: string, home: string): string | null {
  if (home === '' || (family !== 'resin' && moves === '')) return null;
  const thing = family === 'resin' ? 'platform' : moves;
  const down = (thing !== 'bed') === (home === 'surface');
  return `Homing, the ${thing} travels ${down ? 'down' : 'up'}. If yours does otherwise, one of these two is not as said.`;
}

/** What is to be done, numbered in the order in which it is done. */
function Steps({ result, family }: { result: StackChange; family: 'filament' | 'resin' }) {
  return (
    <View style={{ gap: 8 }} testID="stack-sentence" accessibilityRole="list">
      {result.steps.map((step, i) => (
        <Words key={i} size="turn" bold live={i === 0}>
          {`${i + 1}. ${stackStepWords(step, family, currentManner())}`}
        </Words>
      ))}
      {result.gap >= 0.01 ? (
        <Words size="small" tone="steel">{`That leaves ${size(result.gap, 3)} for levelling.`}</Words>
      ) : null}
    </View>
  );
}

function FindingPart({ tool }: { tool: ToolForm<'stack'> }) {
  const { finding, family, moves, home } = tool.form;
  const probes = finding.by === 'contact-probe' || finding.by === 'inductive-probe';
  return (
    <Section title="WHAT FINDS Z">
      <Pick
        label="What finds Z"
        hideLabel
        options={FINDING_CHOICES}
        value={finding.by}
        onChange={(by) => tool.set('finding', findingForm(by as (typeof FINDING_CHOICES)[number]['value']))}
        testID="finding"
      />
      {probes ? null : (
        <>
          {family === 'resin' ? null : (
            <Choice
              label="What moves along Z"
              options={[
                { value: 'head', label: 'the head' },
                { value: 'bed', label: 'the bed' },
              ]}
              value={moves === '' ? null : moves}
              onChange={(value) => tool.set('moves', value)}
              testID="moves"
            />
          )}
          <Choice
            label="Home lies"
            options={[
              { value: 'surface', label: family === 'resin' ? 'at the screen' : 'at the surface' },
              { value: 'away', label: 'at the far end' },
            ]}
            value={home === '' ? null : home}
            onChange={(value) => tool.set('home', value)}
            testID="home"
          />
          {travelWords(family, moves, home) ? (
            <Words size="small" tone="steel" testID="travel">
              {travelWords(family, moves, home)}
            </Words>
          ) : null}
        </>
      )}
      {finding.by === 'spacer' ? (
        <ToolField tool={tool} path="finding.now" label="Spacer there today" unit="mm" hint="Empty: none" />
      ) : null}
      {finding.by === 'inductive-probe' ? (
        <FieldRow>
          <ToolField
            tool={tool}
            path="finding.range"
            label="Sensing distance"
            unit="mm"
            hint="On steel, from its data sheet"
          />
          <ToolField tool={tool} path="finding.above" label="Face above nozzle" unit="mm" hint="With a feeler" />
        </FieldRow>
      ) : null}
      {finding.by === 'stop-screw' ? (
        <View style={{ gap: 8 }}>
          <ToolField tool={tool} path="finding.pitch" label="Pitch of the stop screw" unit="mm" />
          <Choice
            label="Clockwise, it trips"
            options={[
              { value: 'sooner', label: 'sooner' },
              { value: 'later', label: 'later' },
            ]}
            value={finding.clockwise}
            onChange={(clockwise) => tool.set('finding.clockwise', clockwise)}
          />
        </View>
      ) : finding.by === 'flag' ? (
        <View style={{ gap: 8 }}>
          <Choice
            label="What can be moved"
            options={[
              { value: 'flag', label: 'the flag' },
              { value: 'sensor', label: 'the sensor' },
            ]}
            value={finding.part}
            onChange={(part) => tool.set('finding.part', part)}
          />
          <Choice
            label="It sits on"
            options={[
              { value: 'moving', label: 'what moves' },
              { value: 'frame', label: 'the frame' },
            ]}
            value={finding.rides}
            onChange={(rides) => tool.set('finding.rides', rides)}
          />
        </View>
      ) : null}
    </Section>
  );
}
