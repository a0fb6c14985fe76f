import type { Finding, MachineFacts } from '@even-bed/contract';
import { readAdjustersCell, undefused } from '@even-bed/core/fleet/listCells';
import { pitchOf } from '@even-bed/core/level/threads';
import { readLength } from '@even-bed/core/fleet/readLength';
import { numberIn } from '../ui/numberIn';
import { centredMargin } from './centredMargin';
import { FINDING_NAMES } from './findingNames';
import { adjusterPattern } from './machineForm';

const FINDINGS = Object.keys(FINDING_NAMES) as Finding[];

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
  originX: /^(left margin|margin.*(left|x))/,
  originY: /^(front margin|margin.*(front|y))/,
  firstLayer: /^first layer/,
  adjusters: /^(adjusters|screws|knobs)/,
  tag: /^tag$/,
  seenFrom: /^seen from/,
  compensation: /^compensation/,
  aim: /^aim/,
  finding: /^finds z/,
  plus: /^plus means/,
  mapX0: /^map first x/,
  mapX1: /^map last x/,
  mapY0: /^map first y/,
  mapY1: /^map last y/,
  mapFirstRow: /^map first row/,
  hottest: /^hottest/,
  platformKey: /^key of the platform/,
  note: /^note$/,
};

export interface FleetLine {
  line: number;
  facts: Omit<MachineFacts, 'areaId'> | null;
  area: string;
  faults: string[];
}

/** Plates of printers are wider, mm: less was meant in inches, or slipped. Our own choice. */
const LEAST_PLATE = 40;
/** Units that a head can name; lengths without one are millimetres, temperatures °C. */
const UNIT = /\b(mm|cm|in|inch|inches|f|fahrenheit)$/;

/** The units that the heads of columns name, by what stands in them. */
export function fleetUnits(heads: readonly string[], columns: Record<string, number>): Record<string, string> {
  const units = Object.entries(columns).flatMap(([name, at]) => {
    const unit = UNIT.exec(plainHead(heads[at] ?? ''))?.[1];
    return unit ? [[name, unit] as const] : [];
  });
  return Object.fromEntries(units);
}

const plainHead = (head: string) =>
  head
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Where each thing stands in a list of machines, by the heads of its columns. */
export function fleetColumns(heads: readonly string[]): Record<string, number> {
  const plain = heads.map(plainHead);
  const columns: Record<string, number> = {};
  for (const [name, pattern] of Object.entries(HEADS)) {
    const at = plain.findIndex((head, i) => pattern.test(head) && !Object.values(columns).includes(i));
    if (at >= 0) columns[name] = at;
  }
  return columns;
}

const wordOf = <T extends string>(known: readonly T[], text: string): T | undefined =>
  known.find((word) => word === text.toLowerCase());

/**
 * One line of a list of machines; what isn't said gets the usual values, and can be changed on the machine's page.
 * @param units as `fleetUnits` found them
 */
export function readFleetLine(
  cells: readonly string[],
  columns: Record<string, number>,
  line: number,
  units: Record<string, string> = {},
): FleetLine {
  const cell = (name: string) => undefused(columns[name] === undefined ? '' : (cells[columns[name]!] ?? '').trim());
  const faults: string[] = [];
  const length = (name: string, label: string, otherwise: number | null, least = 0.02) => {
    const text = cell(name);
    const value = text === '' ? otherwise : readLength(/[a-z"″]/i.test(text) ? text : `${text} ${units[name] ?? ''}`);
    if (value === null || !(value >= least)) faults.push(`${label}: “${text}” is no length.`);
    return value ?? 0;
  };
  const oneOf = <T extends string>(name: string, label: string, known: readonly T[], otherwise: T): T => {
    const text = cell(name);
    const word = text === '' ? otherwise : wordOf(known, text);
    if (word === undefined) faults.push(`${label}: “${text}”; say ${known.join(', ')}.`);
    return word ?? otherwise;
  };
  const name = cell('name');
  if (name === '') faults.push('The name is missing.');
  const resin = /resin|sla|msla|lcd/i.test(cell('family'));
  const printWidth = length('printWidth', 'Print area, width', null);
  const printDepth = length('printDepth', 'Print area, depth', printWidth || null);
  const plateWidth = length('plateWidth', 'Plate, width', printWidth);
  const plateDepth = length('plateDepth', 'Plate, depth', printDepth);
  for (const [label, side] of [
    ['width', plateWidth],
    ['depth', plateDepth],
  ] as const)
    if (side > 0 && side < LEAST_PLATE)
      faults.push(`Plate, ${label}: ${side} mm is no plate of a printer. In inches? Write it with its unit: 9 1/4 in.`);
  const margin = (name: string, label: string, plate: number, print: number) =>
    length(name, label, Number(centredMargin(String(plate), String(print))), -200);
  const originX = margin('originX', 'Left margin', plateWidth, printWidth);
  const originY = margin('originY', 'Front margin', plateDepth, printDepth);
  const firstLayer = length('firstLayer', 'First layer', resin ? 0.05 : 0.2);
  const adjusters = listedAdjusters(cell('adjusters'), resin, printWidth, printDepth);
  for (const { name: knob, thread, pitch } of adjusters ?? []) {
    const known = pitchOf(thread);
    if (known !== undefined && Math.abs(known - pitch) > 1e-3)
      faults.push(`${knob}: ${thread} rises ${known} mm a turn, and the list says ${pitch}. Say which.`);
  }
  if (adjusters === null)
    faults.push(
      `Adjusters: “${cell('adjusters')}”; say 0, 3 or 4, and move them later, or write them as our own list.`,
    );
  const seenFrom = oneOf('seenFrom', 'Seen from', ['above', 'below'], 'above');
  const compensation = oneOf('compensation', 'Compensation', ['yes', 'no'], resin ? 'no' : 'yes') === 'yes';
  const finding = oneOf('finding', 'What finds Z', FINDINGS, resin ? 'endstop' : 'contact-probe');
  const plus = oneOf('plus', 'What + means', ['higher', 'lower'], 'higher');
  const row = oneOf('mapFirstRow', 'First row of its map', ['front', 'rear', 'unknown'], 'unknown');
  const aim = cell('aim') === '' ? null : length('aim', 'Aim', null, 0.005);
  const mapped = ['mapX0', 'mapY0', 'mapX1', 'mapY1'].some((name) => cell(name) !== '');
  const mapAt = (name: string) => length(name, 'Map', null, -10_000);
  const mapExtent = mapped ? { x0: mapAt('mapX0'), y0: mapAt('mapY0'), x1: mapAt('mapX1'), y1: mapAt('mapY1') } : null;
  const fahrenheit = units.hottest?.startsWith('f') ?? false;
  const told = cell('hottest') === '' ? null : numberIn(cell('hottest'));
  const hottest = told === null || !fahrenheit ? told : ((told - 32) * 5) / 9;
  if (hottest !== null && !(hottest >= 0 && hottest <= 400))
    faults.push(`Hottest bed: “${cell('hottest')}” is no temperature of a bed.`);
  const platformKey = cell('platformKey') === '' ? null : length('platformKey', 'Key of the platform', null, 0.5);
  const area = cell('area') || 'Workshop';
  if (faults.length > 0) return { line, facts: null, area, faults };
  const facts: Omit<MachineFacts, 'areaId'> = {
    name,
    shelf: cell('shelf'),
    model: cell('model') || 'not said',
    family: resin ? 'resin' : 'filament',
    plateWidth,
    plateDepth,
    printWidth,
    printDepth,
    originX,
    originY,
    adjusters: adjusters!,
    seenFrom,
    compensation,
    firstLayer,
    aim,
    finding,
    plus,
    mapExtent,
    mapFirstRow: row === 'unknown' ? null : row,
    console: null,
    hottest,
    platformKey,
    tag: cell('tag'),
    note: cell('note'),
  };
  return { line, facts, area, faults };
}

/** Adjusters as a list says them: how many, or each with its place; null when neither can be read. */
function listedAdjusters(
  text: string,
  resin: boolean,
  printWidth: number,
  printDepth: number,
): MachineFacts['adjusters'] | null {
  const listed = text === '' ? null : readAdjustersCell(text);
  if (listed) return listed;
  const count = text === '' ? (resin ? 0 : 4) : Number(text);
  if (![0, 3, 4].includes(count)) return null;
  const pattern = count === 4 ? 'four' : count === 3 ? 'three-rear' : 'none';
  return adjusterPattern(pattern, printWidth, printDepth).map(({ x, y, pitch, ...rest }) => ({
    ...rest,
    x: Number(x),
    y: Number(y),
    pitch: Number(pitch),
  }));
}
