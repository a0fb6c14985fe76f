import type { MachineFacts } from '@even-bed/contract';
import { readLength } from '@even-bed/core/fleet/readLength';
import { centredMargin } from './centredMargin';
import { adjusterPattern } from './machineForm';

const HEADS: Record<string, RegExp> = {
  name: /^(name|machine|printer)\b/,
  area: /^(area|room|place)\b/,
  shelf: /^shelf\b/,
  model: /^(model|type)\b/,
  family: /^(family|kind|technology)\b/,
  plateWidth: /^plate.*(width|x|left)/,
  plateDepth: /^plate.*(depth|y|front|rear|length)/,
  printWidth: /^(print|bed|build).*(width|x|left)/,
  printDepth: /^(print|bed|build).*(depth|y|front|rear|length)/,
  firstLayer: /^first layer/,
  adjusters: /^(adjusters|screws|knobs)/,
};

export interface FleetLine {
  line: number;
  facts: Omit<MachineFacts, 'areaId'> | null;
  area: string;
  faults: string[];
}

/** Where each thing stands in a list of machines, by the heads of its columns. */
export function fleetColumns(heads: readonly string[]): Record<string, number> {
  const plain = heads.map((head) =>
    head
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, ' ')
      .trim(),
  );
  const columns: Record<string, number> = {};
  for (const [name, pattern] of Object.entries(HEADS)) {
    const at = plain.findIndex((head, i) => pattern.test(head) && !Object.values(columns).includes(i));
    if (at >= 0) columns[name] = at;
  }
  return columns;
}

/** One line of a list of machines; what isn't said gets the usual values, and can be changed on the machine's page. */
export function readFleetLine(cells: readonly string[], columns: Record<string, number>, line: number): FleetLine {
  const cell = (name: string) => (columns[name] === undefined ? '' : (cells[columns[name]!] ?? '').trim());
  const faults: string[] = [];
  const length = (name: string, label: string, otherwise: number | null) => {
    const text = cell(name);
    const value = text === '' ? otherwise : readLength(text);
    if (value === null || !(value >= 0.02)) faults.push(`${label}: “${text}” is no length.`);
    return value ?? 0;
  };
  const name = cell('name');
  if (name === '') faults.push('The name is missing.');
  const resin = /resin|sla|msla|lcd/i.test(cell('family'));
  const printWidth = length('printWidth', 'Print area, width', null);
  const printDepth = length('printDepth', 'Print area, depth', printWidth || null);
  const plateWidth = length('plateWidth', 'Plate, width', printWidth);
  const plateDepth = length('plateDepth', 'Plate, depth', printDepth);
  const firstLayer = length('firstLayer', 'First layer', resin ? 0.05 : 0.2);
  const count = cell('adjusters') === '' ? (resin ? 0 : 4) : Number(cell('adjusters'));
  if (![0, 3, 4].includes(count)) faults.push(`Adjusters: “${cell('adjusters')}”; say 0, 3 or 4, and move them later.`);
  const area = cell('area') || 'Workshop';
  if (faults.length > 0) return { line, facts: null, area, faults };
  const pattern = count === 4 ? 'four' : count === 3 ? 'three-rear' : 'none';
  const facts: Omit<MachineFacts, 'areaId'> = {
    name,
    shelf: cell('shelf'),
    model: cell('model') || 'not said',
    family: resin ? 'resin' : 'filament',
    plateWidth,
    plateDepth,
    printWidth,
    printDepth,
    originX: Number(centredMargin(String(plateWidth), String(printWidth))),
    originY: Number(centredMargin(String(plateDepth), String(printDepth))),
    adjusters: adjusterPattern(pattern, printWidth, printDepth).map(({ x, y, pitch, ...rest }) => ({
      ...rest,
      x: Number(x),
      y: Number(y),
      pitch: Number(pitch),
    })),
    seenFrom: 'above',
    compensation: !resin,
    firstLayer,
    aim: null,
    finding: resin ? 'endstop' : 'contact-probe',
    plus: 'higher',
    mapExtent: null,
    mapFirstRow: null,
    console: null,
    hottest: null,
    tag: '',
    note: '',
  };
  return { line, facts, area, faults };
}
