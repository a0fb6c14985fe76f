import type { Procedure, ProcedureStep } from '@even-bed/core/care/procedure';
import { CAUTIONS } from '@even-bed/core/care/cautions';
import { useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useJobQuery, useProcedureQuery } from './jobApi';
import { prose, proseOf } from '../ui/prose';
import { unitShown } from '../ui/typedQuantity';
import { limitWords } from './readingWords';

/** A procedure on paper: every step with its cautions, boxes to tick and lines to write on. */
export function PaperScreen() {
  const { procedure: id = '', job: jobId = '' } = useLocalSearchParams<{ procedure?: string; job?: string }>();
  const { data: record } = useProcedureQuery({ procedure: id }, { skip: id === '' });
  const { data: job } = useJobQuery({ id: jobId }, { skip: jobId === '' });
  const asKept = job?.procedure ?? record?.doc;
  const doc = useMemo(() => proseOf(asKept), [asKept]);
  if (!doc) return <Loading what="the job" />;
  return (
    <Page
      title={job ? `${doc.title}, ${job.machineName}` : doc.title}
      crumbs={[{ label: 'Jobs', href: '/jobs' }]}
      actions={
        <ActionButton label="Print" icon="print" kind="main" grow onPress={() => window.print()} testID="print-paper" />
      }
      testID="paper"
    >
      <Words>{doc.about}</Words>
      <Words
        size="small"
        tone="steel"
      >{`Tools: ${doc.tools.join(', ')}. Materials: ${doc.materials.join(', ')}.`}</Words>
      {doc.choices.map(({ id: choice, question, options }) => (
        <Words
          key={choice}
        >{`${question}: ${options.map((option) => `☐ ${option.label}${job?.choices[choice] === option.id ? ' ✓' : ''}`).join('   ')}`}</Words>
      ))}
      {doc.steps.map((step, i) => (
        <PaperStep key={step.id} number={i + 1} step={step} doc={doc} />
      ))}
    </Page>
  );
}

/** The phase of the hands before the title of a step, where the document has phases. */
const phaseOf = ({ phases = [] }: Procedure, { phase }: ProcedureStep) => {
  const own = phases.find(({ id }) => id === phase);
  return own ? `${own.title.toUpperCase()}: ` : '';
};

const optionLabel = ({ choices }: Procedure, choiceId: string, optionId: string) =>
  choices.find(({ id }) => id === choiceId)?.options.find(({ id }) => id === optionId)?.label ?? optionId;

function PaperStep({ number, step, doc }: { number: number; step: ProcedureStep; doc: Procedure }) {
  const palette = usePalette();
  const where = (to: string) => {
    const at = doc.steps.findIndex(({ id }) => id === to);
    return at >= 0 ? `step ${at + 1}` : to === 'end:done' ? 'done' : 'stop';
  };
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.hairline, paddingTop: 8, gap: 4 }}>
      <Section title={`${number}  ${phaseOf(doc, step)}${step.title.toUpperCase()}`}>
        {(step.cautions ?? []).map((id) => (
          <Words key={id} size="small" bold>{`${CAUTIONS[id].title}: ${prose(CAUTIONS[id].text)}`}</Words>
        ))}
        <Words>{step.doing}</Words>
        {step.byChoice
          ? Object.entries(step.byChoice.says).map(([option, says]) => (
              <Words key={option} size="small">{`${optionLabel(doc, step.byChoice!.choice, option)}: ${says}`}</Words>
            ))
          : null}
        {(step.gate?.checks ?? []).map((check) => (
          <Words key={check}>{`☐ ${check}`}</Words>
        ))}
        {(step.readings ?? []).map(({ id, label, unit, least, most }) => (
          <Words key={id}>{`${label}: ________ ${unitShown(unit)}${limitWords({ unit, least, most })}`}</Words>
        ))}
        {step.ask ? (
          <Words>{`${step.ask.question} ${step.ask.answers.map(({ label, to }) => `☐ ${label} → ${where(to)}`).join('   ')}`}</Words>
        ) : null}
        <Words size="small" tone="steel">
          {`${step.cant.map(({ label, to }) => `${label} → ${where(to)}`).join('; ')}${step.ask ? '' : `. Then ${where(step.next)}`}`}
        </Words>
      </Section>
    </View>
  );
}
