import {
  ABRASIVES,
  compatibility,
  FACES,
  GLUES,
  PRINTED,
  SOLVENTS,
  TOOLS,
  type CompatAnswer,
} from '@even-bed/core/fit/compatibility';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal, type SignalKind } from '../ui/Signal';
import { Words } from '../ui/Words';
import { ANSWER_WORDS, FACE_NAMES, THING_NAMES } from '@even-bed/words/compat';
import { attempt } from './attempt';
import { FieldRow } from './FieldRow';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';
import { prose } from '../ui/prose';

const SIGNALS: Record<CompatAnswer, SignalKind> = { yes: 'ready', care: 'due', unknown: 'due', no: 'stop' };
const NOTHING = { value: '', label: 'Nothing' };

const ASKED = [
  { path: 'printed', label: 'Printed on it', values: PRINTED },
  { path: 'solvent', label: 'Wiped with', values: SOLVENTS },
  { path: 'abrasive', label: 'Rubbed with', values: ABRASIVES },
  { path: 'glue', label: 'Glue', values: GLUES },
  { path: 'tool', label: 'Taken off with', values: TOOLS },
] as const;

/** What goes with a face: yes, with care, or no, because. */
export function TogetherTool() {
  const tool = useToolForm('together');
  const { answer: result, failure } = attempt(tool.input, compatibility);
  const form = tool.form as Record<string, string | undefined>;
  return (
    <ToolPage
      tool={tool}
      failure={failure}
      answer={
        result ? (
          <>
            <Words size="turn" bold live testID="together-answer">
              {result.reasons.length === 0 ? 'Say what is to go with it.' : ANSWER_WORDS[result.answer]}
            </Words>
            {result.reasons.map(({ answer, because, school, about }, i) => (
              <Row key={i} lead={<Signal kind={SIGNALS[answer]} />} testID={`finding-${i}`}>
                <Words size="small" tone="steel">
                  {about
                    .map((thing) => (thing === 'heat' ? 'heat' : (THING_NAMES[form[thing] ?? ''] ?? thing)))
                    .join(' and ')}
                </Words>
                <Words>{prose(because)}</Words>
                {school ? (
                  <Words size="small" tone="steel">
                    {`Another school: ${school}`}
                  </Words>
                ) : null}
              </Row>
            ))}
            <Words size="small" tone="steel">
              Common practice. The maker of a surface, and the shop’s own list on its kind, come first.
            </Words>
          </>
        ) : null
      }
    >
      <Section title="THE FACE">
        <Pick
          label="What it is"
          options={FACES.map((face) => ({ value: face, label: FACE_NAMES[face] }))}
          value={tool.form.face}
          onChange={(face) => tool.set('face', face)}
          testID="face"
        />
        <FieldRow>
          <ToolField tool={tool} path="limit" label="Stands for hours" unit="°C" />
          <ToolField tool={tool} path="heat" label="Bed meanwhile" unit="°C" />
        </FieldRow>
      </Section>
      <Section title="WHAT GOES WITH IT">
        {ASKED.map(({ path, label, values }) => (
          <Pick
            key={path}
            label={label}
            options={[NOTHING, ...values.map((value) => ({ value: value as string, label: THING_NAMES[value]! }))]}
            value={form[path] ?? ''}
            onChange={(value) => tool.set(path, value)}
            testID={`asked-${path}`}
          />
        ))}
      </Section>
    </ToolPage>
  );
}
