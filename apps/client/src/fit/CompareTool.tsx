import type { ToolInputs } from '@even-bed/core';
import { COMPARE_READS, HELD, LOOK_LEVELS, type CompareReads, type Held } from '@even-bed/core/level/compareMethods';
import { alsoWords, apartWords, compareWords, heldWords } from '@even-bed/words/tool';
import { Choice } from '../ui/Choice';
import { Figure } from '../ui/Figure';
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
import { shortDecimal } from '../ui/formatHeight';

const READS: Record<CompareReads, { name: string; each: string; unit: string }> = {
  length: { name: 'a length', each: 'Of each until a look', unit: 'mm' },
  time: { name: 'a time', each: 'Of each until a look', unit: 'min' },
  held: { name: 'held or not', each: 'Tries of each until a look', unit: 'points' },
};
/** What is more is marked, so that nobody reads a difference the wrong way round. */
const signed = (difference: number, reads: CompareReads) =>
  `${difference > 0 ? '+' : ''}${apartWords(difference, reads, currentManner())}`;

const work = (input: ToolInputs['compare']) => summer().compare(input);

/** Two ways compared by a rule that stands before the first reading: what differs, how surely, and what was compared besides. */
export function CompareTool() {
  const tool = useToolForm('compare');
  const worked = useWorked(tool.input, work);
  const answer = worked.kind === 'done' ? worked.result : null;
  const differs = tool.form.differs as unknown as Held[];
  const also = answer ? alsoWords(answer.also) : null;
  const reads = (tool.form.reads as CompareReads | undefined) ?? 'length';
  const looks = Number(tool.form.looks) as keyof typeof LOOK_LEVELS;
  return (
    <ToolPage
      tool={tool}
      failure={worked.kind === 'failed' ? worked.message : null}
      working={worked.kind === 'busy'}
      answer={
        answer ? (
          <>
            <Words size="turn" bold live testID="compare-sentence">
              {compareWords(answer, currentManner())}
            </Words>
            {answer.difference !== null && answer.interval ? (
              <>
                <Figure
                  label={
                    answer.reads === 'held' ? 'The second less the first, of a hundred' : 'The second less the first'
                  }
                  value={signed(answer.difference, answer.reads)}
                  testID="compare-difference"
                />
                <Words size="lead" testID="compare-interval">
                  {`It lies between ${signed(answer.interval.low, answer.reads)} and ${signed(answer.interval.high, answer.reads)}, as surely as the rule asks.`}
                </Words>
              </>
            ) : null}
            {also ? (
              <Notice kind="due" title="More than one thing differs" testID="compare-also">
                {also}
              </Notice>
            ) : null}
            {answer.wouldShow !== null ? (
              <Words testID="compare-more">{`By what was read so far about ${answer.wouldShow} of each would show a difference that matters, four times in five.`}</Words>
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
      <Choice
        label="What is read of each"
        options={COMPARE_READS.map((value) => ({ value, label: READS[value].name }))}
        value={reads}
        onChange={(value) => tool.set('reads', value)}
        testID="compare-reads"
      />
      <Section title="THE RULE, BEFORE THE FIRST READING">
        <FieldRow>
          <ToolField tool={tool} path="each" label={READS[reads].each} />
          <ToolField tool={tool} path="matters" label="Matters from" unit={READS[reads].unit} />
        </FieldRow>
        <Choice
          label="Looks at most"
          options={['1', '2', '3', '4', '5'].map((value) => ({ value, label: value }))}
          value={String(tool.form.looks)}
          onChange={(value) => tool.set('looks', value)}
          testID="compare-looks"
        />
        <Words size="small" tone="steel">
          {`Looking more often finds more by chance: each look asks for a p below ${shortDecimal(LOOK_LEVELS[looks] ?? LOOK_LEVELS[1]!, 4)}, so that all of them together err once in twenty.`}
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
      {(['a', 'b'] as const).map((list) => {
        const of = `OF ${(list === 'a' ? tool.form.first : tool.form.second).toUpperCase()}`;
        const held = list === 'a' ? 'heldA' : 'heldB';
        return reads === 'held' ? (
          <RowList
            key={held}
            title={`HELD, ${of}`}
            one="count"
            count={tool.count(held)}
            onAdd={() => tool.addTo(held, { held: '', of: '' })}
            onRemove={(i) => tool.removeFrom(held, i)}
            testID={`readings-${held}`}
            render={(i) => (
              <FieldRow>
                <ToolField tool={tool} path={`${held}.${i}.held`} label="Held" />
                <ToolField tool={tool} path={`${held}.${i}.of`} label="Of so many" />
              </FieldRow>
            )}
          />
        ) : (
          <RowList
            key={list}
            title={`READINGS ${of}`}
            one="reading"
            count={tool.count(list)}
            onAdd={() => tool.addTo(list, { reading: '' })}
            onRemove={(i) => tool.removeFrom(list, i)}
            testID={`readings-${list}`}
            render={(i) => (
              <ToolField
                tool={tool}
                path={`${list}.${i}.reading`}
                label={`Reading ${i + 1}`}
                unit={READS[reads].unit}
              />
            )}
          />
        );
      })}
    </ToolPage>
  );
}
