import { dayLeads, readPrintLine, type ColumnMatch } from '@even-bed/core/wear/readPrintLine';

/** One line of the grid as it is typed. */
export interface GridRow {
  machine: string;
  ended: string;
  held: string;
  material: string;
  grams: string;
  failure: string;
}
export const GRID_COLUMNS: readonly (keyof GridRow)[] = ['machine', 'ended', 'held', 'material', 'grams', 'failure'];
export const EMPTY_ROW: GridRow = { machine: '', ended: '', held: '', material: '', grams: '', failure: '' };

const match = (dayFirst: boolean): ColumnMatch => ({
  columns: { machine: 0, ended: 1, held: 2, material: 3, grams: 4, failure: 5 },
  dayFirst,
  durationUnit: 's',
});

/** A time alone ("14:20") means today, or yesterday when that is still to come. */
export function withDay(text: string, now: number): string {
  const [, hour, minute] = /^(\d{1,2}):(\d{2})$/.exec(text.trim()) ?? [];
  if (hour === undefined) return text;
  const at = new Date(now);
  at.setHours(Number(hour), Number(minute), 0, 0);
  if (at.getTime() > now) at.setDate(at.getDate() - 1);
  return at.toISOString();
}

export const isEmptyRow = (row: GridRow) => GRID_COLUMNS.every((column) => row[column].trim() === '');

/** A typed row as a print of one of the machines, or what is wrong with its cells. */
export function readRow(
  row: GridRow,
  {
    machines,
    zone,
    now,
  }: { machines: readonly { id: string; name: string; tag: string }[]; zone: string; now: number },
) {
  const cells = GRID_COLUMNS.map((column) => (column === 'ended' ? withDay(row.ended, now) : row[column]));
  const dayFirst = dayLeads([row.ended]);
  if (dayFirst === null)
    return {
      ok: false as const,
      faults: { ended: 'Day or month first? Write 2026-04-03, or with dots and the day first: 3.4.2026.' },
    };
  const line = readPrintLine(cells, { match: match(dayFirst), zone, now });
  if (!line.ok) return line;
  const typed = line.print.machine.toLowerCase();
  const machine = machines.find(({ name, tag }) => name.toLowerCase() === typed || tag.toLowerCase() === typed);
  if (!machine) return { ok: false as const, faults: { machine: 'No machine of this name or tag.' } };
  const { machine: _name, ...facts } = line.print;
  return { ok: true as const, print: { ...facts, machineId: machine.id } };
}
