import { RESIN_WAYS, type ResinWay } from '@even-bed/core/level/gapBudget';
import { toolAnswer } from '@even-bed/core/fit/toolAnswer';
import { expectWords, footWords, jogWords } from '@even-bed/words/tool';
import { View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Figure } from '../ui/Figure';
import { length, signedLength, size } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { attempt } from './attempt';
import { FieldRow } from './FieldRow';
import { FillFromMachine } from './FillFromMachine';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';

const WAYS: Record<ResinWay, string> = {
  quarters: 'four quarter sheets',
  sheet: 'one sheet',
  film: 'on the film',
  lock: 'first-layer lock',
};

const KNOWS: Record<'gauge' | 'film', string> = {
  gauge: 'Ten sheets between the calipers would tell.',
  film: 'The film’s thickness by calipers or its label would tell.',
};

/** Where the first layer of a resin print will stand, what it will do, and what zero wants. */
export function GapTool() {
  const tool = useToolForm('gap');
  const { input } = tool;
  const { answer, failure } = attempt(input, (asked) => toolAnswer('gap', asked));
  const onSheets = tool.form.way === 'quarters' || tool.form.way === 'sheet';
  return (
    <ToolPage
      tool={tool}
      failure={failure}
      answer={
        answer ? (
          <>
            <Words size="turn" bold live testID="gap-sentence">
              {`${expectWords(answer.expect)[0]!.toUpperCase()}${expectWords(answer.expect).slice(1)}.`}
            </Words>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
              <Figure label="First gap" value={length(answer.gap, 3)} testID="gap-value" />
              <Figure label="Give or take" value={length(answer.sd, 3)} testID="gap-sd" />
              <Figure label="Zero, + up" value={signedLength(answer.jog, 2)} testID="gap-jog" />
            </View>
            <Words bold testID="gap-do">
              {answer.foot ? footWords(answer.foot, currentManner()) : jogWords(answer.jog, currentManner())}
            </Words>
            {answer.measure ? <Words>{KNOWS[answer.measure]}</Words> : null}
            {answer.expect === 'presses' ? (
              <Notice kind="stop" title="It would press the film before its first layer">
                Raise zero before anything is printed: what presses dents the film, and the screen behind it.
              </Notice>
            ) : null}
            <Words size="small" tone="steel">
              {`Jog by ${size(0.01)}: ${size(0.1)} is four times what lies between two papers. This moves zero, never home.`}
            </Words>
          </>
        ) : null
      }
    >
      <FillFromMachine
        ready={tool.ready}
        onFill={(_, stack) => {
          const film = stack.layers.find(({ slot }) => slot === 'film');
          if (film && film.thickness > 0) {
            tool.set('film', String(film.thickness));
          }
        }}
      />
      <Choice
        label="Levelled"
        narrow
        options={RESIN_WAYS.map((value) => ({ value, label: WAYS[value] }))}
        value={tool.form.way}
        onChange={(way) => tool.set('way', way)}
        testID="gap-way"
      />
      {onSheets ? (
        <ToolField
          tool={tool}
          path="ten"
          label="Ten sheets together"
          unit="mm"
          hint={`May be left out: then a sheet is about ${length(0.1)}, known to a fifth.`}
        />
      ) : null}
      <FieldRow>
        <ToolField tool={tool} path="film" label="Film" unit="mm" />
        <ToolField tool={tool} path="firstLayer" label="First layer" unit="mm" />
      </FieldRow>
      <Choice
        label="The film’s thickness"
        options={[
          { value: 'label', label: 'from its label' },
          { value: 'measured', label: 'measured' },
        ]}
        value={tool.form.filmMeasured ? 'measured' : 'label'}
        onChange={(value) => tool.set('filmMeasured', value === 'measured')}
        testID="gap-film-known"
      />
      <ToolField tool={tool} path="raise" label="Raised before zero was set" unit="mm" />
      <Section title="BY PIECES THAT WERE PRINTED">
        <Words size="small" tone="steel">
          The same small piece flat on the platform and on supports, where nothing squeezes it: heights by calipers.
        </Words>
        {(['flat', 'control'] as const).map((list) => (
          <RowList
            key={list}
            title={list === 'flat' ? 'FLAT ON THE PLATFORM' : 'ON SUPPORTS, AS CONTROL'}
            one="piece"
            count={tool.form[list].length}
            onAdd={() => tool.addTo(list, { height: '' })}
            onRemove={(i) => tool.removeFrom(list, i)}
            testID={list}
            render={(i) => <ToolField tool={tool} path={`${list}.${i}.height`} label="Height" unit="mm" />}
          />
        ))}
      </Section>
    </ToolPage>
  );
}
