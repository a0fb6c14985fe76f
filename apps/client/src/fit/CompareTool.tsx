import type { ToolInputs } from '@even-bed/core';
import { HELD, LOOK_LEVELS, type Held } from '@even-bed/core/level/compareMethods';
import { alsoWords, compareWords, heldWords } from '@even-bed/words/tool';
import { Choice } from '../ui/Choice';
import { Figure } from '../ui/Figure';
import { signedLength } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { TickRow } from '../ui/TickRow';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';
import { FieldRow } from './FieldRow';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';
import { useWorked } from './useWorked';

const work = (input: ToolInputs['compare']) => summer().compare(input);

/** Two ways compared by a rule that stands before the first reading: what differs, how surely, and what was compared besides. */
export function CompareTool() {
  const tool = useToolForm('compare');
  const worked = useWorked(tool.input, work);
  const answer = worked.kind === 'done' ? worked.result : null;
  const differs = tool.form.differs as unknown as Held[];
  const also = answer ? alsoWords(answer.also) : null;
  const looks = Number(tool.form.looks) as keyof typeof LOOK_LEVELS;
  return (
    <ToolPage
      tool={tool}
      failure={worked.kind === 'failed' ? worked.message : null}
      answer={
        answer ? (
          <>
            <Words size="turn" bold live testID="compare-sentence">
              {compareWords(answer, currentManner())}
            </Words>
            {answer.difference !== null && answer.interval ? (
              <>
                <Figure
                  label="The second less the first"
                  value={signedLength(answer.difference, 3)}
                  testID="compare-difference"
                />
                <Words size="lead" testID="compare-interval">
                  {`It lies between ${signedLength(answer.interval.low, 3)} and ${signedLength(answer.interval.high, 3)}, as surely as the rule asks.`}
                </Words>
              </>
            ) : null}
            {also ? (
              <Notice kind="due" title="More than one thing differs" testID="compare-also">
                {also}
              </Notice>
            ) : null}
            {answer.wouldShow !== null ? (
              <Words testID="compare-more">{`By the scatter so far about ${answer.wouldShow} of each would show a difference that matters, four times in five.`}</Words>
            ) : null}
          </>
        ) : (
          <Words tone="steel">Being worked out…</Words>
        )
      }
    >
      <FieldRow>
        <ToolField tool={tool} path="first" label="The first" />
        <ToolField tool={tool} path="second" label="The second" />
      </FieldRow>
      <Section title="THE RULE, BEFORE THE FIRST READING">
        <FieldRow>
          <ToolField tool={tool} path="each" label="Of each until a look" />
          <ToolField tool={tool} path="matters" label="Matters from" unit="mm" />
        </FieldRow>
        <Choice
          label="Looks at most"
          options={['1', '2', '3', '4', '5'].map((value) => ({ value, label: value }))}
          value={String(tool.form.looks)}
          onChange={(value) => tool.set('looks', value)}
          testID="compare-looks"
        />
        <Words size="small" tone="steel">
          {`Looking more often finds more by chance: each look asks for a p below ${LOOK_LEVELS[looks] ?? LOOK_LEVELS[1]}, so that all of them together err once in twenty.`}
        </Words>
      </Section>
      <Section title="WHAT WAS NOT THE SAME IN BOTH">
        {HELD.map((held) => (
          <TickRow
            key={held}
            words={heldWords(held)}
            ticked={differs.includes(held)}
            onPress={() =>
              tool.set('differs', differs.includes(held) ? differs.filter((one) => one !== held) : [...differs, held])
            }
            testID={`differs-${held}`}
          />
        ))}
        <Pick
          label="It is about"
          options={[
            { value: '', label: 'A way of doing it' },
            ...HELD.map((value) => ({ value: value as string, label: heldWords(value) })),
          ]}
          value={tool.form.about as string}
          onChange={(about) => tool.set('about', about)}
          testID="compare-about"
        />
      </Section>
      {(['a', 'b'] as const).map((list) => (
        <RowList
          key={list}
          title={`READINGS OF ${(list === 'a' ? tool.form.first : tool.form.second).toUpperCase()}`}
          one="reading"
          count={tool.form[list].length}
          onAdd={() => tool.addTo(list, { reading: '' })}
          onRemove={(i) => tool.removeFrom(list, i)}
          testID={`readings-${list}`}
          render={(i) => <ToolField tool={tool} path={`${list}.${i}.reading`} label={`Reading ${i + 1}`} unit="mm" />}
        />
      ))}
    </ToolPage>
  );
}
