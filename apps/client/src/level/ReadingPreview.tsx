import type { Extent, MatrixNeed, ParseOptions, Reckoning } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { useState } from 'react';
import { View } from 'react-native';
import { useChangeMachine } from '../fleet/useChangeMachine';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { BedPlan } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Figure } from '../ui/Figure';
import { lengthFigure, lengthUnit } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { entryChanged, type CheckDraft } from './levelSlice';
import { ReadingQuestions } from './ReadingQuestions';
import { SettleSign } from './SettleSign';
import type { ReckoningState } from './useReckoning';

const MOST_WARNINGS = 4;
const NEEDS: Record<MatrixNeed, string> = {
  extent: 'the four places of its outermost readings',
  firstRow: 'where its first row lies',
};

/** What was understood of the heights, what is still to be said, and what is doubtful. */
export function ReadingPreview({ draft, state }: { draft: CheckDraft; state: ReckoningState }) {
  const dispatch = useAppDispatch();
  const { id, entry } = draft;
  const [asked, setAsked] = useState(false);
  const setReading = (reading: ParseOptions) => dispatch(entryChanged({ id, change: { reading } }));
  if (state.kind === 'none') return null;
  if (state.kind === 'busy') return <Words tone="steel">Reading …</Words>;
  if (state.kind === 'failed') {
    return (
      <Notice kind="stop" title="No heights yet" testID="reading-failed">
        {state.message}
      </Notice>
    );
  }
  const { parsed, plan, contours, doubts, ways } = state.reckoning;
  return (
    <View style={{ gap: 16 }} testID="reading-preview">
      {parsed.matrix && (parsed.needs.length > 0 || entry.reading.extent || entry.reading.firstRow) ? (
        <Placement draft={draft} matrix={parsed.matrix} onChange={setReading} />
      ) : null}
      {parsed.needs.length > 0 ? (
        <Words bold testID="still-to-say">
          {`Still to say: ${parsed.needs.map((need) => NEEDS[need]).join(' and ')}.`}
        </Words>
      ) : null}
      {plan ? (
        <>
          <View style={{ flexDirection: 'row', gap: 28, flexWrap: 'wrap' }}>
            <Figure label="Readings" value={String(parsed.points.length)} testID="preview-count" />
            <Figure label="Range" value={lengthFigure(plan.before.range)} unit={lengthUnit()} testID="preview-range" />
            {parsed.unreached > 0 ? <Figure label="Not reached" value={String(parsed.unreached)} /> : null}
          </View>
          <BedPlan
            plate={draft.plate}
            points={parsed.points}
            contours={contours}
            aim={draft.setup.aim}
            maxHeight={260}
            label="The heights as they were read"
          />
        </>
      ) : null}
      {entry.way === 'typed' || entry.way === 'felt' ? null : (
        <>
          <Choice
            label="+ in these heights means"
            options={[
              { value: 'higher', label: 'Higher, nearer the nozzle' },
              { value: 'lower', label: 'Lower' },
            ]}
            value={entry.reading.plus ?? 'higher'}
            onChange={(plus) => setReading({ ...entry.reading, plus })}
            testID="plus"
          />
          {plan ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton label="Not sure: settle it" kind="quiet" onPress={() => setAsked(true)} testID="settle" />
            </View>
          ) : null}
          {asked && plan ? (
            <SettleSign
              points={parsed.points}
              plus={entry.reading.plus ?? 'higher'}
              onSettled={(plus) => setReading({ ...entry.reading, plus })}
              onClose={() => setAsked(false)}
            />
          ) : null}
        </>
      )}
      <ReadingQuestions draft={draft} parsed={parsed} ways={ways} onChange={setReading} />
      <Warnings parsed={parsed} doubts={doubts} />
    </View>
  );
}

function Warnings({ parsed, doubts }: { parsed: Reckoning['parsed']; doubts: string[] }) {
  const shown = parsed.warnings.slice(0, MOST_WARNINGS);
  if (shown.length + doubts.length === 0) return null;
  return (
    <Notice kind="due" title="Look at this before you go on" testID="reading-warnings">
      {doubts.map((doubt) => (
        <Words key={doubt}>{doubt}</Words>
      ))}
      {shown.map(({ line, message }) => (
        <Words key={`${line} ${message}`} size="small">
          {line > 0 ? `Line ${line}: ${message}` : message}
        </Words>
      ))}
      {parsed.warnings.length > shown.length ? (
        <Words size="small">{`and ${parsed.warnings.length - shown.length} more lines`}</Words>
      ) : null}
    </Notice>
  );
}

/** Asks where a bare height map lies: the places of its outermost readings, and its first row. */
function Placement({
  draft,
  matrix,
  onChange,
}: {
  draft: CheckDraft;
  matrix: { rows: number; columns: number };
  onChange: (reading: ParseOptions) => void;
}) {
  const { reading } = draft.entry;
  const [typed, setTyped] = useState(() => textOf(reading.extent));
  const change = (key: keyof Extent, text: string) => {
    const next = { ...typed, [key]: text };
    setTyped(next);
    const extent = extentOfText(next);
    const { extent: _, ...rest } = reading;
    onChange(extent ? { ...rest, extent } : rest);
  };
  const field = (key: keyof Extent, label: string) => (
    <Field
      label={label}
      unit="mm"
      keyboard="decimal"
      value={typed[key]}
      onChange={(text) => change(key, text)}
      error={faultOf(typed, key)}
      testID={`extent-${key}`}
    />
  );
  return (
    <Section title={`A MAP OF ${matrix.columns} × ${matrix.rows} READINGS: WHERE DOES IT LIE?`} testID="placement">
      <Choice
        label="Its first row, as printed, lies"
        options={[
          { value: 'front', label: 'At the front' },
          { value: 'rear', label: 'At the rear' },
        ]}
        value={reading.firstRow ?? null}
        onChange={(firstRow) => onChange({ ...reading, firstRow })}
        testID="first-row"
      />
      <View style={{ flexDirection: 'row', gap: 12 }}>
        {field('x0', 'First x')}
        {field('x1', 'Last x')}
      </View>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        {field('y0', 'First y')}
        {field('y1', 'Last y')}
      </View>
      <Words size="small" tone="steel">
        The outermost readings, from the front-left corner of the print area.
      </Words>
      <Remember draft={draft} />
    </Section>
  );
}

/** Writes where this machine's maps lie on its page, so that nobody is asked again. */
function Remember({ draft }: { draft: CheckDraft }) {
  const { machine, change, busy } = useChangeMachine(draft.machineId);
  const [problem, setProblem] = useState<string | null>(null);
  const { extent, firstRow } = draft.entry.reading;
  if (!machine || !extent || !firstRow) return null;
  const known = JSON.stringify([machine.mapExtent, machine.mapFirstRow]) === JSON.stringify([extent, firstRow]);
  if (known) return <Words size="small" tone="steel" testID="map-known">{`Written down for ${machine.name}.`}</Words>;
  return (
    <View style={{ alignSelf: 'flex-start', gap: 4 }}>
      <ActionButton
        label={`Remember this for ${machine.name}`}
        busy={busy}
        onPress={() => void change({ mapExtent: extent, mapFirstRow: firstRow }).then(setProblem)}
        testID="remember-map"
      />
      {problem ? <Words tone="stop">{problem}</Words> : null}
    </View>
  );
}

type ExtentText = Record<keyof Extent, string>;
const textOf = (extent: Extent | undefined): ExtentText => ({
  x0: extent ? String(extent.x0) : '',
  y0: extent ? String(extent.y0) : '',
  x1: extent ? String(extent.x1) : '',
  y1: extent ? String(extent.y1) : '',
});

function extentOfText(text: ExtentText): Extent | null {
  const [x0, y0, x1, y1] = [text.x0, text.y0, text.x1, text.y1].map((value) => readLength(value));
  if (x0 == null || y0 == null || x1 == null || y1 == null || !(x1 > x0) || !(y1 > y0)) return null;
  return { x0, y0, x1, y1 };
}

function faultOf(text: ExtentText, key: keyof Extent): string | undefined {
  const value = readLength(text[key]);
  if (text[key].trim() === '') return undefined;
  if (value === null) return 'Not a length';
  const first = readLength(text[key === 'x1' ? 'x0' : 'y0']);
  if ((key === 'x1' || key === 'y1') && first !== null && value <= first) return 'Must lie beyond the first';
  return undefined;
}
