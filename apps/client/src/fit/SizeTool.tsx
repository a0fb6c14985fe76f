import { fitCheck, skewOver, type Sides } from '@even-bed/core/fit/fitCheck';
import { padsFor } from '@even-bed/core/fit/padsFor';
import { Facts } from '../ui/Facts';
import { shortDecimal, signedLength, size } from '../ui/formatHeight';
import { Section } from '../ui/Section';
import { SheetDrawing, type DrawnShape } from '../ui/SheetDrawing';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { FieldRow } from './FieldRow';
import { FillFromMachine } from './FillFromMachine';
import { RowList } from './RowList';
import { ToolField } from './ToolField';
import { ToolPage } from './ToolPage';
import { useToolForm, type ToolForm } from './useToolForm';

const VERDICTS = {
  fits: { kind: 'ready', word: 'It fits' },
  over: { kind: 'due', word: 'It stands over the plate' },
  'covers-keep-out': { kind: 'stop', word: 'It covers what must stay free' },
  'misses-print': { kind: 'stop', word: 'Prints would miss it' },
} as const;

const rectangle = ({ x, y, width, depth }: { x: number; y: number; width: number; depth: number }) =>
  [
    [x, y],
    [x + width, y],
    [x + width, y + depth],
    [x, y + depth],
  ] as const;

/** How a sheet, laminate or pad lies on the real plate. */
export function SizeTool() {
  const tool = useToolForm('size');
  const { input } = tool;
  const result = input ? fitCheck(input) : null;
  const pads = input?.pad ? padsFor({ plate: input.plate, pad: input.pad }) : null;
  const shapes: DrawnShape[] =
    input && result
      ? [
          { points: rectangle(result.piece), kind: 'solid', words: 'sheet' },
          ...input.notches.map((notch) => ({ points: rectangle(notch), kind: 'dashed' as const })),
          { points: rectangle(input.print), kind: 'dashed' },
          ...input.keepOuts.map((keepOut) => ({ points: rectangle(keepOut), kind: 'hatched' as const })),
        ]
      : [];
  return (
    <ToolPage
      tool={tool}
      answer={
        input && result ? (
          <>
            <Signal {...VERDICTS[result.verdict]} />
            <SheetDrawing
              width={input.plate.width}
              depth={input.plate.depth}
              beyond={Math.max(0, ...Object.values(result.overhang))}
              highest={340}
              shapes={shapes}
              label={`The plate, ${size(input.plate.width)} by ${size(input.plate.depth)}, with the sheet on it; dashed: the print area; hatched: what must stay free`}
              testID="size-drawing"
            />
            {result.covered.length > 0 ? (
              <Words bold tone="stop" testID="covered">
                {`Under it: ${result.covered.join(', ')}. Notch it there, or cut the corner.`}
              </Words>
            ) : null}
            <Facts
              rows={[
                ['Overhang', sides(result.overhang)],
                ['Margin of print', sides(result.margin)],
                ['Beyond the print', sides(result.beyondPrint)],
                ['May lie askew', skewWords(result, input.plate)],
                ...(pads
                  ? ([
                      [
                        'Pads',
                        pads.pads === 1
                          ? 'one covers it'
                          : `${pads.pads}, each cut to ${size(pads.width)} × ${size(pads.depth)}, ${pads.seams} ${pads.seams === 1 ? 'seam' : 'seams'}. One alone has ${Math.round(pads.areaOfOne * 100)} % of the area`,
                      ],
                    ] as const)
                  : []),
              ]}
            />
            <Words size="small" tone="steel">
              Measure the real plate, not the advertised print area. + stands over the edge, − stops short of it.
            </Words>
          </>
        ) : null
      }
    >
      <FillFromMachine
        ready={tool.ready}
        onFill={(machine) =>
          tool.fill({
            plate: { width: String(machine.plateWidth), depth: String(machine.plateDepth) },
            print: {
              x: String(machine.originX),
              y: String(machine.originY),
              width: String(machine.printWidth),
              depth: String(machine.printDepth),
            },
            piece: { width: String(machine.plateWidth), depth: String(machine.plateDepth), x: '', y: '' },
            keepOuts: [],
            notches: [],
          } as never)
        }
      />
      <Section title="THE PLATE">
        <FieldRow>
          <ToolField tool={tool} path="plate.width" label="Width" unit="mm" />
          <ToolField tool={tool} path="plate.depth" label="Depth" unit="mm" />
        </FieldRow>
      </Section>
      <Section title="THE SHEET">
        <FieldRow>
          <ToolField tool={tool} path="piece.width" label="Width" unit="mm" />
          <ToolField tool={tool} path="piece.depth" label="Depth" unit="mm" />
        </FieldRow>
        <FieldRow>
          <ToolField tool={tool} path="piece.x" label="Left edge at" unit="mm" hint="Empty: in the middle" />
          <ToolField tool={tool} path="piece.y" label="Front edge at" unit="mm" hint="Empty: in the middle" />
        </FieldRow>
      </Section>
      <Section title="PRINT AREA, FROM THE PLATE’S FRONT-LEFT CORNER">
        <Rect tool={tool} path="print" />
      </Section>
      <RowList
        title="WHAT MUST STAY FREE"
        one="place"
        count={tool.form.keepOuts.length}
        onAdd={() => tool.addTo('keepOuts', { name: '', x: '', y: '', width: '', depth: '' })}
        onRemove={(i) => tool.removeFrom('keepOuts', i)}
        testID="keepOuts"
        render={(i) => (
          <>
            <ToolField tool={tool} path={`keepOuts.${i}.name`} label="What" text />
            <Rect tool={tool} path={`keepOuts.${i}`} />
          </>
        )}
      />
      <RowList
        title="NOTCHES IN THE SHEET"
        one="notch"
        count={tool.form.notches.length}
        onAdd={() => tool.addTo('notches', { x: '0', y: '0', width: '15', depth: '15' })}
        onRemove={(i) => tool.removeFrom('notches', i)}
        testID="notches"
        render={(i) => <Rect tool={tool} path={`notches.${i}`} />}
      />
      <RowList
        title="PADS UNDER IT"
        one="pad size"
        count={tool.form.pad ? 1 : 0}
        onAdd={() => tool.set('pad', { width: '400', depth: '200' })}
        onRemove={() => tool.set('pad', null)}
        testID="pads"
        render={() => (
          <FieldRow>
            <ToolField tool={tool} path="pad.width" label="Width of one" unit="mm" />
            <ToolField tool={tool} path="pad.depth" label="Depth of one" unit="mm" />
          </FieldRow>
        )}
      />
    </ToolPage>
  );
}

function Rect({ tool, path }: { tool: ToolForm<'size'>; path: string }) {
  return (
    <>
      <FieldRow>
        <ToolField tool={tool} path={`${path}.x`} label="From the left" unit="mm" />
        <ToolField tool={tool} path={`${path}.y`} label="From the front" unit="mm" />
      </FieldRow>
      <FieldRow>
        <ToolField tool={tool} path={`${path}.width`} label="Width" unit="mm" />
        <ToolField tool={tool} path={`${path}.depth`} label="Depth" unit="mm" />
      </FieldRow>
    </>
  );
}

const sides = ({ left, right, front, rear }: Sides) =>
  `left ${signedLength(left, 1)}, right ${signedLength(right, 1)}, front ${signedLength(front, 1)}, rear ${signedLength(rear, 1)}`;

function skewWords(
  { skewUntilBare, skewUntilOver, skewUntilPrint }: ReturnType<typeof fitCheck>,
  plate: { width: number; depth: number },
): string {
  const long = Math.max(plate.width, plate.depth);
  const said = (degrees: number) =>
    `${shortDecimal(degrees, 2)}° (${size(skewOver(long, degrees), 1)} over ${size(long, 0)})`;
  const parts = [
    skewUntilOver === null ? null : `${said(skewUntilOver)} before a corner stands over`,
    skewUntilBare === null ? null : `${said(skewUntilBare)} before the plate shows`,
    skewUntilPrint === null ? null : `${said(skewUntilPrint)} before prints miss it`,
  ].filter((part) => part !== null);
  return parts.length > 0 ? parts.join('; ') : 'no play is left';
}
