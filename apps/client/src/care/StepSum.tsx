import type { Job, JobLayer, Plan } from '@even-bed/contract';
import type { ToolInputs } from '@even-bed/core';
import type { ProcedureStep } from '@even-bed/core/care/procedure';
import type { RunState } from '@even-bed/core/care/runProcedure';
import { compatibility } from '@even-bed/core/fit/compatibility';
import { materialNamed } from '@even-bed/core/fit/materials';
import { stackChange, type FitLayer, type StackChangeInput } from '@even-bed/core/fit/stackChange';
import { slotOf } from '@even-bed/core/surfaces/surfaceKind';
import { timeTaken } from '@even-bed/words/span';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { soakOf } from '@even-bed/core/fit/toolInputs';
import { stackCautionWords, stackSentence } from '@even-bed/words/stack';
import { ANSWER_WORDS, FACE_NAMES, THING_NAMES } from '@even-bed/words/compat';
import { findingFrom, metalOf } from '../fit/findingOf';
import { usePlansQuery } from '../fit/fitApi';
import { toolHref, toolName } from '../fit/toolNames';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useStackQuery, useSurfaceQuery } from '../surfaces/surfacesApi';
import { ActionButton } from '../ui/ActionButton';
import { signedLength, temperature } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';
import { stackAfter } from './stackAfter';

interface Props {
  step: ProcedureStep;
  job: Job;
  state: RunState;
}

/** The sum that belongs to a step, filled in from the machine and from what was read; or its plan; or the tool. */
export function StepSum({ step, job, state }: Props) {
  const router = useRouter();
  const { sum } = step;
  const { machineId } = job;
  const { data: plans = [] } = usePlansQuery({ machineId });
  if (!sum) return null;
  if (sum === 'level')
    return (
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="To the machine’s level check"
          icon="measure"
          onPress={() => router.push(`/floor/${machineId}`)}
          testID="sum-level"
        />
      </View>
    );
  const plan = plans.find(({ tool }) => tool === sum);
  const known = stackFacts(plans);
  return (
    <Section title={`THE SUM: ${toolName(sum).name.toUpperCase()}`} testID="step-sum">
      {sum === 'stack' && step.layers ? <StackSum layers={step.layers} job={job} state={state} known={known} /> : null}
      {sum === 'soak' ? <SoakSum machineId={machineId} /> : null}
      {sum === 'together' ? <TogetherSum surfaceId={Object.values(job.parts)[0] ?? null} /> : null}
      {plan ? <Words bold>{`As planned: ${plan.sentence}`}</Words> : null}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label={plan ? 'Look at the plan' : 'Open the tool'}
          icon="measure"
          onPress={() =>
            router.push(plan ? toolHref(plan.tool, plan.id) : (`/tools/${sum}?machine=${machineId}` as never))
          }
          testID="open-sum"
        />
      </View>
    </Section>
  );
}

/** How a machine finds Z, as its latest plan of a stack says. */
function stackFacts(plans: readonly Plan[]) {
  const plan = plans.find(({ tool }) => tool === 'stack') as Plan<'stack'> | undefined;
  if (!plan) return null;
  const { finding, moves, home, adjusters, spacerLayer, slack } = plan.input;
  return { finding, moves, home, adjusters, spacerLayer, slack };
}

/** The change of stack from what lay there when the job began and from what was measured in it. */
function StackSum({
  layers,
  job,
  state,
  known,
}: {
  layers: NonNullable<ProcedureStep['layers']>;
  job: Job;
  state: RunState;
  /** How the machine finds Z, from its latest plan of a stack. */
  known: Pick<ToolInputs['stack'], 'finding' | 'moves' | 'home' | 'adjusters' | 'spacerLayer' | 'slack'> | null;
}) {
  const { data: machines = [] } = useMachinesQuery();
  const machine = machines.find(({ id }) => id === job.machineId);
  const top = job.procedure.parts.find(
    ({ from, groups }) => from === 'rack' && groups.some((g) => slotOf(g) === 'top'),
  );
  const { data: named } = useSurfaceQuery({ id: job.parts[top?.id ?? ''] ?? '' }, { skip: !job.parts[top?.id ?? ''] });
  const after = stackAfter(job.stackBefore, layers, {
    readings: state.readings,
    choices: job.choices,
    top: named?.kind.material ?? null,
  });
  if (!machine || after === null) return null;
  const probe = machine.finding === 'inductive-probe';
  if (probe && after.some(({ slot, material }) => slot === 'top' && material === null))
    return (
      <Words bold testID="stack-sum">
        The probe senses metal, and what the new top is made of isn’t known here. Open the tool: it asks.
      </Words>
    );
  const sensed = (layer: JobLayer): FitLayer => ({
    ...layer,
    metal: metalOf(layer.material ?? materialNamed(layer.name)?.id ?? null),
  });
  // What finds Z and where home lies is known from a plan of this machine; without one it is asked, not guessed.
  const input: StackChangeInput = {
    spacerLayer: 0.2,
    family: machine.family,
    finding: { by: findingFrom(machine.finding, machine.family) === 'inductive-probe' ? 'inductive-probe' : 'fixed' },
    ...(machine.finding === 'contact-probe' ? { finding: { by: 'contact-probe' } as const } : {}),
    ...known,
    before: job.stackBefore.map(sensed),
    after: after.map(sensed),
  };
  const result = stackChange(input);
  const facts = { result, by: input.finding.by, family: machine.family, home: input.home ?? null };
  const reader = currentManner();
  return (
    <View style={{ gap: 4 }} testID="stack-sum">
      <Words size="lead" bold>{`${signedLength(result.change, 2)}. ${stackSentence(facts, reader)}`}</Words>
      {known ? null : (
        <Words size="small" tone="steel">
          Say in the tool how this machine finds Z and keep it as a plan: from then on it is known here.
        </Words>
      )}
      {result.cautions
        .filter(({ kind }) => kind === 'stop')
        .map(({ code }) => (
          <Words key={code} tone="stop">
            {stackCautionWords(code, facts, reader)}
          </Words>
        ))}
    </View>
  );
}

/** What may touch the first surface that the job names. */
function TogetherSum({ surfaceId }: { surfaceId: string | null }) {
  const { data: surface } = useSurfaceQuery({ id: surfaceId ?? '' }, { skip: surfaceId === null });
  if (!surface) return null;
  const { where } = surface.state;
  const face = surface.kind.faces[where.kind === 'machine' && where.sideUp === 'B' ? 1 : 0] ?? null;
  if (face === null)
    return (
      <Words
        bold
        testID="together-sum"
      >{`What the face of ${surface.tag} is made of isn’t known here: try a corner first.`}</Words>
    );
  return (
    <View style={{ gap: 4 }} testID="together-sum">
      <Words bold>{`${surface.tag}, ${FACE_NAMES[face].toLowerCase()}`}</Words>
      {ASKED.map((asked) => {
        const { answer, reasons } = compatibility({ face, limit: surface.kind.limit, ...asked }, surface.kind.care);
        const [thing] = Object.values(asked);
        return (
          <Words key={thing} size="small">
            {`${THING_NAMES[thing!]}: ${ANSWER_WORDS[answer].toLowerCase()} ${reasons[0]!.because}`}
          </Words>
        );
      })}
    </View>
  );
}

/** What is reached for while cleaning and preparing. */
const ASKED = [
  { solvent: 'alcohol' },
  { solvent: 'acetone' },
  { abrasive: 'scrub-pad' },
  { abrasive: 'fine-grit' },
] as const;

const work = (input: Parameters<typeof soakOf>[0]) => summer().soak(soakOf(input));

/** When the top is warm, for the machine's own stack and a common heater. */
function SoakSum({ machineId }: { machineId: string }) {
  const { data: stack } = useStackQuery({ id: machineId });
  const layers = (stack?.layers ?? []).flatMap(({ material, thickness, fixed, slot }) =>
    material && thickness > 0 && slot !== 'film' ? [{ material, thickness, dry: !fixed }] : [],
  );
  const worked = useWorked(
    layers.length === 0 ? null : { layers, flux: 4000, setpoint: 65, ambient: 22, loss: 12, within: 2 },
    work,
  );
  if (worked.kind !== 'done' || worked.result.seconds === null) return null;
  return (
    <Words bold testID="soak-sum">
      {`Set to ${temperature(65)}, the top ends at ${temperature(worked.result.steadyTop)}, about ${timeTaken(worked.result.seconds)} from cold with a common heater.`}
    </Words>
  );
}
