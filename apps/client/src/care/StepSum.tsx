import type { MachineOverview } from '@even-bed/contract';
import {
  jobAsk,
  lightOf,
  reachedFor,
  verdictOf,
  type JobAsk,
  type JobFacts,
  type JobSumGap,
} from '@even-bed/core/care/jobSum';
import type { ProcedureStep } from '@even-bed/core/care/procedure';
import type { RunSetup, RunState } from '@even-bed/core/care/runProcedure';
import { stackChange } from '@even-bed/core/fit/stackChange';
import { toolAnswer } from '@even-bed/core/fit/toolAnswer';
import { soakOf, topOf, type ToolInputs } from '@even-bed/core/fit/toolInputs';
import { topClearance } from '@even-bed/core/fit/topClearance';
import { ANSWER_WORDS, FACE_NAMES, THING_NAMES } from '@even-bed/words/compat';
import { stackCautionWords } from '@even-bed/words/stack';
import { toolSentence, topCureWords } from '@even-bed/words/tool';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { unlessRefused } from '../fit/attempt';
import { FINDING_CHOICES } from '../fit/findingOf';
import { toolName } from '../fit/toolNames';
import { FINDING_NAMES } from '../fleet/findingNames';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useBeginCheck } from '../level/useBeginCheck';
import { useWorked } from '../fit/useWorked';
import { handStrips } from '../level/handStrips';
import { surveyNoise } from '@even-bed/core/level/lightSurvey';
import { lightWords } from '@even-bed/words/shape';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { length } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';

interface Props {
  step: ProcedureStep;
  machineId: string;
  jobId: string;
  setup: RunSetup;
  /** The run with what is typed so far. */
  ahead: RunState;
  facts: JobFacts | null;
}

/** What stands in the way of a sum, in words. */
const GAPS: Record<Exclude<JobSumGap, 'finding-differs'>, string> = {
  reading: 'It is worked out as soon as what is asked here is typed.',
  'top-material': 'The probe senses metal, and what the new top is made of isn’t known here. Open the tool: it asks.',
  part: 'It would go by a surface that isn’t followed in this job.',
  size: 'Its size isn’t written down yet. Open the tool, or lay it on and look.',
  face: 'What its face is made of isn’t known here: try a corner first.',
};

/** What a step's sum says, worked out from the records and from what is typed on the card; with the way to its tool. */
export function StepSum({ step, machineId, jobId, setup, ahead, facts }: Props) {
  const router = useRouter();
  if (!step.sum || !facts) return null;
  if (step.sum === 'level') return <LevelPart machineId={machineId} jobId={jobId} level={facts.level} />;
  if (step.sum === 'light') return <LightPart step={step} ahead={ahead} facts={facts} machineId={machineId} />;
  if (step.sum === 'strips') return <StripsPart step={step} ahead={ahead} facts={facts} machineId={machineId} />;
  // What was pulled, and pieces that were looked at, say what they say at their own plan.
  if (step.sum === 'tugs' || step.sum === 'pieces' || step.sum === 'lap') return null;
  if (step.sum === 'skirt')
    return (
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Side by side, with the turns"
          icon="measure"
          onPress={() => router.push(`/tools/skirt?machine=${machineId}`)}
          testID="sum-skirt"
        />
        <ActionButton
          label="First layer against the map"
          kind="quiet"
          onPress={() => router.push(`/tools/layer?machine=${machineId}`)}
          testID="sum-layer"
        />
      </View>
    );
  const ask = jobAsk(setup, ahead, step, facts);
  if (!ask) return null;
  return (
    <Section title={toolName(ask.tool).name.toUpperCase()} testID="step-sum">
      <Answer ask={ask} step={step} setup={setup} ahead={ahead} facts={facts} machineId={machineId} />
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Open the tool"
          icon="measure"
          kind="quiet"
          onPress={() => router.push(`/tools/${ask.tool}?machine=${machineId}` as never)}
          testID="open-sum"
        />
      </View>
    </Section>
  );
}

interface SurveyProps {
  step: ProcedureStep;
  ahead: RunState;
  facts: JobFacts;
  machineId: string;
}

/** What the lines say together, and how far they can be trusted. */
function LightPart({ step, ahead, facts, machineId }: SurveyProps) {
  const router = useRouter();
  const survey = lightOf(ahead, step, facts);
  const said = survey && lightWords({ ...survey, closure: survey.closure.most }, currentManner());
  return (
    <View style={{ gap: 4 }}>
      {said ? (
        <>
          <Words size="lead" bold live testID="light-sum">
            {said.verdict}
          </Words>
          <Words size="small" tone="steel" testID="light-sum-trust">
            {said.trust}
          </Words>
        </>
      ) : null}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Slide along the lines instead"
          kind="quiet"
          onPress={() => router.push(`/tools/light?machine=${machineId}`)}
          testID="sum-slide"
        />
      </View>
    </View>
  );
}

/** The way to the strips, with the survey of this job handed over. */
function StripsPart({ step, ahead, facts, machineId }: SurveyProps) {
  const router = useRouter();
  const survey = lightOf(ahead, step, facts);
  if (!survey) return null;
  const { points: map, resolution } = survey;
  return (
    <View style={{ alignSelf: 'flex-start' }}>
      <ActionButton
        label="Plan the strips"
        icon="measure"
        onPress={() =>
          void handStrips(machineId, {
            map,
            noise: surveyNoise(resolution),
            plate: facts.plate,
            from: 'light',
          }).then(() => router.push(`/tools/strips?machine=${machineId}`))
        }
        testID="sum-strips"
      />
    </View>
  );
}

/** The level check that belongs to a job: begun from here, and how it ended. */
function LevelPart({ machineId, jobId, level }: { machineId: string; jobId: string; level: JobFacts['level'] }) {
  const { data: machines = [] } = useMachinesQuery();
  const machine = machines.find(({ id }) => id === machineId);
  return (
    <View style={{ gap: 8, alignItems: 'flex-start' }} testID="step-sum">
      {level ? (
        <Words size="lead" bold testID="level-sum">
          {`${length(level.range, 2)} from highest to lowest, ${level.within ? 'within the aim' : 'not within the aim'}.`}
        </Words>
      ) : null}
      {machine ? <LevelButton machine={machine} jobId={jobId} again={level !== null} /> : null}
    </View>
  );
}

function LevelButton({ machine, jobId, again }: { machine: MachineOverview; jobId: string; again: boolean }) {
  const { begin } = useBeginCheck(machine);
  return (
    <ActionButton
      label={again ? 'Check it again' : 'Begin the level check'}
      icon="measure"
      onPress={() => begin(jobId)}
      testID="sum-level"
    />
  );
}

/** The machine's page and the plan of its stack disagree: what each says, and the way to either. */
function FindingDiffers({ machineId, facts }: { machineId: string; facts: JobFacts }) {
  const router = useRouter();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const planned = FINDING_CHOICES.find(({ value }) => value === facts.z?.finding.by)?.label ?? '';
  return (
    <View style={{ gap: 8 }} testID="finding-differs">
      <Words bold>Two records disagree on how this machine finds Z.</Words>
      <Words>{`Its page says: ${FINDING_NAMES[facts.finding].toLowerCase()}. Its last plan of a stack says: ${planned.toLowerCase()}.`}</Words>
      <Words tone="steel">
        Look at the machine, then correct the record that is wrong. This step then calculates the stack.
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton
          label={isLead ? 'Edit the machine' : 'Open the machine'}
          onPress={() => router.push(isLead ? `/floor/${machineId}/edit` : `/floor/${machineId}`)}
          testID="differs-page"
        />
        <ActionButton
          label="Make a new plan"
          onPress={() => router.push(`/tools/stack?machine=${machineId}`)}
          testID="differs-plan"
        />
      </View>
    </View>
  );
}

function Answer({
  ask,
  step,
  setup,
  ahead,
  facts,
  machineId,
}: { ask: JobAsk } & Omit<Props, 'jobId' | 'facts'> & { facts: JobFacts }) {
  if (ask.input === null)
    return ask.missing === 'finding-differs' ? (
      <FindingDiffers machineId={machineId} facts={facts} />
    ) : (
      <Words tone="steel" testID="sum-gap">
        {GAPS[ask.missing]}
      </Words>
    );
  switch (ask.tool) {
    case 'soak':
      return <SoakAnswer input={ask.input} />;
    case 'together': {
      const part = facts.parts[step.about ?? setup.procedure.parts[0]?.id ?? ''];
      return part ? <TogetherAnswer part={part} setup={setup} step={step} /> : null;
    }
    default:
      return <Sentence ask={ask} stop={verdictOf(setup, ahead, step, facts) === 'stop'} />;
  }
}

function Sentence({ ask, stop }: { ask: JobAsk & { input: object }; stop: boolean }) {
  const reader = currentManner();
  const said = sentenceOf(ask);
  if (said === null) return <Words tone="steel">With what is typed here it can’t be worked out.</Words>;
  return (
    <View style={{ gap: 4 }}>
      <Words size="lead" bold tone={stop ? 'stop' : 'ink'} live testID={`${ask.tool}-sum`}>
        {said}
      </Words>
      {ask.tool === 'stack' ? <StackCautions input={ask.input as ToolInputs['stack']} /> : null}
      {ask.tool === 'top'
        ? topClearance(topOf(ask.input as ToolInputs['top'])).items.flatMap(({ name, cures }) =>
            cures.map((cure, i) => <Words key={`${name} ${i}`}>{topCureWords(cure, reader)}</Words>),
          )
        : null}
    </View>
  );
}

function StackCautions({ input }: { input: ToolInputs['stack'] }) {
  const reader = currentManner();
  const result = stackChange(input);
  const facts = { result, by: input.finding.by, family: input.family, home: input.home };
  return (
    <>
      {result.verdict === 'ask' ? (
        <Words size="small" tone="steel">
          Say in the tool how this machine finds Z and keep it as a plan: from then on it is known here.
        </Words>
      ) : null}
      {result.cautions
        .filter(({ kind }) => kind === 'stop')
        .map(({ code }) => (
          <Words key={code} tone="stop">
            {stackCautionWords(code, facts, reader)}
          </Words>
        ))}
    </>
  );
}

/** A sum in one sentence, in the reader's units; null where what was typed can't be reckoned with. */
export function sentenceOf(ask: JobAsk): string | null {
  if (ask.input === null || ask.tool === 'soak' || ask.tool === 'together') return null;
  return unlessRefused(() =>
    toolSentence(ask.tool, toolAnswer(ask.tool, ask.input as never) as never, currentManner()),
  );
}

function TogetherAnswer({
  part,
  setup,
  step,
}: { part: NonNullable<JobFacts['parts'][string]> } & Pick<Props, 'setup' | 'step'>) {
  return (
    <View style={{ gap: 4 }} testID="together-sum">
      <Words bold>{`${part.tag}, ${FACE_NAMES[part.face!].toLowerCase()}`}</Words>
      {reachedFor(part, { setup, step }).map(({ asked, answer, reasons }) => {
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

const work = (input: Parameters<typeof soakOf>[0]) => summer().soak(soakOf(input));

/** When the top is warm, for the machine's own stack and a common heater; off the thread that draws. */
function SoakAnswer({ input }: { input: ToolInputs['soak'] }) {
  const worked = useWorked(input, work);
  if (worked.kind !== 'done') return null;
  const { seconds, steadyTop, holdsSetpoint } = worked.result;
  const answer = { seconds, steadyTop, holdsSetpoint, setpoint: input.setpoint, within: input.within };
  return (
    <Words bold testID="soak-sum">
      {toolSentence('soak', answer, currentManner())}
    </Words>
  );
}
