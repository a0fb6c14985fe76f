import { blankCaution, type CutMethod } from '@even-bed/core/fit/blankCaution';
import type { Paper } from '@even-bed/contract';
import type { BlankPlan, Cut } from '@even-bed/core';
import { blankOutline } from '@even-bed/core/fit/blankOutline';
import { blanksOf } from '@even-bed/core/fit/toolInputs';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { isAnswer } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Facts } from '../ui/Facts';
import { area, decimal, shortDecimal, size } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { SheetDrawing, type DrawnShape } from '../ui/SheetDrawing';
import { Words } from '../ui/Words';
import { summer } from '../workers/summer';
import { FieldRow } from './FieldRow';
import { RowList } from './RowList';
import { saveFile } from './saveFile';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm, type ToolForm } from './useToolForm';
import { useWorked } from './useWorked';
import { currentManner } from '../ui/manner';

const work = (input: Parameters<typeof blanksOf>[0]) => summer().blanks(blanksOf(input));

/** How many pieces a sheet gives, and which cut comes first. */
export function BlanksTool() {
  const tool = useToolForm('blanks');
  const worked = useWorked(tool.input, work);
  const plan = worked.kind === 'done' ? worked.result : null;
  return (
    <ToolPage
      tool={tool}
      failure={worked.kind === 'failed' ? worked.message : null}
      working={worked.kind === 'busy'}
      answer={plan && tool.input ? <Answer plan={plan} tool={tool} /> : <Words tone="steel">Being worked out…</Words>}
    >
      <Section title="THE SHEET">
        <FieldRow>
          <ToolField
            tool={tool}
            path="sheet.width"
            label="Width"
            unit="mm"
            {...(currentManner().units === 'in' ? {} : { hint: 'Or 12 in, 5 1/4 in' })}
          />
          <ToolField tool={tool} path="sheet.depth" label="Depth" unit="mm" />
        </FieldRow>
        <FieldRow>
          <ToolField tool={tool} path="sheets" label="Sheets on hand" />
          <ToolField tool={tool} path="price" label="Price of a sheet" />
        </FieldRow>
      </Section>
      <Section title="THE CUT">
        <Choice
          label="How it is cut"
          hideLabel
          options={[
            { value: 'snap', label: 'Scored and snapped' },
            { value: 'saw', label: 'Sawn' },
          ]}
          value={tool.form.method}
          onChange={(method) => tool.set('method', method)}
          testID="method"
        />
        <FieldRow>
          {tool.form.method === 'saw' ? (
            <ToolField tool={tool} path="kerf" label="Kerf" unit="mm" hint={`A hacksaw eats about ${size(1)}`} />
          ) : null}
          <ToolField tool={tool} path="trim" label="Trim off each edge" unit="mm" hint="The cut counted in" />
        </FieldRow>
        <Choice
          label="Pieces may lie turned"
          options={[
            { value: 'yes', label: 'Either way round' },
            { value: 'no', label: 'All the same way' },
          ]}
          value={tool.form.mayRotate ? 'yes' : 'no'}
          onChange={(may) => tool.set('mayRotate', may === 'yes')}
          testID="may-rotate"
        />
      </Section>
      <RowList
        title="THE PIECES"
        one="size"
        count={tool.form.pieces.length}
        least={1}
        onAdd={() => tool.addTo('pieces', { name: '', width: '', depth: '', count: '1', corners: '0' })}
        onRemove={(i) => tool.removeFrom('pieces', i)}
        testID="pieces"
        render={(i) => (
          <>
            <FieldRow>
              <ToolField tool={tool} path={`pieces.${i}.width`} label="Width" unit="mm" />
              <ToolField tool={tool} path={`pieces.${i}.depth`} label="Depth" unit="mm" />
            </FieldRow>
            <FieldRow>
              <ToolField
                tool={tool}
                path={`pieces.${i}.count`}
                label="How many"
                {...(tool.form.pieces.length === 1 ? { hint: 'Empty: all there are' } : {})}
              />
              <ToolField tool={tool} path={`pieces.${i}.corners`} label="Corners knocked off" unit="mm" />
            </FieldRow>
          </>
        )}
      />
    </ToolPage>
  );
}

function Answer({ plan, tool }: { plan: BlankPlan; tool: ToolForm<'blanks'> }) {
  const [shown, setShown] = useState(0);
  const at = Math.min(shown, plan.layouts.length - 1);
  const layout = plan.layouts[at]!;
  const saw = tool.input!.method === 'saw';
  const sheets = `${plan.sheets} ${plan.sheets === 1 ? 'sheet' : 'sheets'}`;
  const headline =
    plan.perSheet === null
      ? `${plan.pieces} pieces from ${sheets}`
      : plan.sheets === 1
        ? `${plan.perSheet} from the sheet`
        : `${plan.pieces} from ${sheets}, ${plan.perSheet} from each`;
  return (
    <>
      <Words size="turn" bold live testID="blanks-sentence">
        {headline}
      </Words>
      <Words tone="steel">{boundWords(plan)}</Words>
      {plan.layouts.length > 1 ? (
        <Choice
          label="Sheet shown"
          hideLabel
          options={plan.layouts.map((_, i) => ({ value: String(i), label: `Sheet ${i + 1}` }))}
          value={String(at)}
          onChange={(i) => setShown(Number(i))}
          testID="layout"
        />
      ) : null}
      <SheetDrawing
        width={plan.sheet.width}
        depth={plan.sheet.depth}
        shapes={shapesOf(plan, at)}
        label={`Layout of ${layout.pieces.length} pieces on a sheet of ${area(plan.sheet.width, plan.sheet.depth)}`}
        testID="blanks-drawing"
      />
      <Facts
        rows={[
          ['By area alone', areaWords(plan)],
          ['Waste', `${Math.round(plan.waste * 100)} %${saw && plan.kerf > 0 ? ', kerf counted in' : ''}`],
          ...(plan.costPerPiece === null ? [] : ([['Cost', `${decimal(plan.costPerPiece, 2)} a piece`]] as const)),
        ]}
      />
      <Caution method={saw ? 'saw' : 'snap'} />
      <Section title="CUTS IN ORDER" testID="cuts">
        {layout.cuts.map((cut) => (
          <Row
            key={cut.number}
            lead={<Words bold>{String(cut.number)}</Words>}
            end={<Words bold>{size(cut.measure, 3)}</Words>}
          >
            <Words>{cutWords(cut, plan)}</Words>
          </Row>
        ))}
      </Section>
      <Files plan={plan} at={at} input={tool.input!} />
    </>
  );
}

const boundWords = ({ proven, bound }: BlankPlan) =>
  'pieces' in bound
    ? proven
      ? 'No way of cutting from edge to edge gives more.'
      : `Not proven: at most ${bound.pieces} could be possible.`
    : proven
      ? 'No way of cutting needs fewer sheets.'
      : `The fewest found. Fewer than ${bound.sheets} are impossible.`;

const areaWords = ({ perSheet, areaAlone }: BlankPlan) =>
  perSheet === null
    ? `${shortDecimal(areaAlone, 2)} sheets, if nothing were lost`
    : `${shortDecimal(areaAlone, 2)} pieces a sheet, which no cutting gives`;

function cutWords({ along, part }: Cut, { sheet }: BlankPlan): string {
  const whole = part.width === sheet.width && part.depth === sheet.depth;
  return `${whole ? 'The whole sheet' : `The part of ${area(part.width, part.depth)}`}, ${along === 'x' ? 'from its left edge' : 'from its front edge'}`;
}

function shapesOf(plan: BlankPlan, at: number): DrawnShape[] {
  const { pieces, cuts } = plan.layouts[at]!;
  return [
    ...pieces.map((piece): DrawnShape => ({
      points: blankOutline(piece, plan.blanks[piece.kind]?.corners),
      kind: 'solid',
      words: `${size(piece.width, 1).replace(/ .*/, '')} × ${size(piece.depth, 1)}`,
      tall: piece.depth > piece.width * 1.3,
    })),
    ...cuts.map(({ along, part, measure }): DrawnShape => {
      const line = measure + plan.kerf / 2;
      return {
        points:
          along === 'x'
            ? [
                [part.x + line, part.y],
                [part.x + line, part.y + part.depth],
              ]
            : [
                [part.x, part.y + line],
                [part.x + part.width, part.y + line],
              ],
        kind: 'cut',
      };
    }),
  ];
}

function Caution({ method }: { method: CutMethod }) {
  const { title, text } = blankCaution(method);
  return (
    <Notice kind="due" title={title}>
      {text}
    </Notice>
  );
}

function Files({ plan, at, input }: { plan: BlankPlan; at: number; input: Parameters<typeof blanksOf>[0] }) {
  const [paper, setPaper] = useState<Paper>('a4');
  const [fault, setFault] = useState<string | null>(null);
  const layout = plan.layouts[at]!;
  const name = `blanks-${at + 1}`;
  const drawn = async (kind: 'svg' | 'dxf') => {
    const { blankDxf, blankSvg } = await import('@even-bed/core/fit/blankFiles');
    if (kind === 'svg') saveFile(`${name}.svg`, blankSvg(plan, layout), 'image/svg+xml');
    else saveFile(`${name}.dxf`, blankDxf(plan, layout), 'image/vnd.dxf');
  };
  const [asked, setAsked] = useState<AbortController | null>(null);
  // Whoever leaves needs no pages: the server stops laying them out.
  useEffect(() => () => asked?.abort(), [asked]);
  const printed = async () => {
    setFault(null);
    const asking = new AbortController();
    setAsked(asking);
    try {
      const response = await fetch('/api/blanks/pdf', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ input, paper }),
        signal: asking.signal,
      });
      if (response.ok) return saveFile('blanks.pdf', await response.blob(), 'application/pdf');
      const answer: unknown = await response.json();
      setFault(
        isAnswer(answer) ? (Object.values(answer.error.fields ?? {})[0] ?? answer.error.message) : 'No PDF came.',
      );
    } catch {
      if (!asking.signal.aborted)
        setFault('The PDF is made by the server, and it does not answer now. SVG and DXF are made here.');
    } finally {
      setAsked(null);
    }
  };
  return (
    <Section title="TAKE IT ALONG, AT TRUE SIZE" testID="blank-files">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton label="SVG" icon="download" onPress={() => void drawn('svg')} testID="save-svg" />
        <ActionButton label="DXF" icon="download" onPress={() => void drawn('dxf')} testID="save-dxf" />
        {asked ? (
          <ActionButton label="Stop the PDF" icon="print" onPress={() => asked.abort()} testID="stop-pdf" />
        ) : (
          <ActionButton label="PDF, 1:1" icon="print" onPress={() => void printed()} testID="save-pdf" />
        )}
      </View>
      {asked ? (
        <Words tone="steel" live>
          The server lays out the pages: a long list takes some seconds.
        </Words>
      ) : null}
      <Choice
        label="Paper of the PDF"
        hideLabel
        options={[
          { value: 'a4', label: 'A4 pages' },
          { value: 'letter', label: 'Letter pages' },
          { value: 'whole', label: 'One large page' },
        ]}
        value={paper}
        onChange={setPaper}
      />
      {fault ? (
        <Words tone="stop" live>
          {fault}
        </Words>
      ) : null}
      <Words size="small" tone="steel">
        {`Each carries a line of ${size(100)}: measure it on the print before you trust the rest.`}
      </Words>
    </Section>
  );
}
