import { COUNTERSUNK_HEADS } from '@even-bed/core/fit/countersink';
import { topOf } from '@even-bed/core/fit/toolInputs';
import { topClearance, type StandingItem } from '@even-bed/core/fit/topClearance';
import { topCureWords } from '@even-bed/words/tool';
import { Choice } from '../ui/Choice';
import { signedLength } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { attempt } from './attempt';
import { FieldRow } from './FieldRow';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm } from './useToolForm';

const KINDS: readonly { value: StandingItem['kind']; label: string }[] = [
  { value: 'clip', label: 'Clip' },
  { value: 'screw', label: 'Screw head' },
  { value: 'tab', label: 'Tab' },
];

/** Clips, screw heads and tabs against the base, and against what passes over. */
export function TopTool() {
  const tool = useToolForm('top');
  const { answer: result, failure } = attempt(tool.input, (input) => topClearance(topOf(input)));
  const kinds = tool.form.items;
  const changeKind = (i: number, kind: StandingItem['kind']) =>
    tool.set(
      'items',
      kinds.map((item, n) =>
        n === i
          ? {
              ...item,
              kind,
              ...(kind === 'screw' ? { thread: 'M3', hole: '3.4' } : { thread: undefined, hole: undefined }),
            }
          : item,
      ),
    );
  return (
    <ToolPage
      tool={tool}
      failure={failure}
      answer={
        result ? (
          <>
            <Words size="turn" bold live testID="top-sentence">
              {result.clear
                ? 'Nothing stands proud of the base or in the way of what passes.'
                : 'Not yet: something stands in the way.'}
            </Words>
            {result.items.map((item, i) => (
              <Row
                key={i}
                lead={<Signal kind={item.verdict === 'clear' ? 'ready' : item.verdict === 'hit' ? 'stop' : 'due'} />}
                end={<Words bold>{signedLength(item.overBase, 2)}</Words>}
                testID={`top-${i}`}
              >
                <Words bold>{item.name}</Words>
                <Words size="small" tone="steel">
                  {item.verdict === 'clear'
                    ? 'below the top of the base, or beside it'
                    : item.verdict === 'hit'
                      ? `would be hit by: ${item.hitBy.join(', ')}`
                      : 'lifts the sheet'}
                </Words>
                {item.cures.map((cure) => (
                  <Words key={cure.do} size="small">
                    {topCureWords(cure, currentManner())}
                  </Words>
                ))}
              </Row>
            ))}
            {result.insulate ? (
              <Notice kind="stop" title="Insulating washers go back">
                Leaving them out from under screw heads has shorted heaters and started fires. Isolate the mains before
                touching heater wiring; that is work for a qualified person, by local rules.
              </Notice>
            ) : null}
          </>
        ) : null
      }
    >
      <Section title="LAYERS">
        <FieldRow>
          <ToolField tool={tool} path="base" label="Base with adhesive" unit="mm" />
          <ToolField tool={tool} path="sheet" label="Sheet" unit="mm" />
        </FieldRow>
        <FieldRow>
          <ToolField tool={tool} path="plate" label="Plate" unit="mm" hint="For sinking screws" />
          <ToolField tool={tool} path="travel" label="Nozzle over the sheet" unit="mm" hint="0: first layer" />
        </FieldRow>
      </Section>
      <RowList
        title="WHAT STANDS UP FROM THE PLATE"
        one="thing"
        count={kinds.length}
        least={1}
        onAdd={() => tool.addTo('items', { name: '', kind: 'clip', height: '', beside: false })}
        onRemove={(i) => tool.removeFrom('items', i)}
        testID="items"
        render={(i) => (
          <>
            <FieldRow>
              <ToolField tool={tool} path={`items.${i}.name`} label="What and where" text />
              <ToolField tool={tool} path={`items.${i}.height`} label="Above the plate" unit="mm" />
            </FieldRow>
            <Choice
              label={`Kind of thing ${i + 1}`}
              hideLabel
              options={KINDS}
              value={kinds[i]!.kind}
              onChange={(kind) => changeKind(i, kind)}
            />
            <Choice
              label={`Place of thing ${i + 1}`}
              hideLabel
              options={[
                { value: 'under', label: 'under the base' },
                { value: 'beside', label: 'beside it' },
              ]}
              value={kinds[i]!.beside ? 'beside' : 'under'}
              onChange={(place) => tool.set(`items.${i}.beside`, place === 'beside')}
            />
            {kinds[i]!.kind === 'screw' ? (
              <FieldRow>
                <Pick
                  label="Thread"
                  options={COUNTERSUNK_HEADS.map(({ thread }) => ({ value: thread, label: thread }))}
                  value={kinds[i]!.thread ?? null}
                  onChange={(thread) => tool.set(`items.${i}.thread`, thread)}
                />
                <ToolField tool={tool} path={`items.${i}.hole`} label="Hole in the plate" unit="mm" />
              </FieldRow>
            ) : null}
          </>
        )}
      />
      <RowList
        title="WHAT PASSES OVER"
        one="thing that passes"
        count={tool.form.passes.length}
        onAdd={() => tool.addTo('passes', { name: '', above: '' })}
        onRemove={(i) => tool.removeFrom('passes', i)}
        testID="passes"
        render={(i) => (
          <FieldRow>
            <ToolField tool={tool} path={`passes.${i}.name`} label="What" text />
            <ToolField tool={tool} path={`passes.${i}.above`} label="Above the nozzle tip" unit="mm" />
          </FieldRow>
        )}
      />
    </ToolPage>
  );
}
