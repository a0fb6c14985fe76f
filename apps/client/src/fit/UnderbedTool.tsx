import { underbedClearance } from '@even-bed/core/fit/underbedClearance';
import { underbedOf } from '@even-bed/core/fit/toolInputs';
import { WASHERS } from '@even-bed/core/fit/washers';
import { View } from 'react-native';
import { Facts } from '../ui/Facts';
import { Figure } from '../ui/Figure';
import { signedLength, size } from '../ui/formatHeight';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { attempt } from './attempt';
import { FieldRow } from './FieldRow';
import { FillFromMachine } from './FillFromMachine';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';

const VERDICTS = {
  clear: { kind: 'ready', word: 'Free, also fully compressed' },
  'touches-compressed': { kind: 'due', word: 'Touches when the springs are fully compressed' },
  touches: { kind: 'stop', word: 'Touches, and bows the bed upward' },
} as const;

/** What touches a bed from below. */
export function UnderbedTool() {
  const tool = useToolForm('underbed');
  const { answer: result, failure } = attempt(tool.input, (input) => underbedClearance(underbedOf(input)));
  const pile = result?.pile;
  return (
    <ToolPage
      tool={tool}
      failure={failure}
      answer={
        result ? (
          <>
            <Signal {...VERDICTS[result.verdict]} />
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
              <Figure
                label="Room, fully compressed"
                value={signedLength(result.compressed, 2)}
                tone={result.compressed < 0 ? 'stop' : 'ink'}
                testID="room-compressed"
              />
              <Figure
                label="Room, as it stands"
                value={signedLength(result.backedOff, 2)}
                tone={result.backedOff < 0 ? 'stop' : 'ink'}
                testID="room-backed-off"
              />
            </View>
            <Words size="turn" bold live testID="underbed-sentence">
              {result.verdict === 'clear'
                ? 'Nothing has to be done under the bed.'
                : pile
                  ? `Put ${pile.pieces.length} × ${pile.pieces[0]!.name} (${size(pile.thickness)}) under each spring.`
                  : 'No pile of these washers is enough. Take something out from under the bed, or use taller springs.'}
            </Words>
            <Facts
              rows={[
                ['Stands there', size(result.stands)],
                ['Too tall by', size(Math.max(0, result.interference))],
                ...(pile && pile.pieces.length > 0
                  ? ([['With the washers', `${size(result.withPile!)} free, fully compressed`]] as const)
                  : []),
                ...(result.travelLeft === null ? [] : ([['Travel left', size(result.travelLeft)]] as const)),
              ]}
            />
            <Words size="small" tone="steel">
              {result.reminder}
            </Words>
          </>
        ) : null
      }
    >
      <FillFromMachine
        ready={tool.ready}
        onFill={({ adjusters: [first] }) => {
          if (!first) return;
          tool.set('pitch', String(first.pitch));
          if (WASHERS.some(({ thread }) => thread === first.thread)) tool.set('screw', first.thread);
        }}
      />
      <RowList
        title="WHAT STANDS UNDER THERE, ONE OVER THE OTHER"
        one="part"
        count={tool.form.parts.length}
        onAdd={() => tool.addTo('parts', { name: '', height: '' })}
        onRemove={(i) => tool.removeFrom('parts', i)}
        testID="parts"
        render={(i) => (
          <FieldRow>
            <ToolField tool={tool} path={`parts.${i}.name`} label="Part" text />
            <ToolField tool={tool} path={`parts.${i}.height`} label="Height" unit="mm" />
          </FieldRow>
        )}
      />
      <Section title="THE SPRINGS">
        <FieldRow>
          <ToolField tool={tool} path="springCompressed" label="Fully compressed" unit="mm" />
          <ToolField tool={tool} path="washers" label="Washers there" unit="mm" />
        </FieldRow>
        <Pick
          label="Screw through the spring"
          options={WASHERS.map(({ thread, thickness }) => ({
            value: thread,
            label: `${thread}, washer ${size(thickness)}`,
          }))}
          value={tool.form.screw}
          onChange={(screw) => tool.set('screw', screw)}
          testID="screw"
        />
        <FieldRow>
          <ToolField tool={tool} path="backOff" label="Turns back from compressed" />
          <ToolField tool={tool} path="pitch" label="Pitch" unit="mm" />
        </FieldRow>
        <ToolField tool={tool} path="travel" label="Travel until the nut comes off" unit="mm" />
      </Section>
    </ToolPage>
  );
}
