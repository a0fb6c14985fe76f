/** An adjuster as a cell of a list of machines holds it: mm, looking as the machine's facts say. */
export interface ListedAdjuster {
  id: string;
  name: string;
  x: number;
  y: number;
  thread: string;
  pitch: number;
  clockwise: 'raises' | 'lowers';
}

const ONE = /^(.{1,200}): (-?[\d.]{1,20}), (-?[\d.]{1,20}), ([^,]{0,40}), (-?[\d.]{1,20}) a turn, (raises|lowers)$/;
const MOST = 12;

/** Numbers in lists to the nanometre, without the dust of binary fractions. */
export const listNumber = (value: number): number => Number(value.toFixed(6));

/**
 * Adjusters in one cell: place x and y, thread, mm a turn, and what clockwise does.
 * @example adjustersCell([{ id: 'rear', name: 'rear', x: 110, y: 205, thread: 'M4', pitch: 0.7, clockwise: 'lowers' }])
 * // 'rear: 110, 205, M4, 0.7 a turn, lowers'
 */
export const adjustersCell = (adjusters: readonly ListedAdjuster[]): string =>
  adjusters
    .map(
      ({ name, x, y, thread, pitch, clockwise }) =>
        `${name.replaceAll(';', ',')}: ${listNumber(x)}, ${listNumber(y)}, ${thread.replaceAll(/[;,]/g, ' ')}, ${listNumber(pitch)} a turn, ${clockwise}`,
    )
    .join('; ');

/** Adjusters out of such a cell; null when it is none. */
export function readAdjustersCell(text: string): ListedAdjuster[] | null {
  const parts = text.split(';');
  if (parts.length > MOST) return null;
  const found: ListedAdjuster[] = [];
  for (const part of parts) {
    const [, name, x, y, thread, pitch, clockwise] = ONE.exec(part.trim()) ?? [];
    if (name === undefined) return null;
    const place = { x: Number(x), y: Number(y), pitch: Number(pitch) };
    if (!Object.values(place).every(Number.isFinite) || !(place.pitch > 0)) return null;
    const id = found.some((known) => known.id === name) ? `${name} ${found.length + 1}` : name;
    found.push({ id, name, ...place, thread: thread!, clockwise: clockwise as 'raises' | 'lowers' });
  }
  return found;
}

/** What a cell said before an apostrophe was put in front so that no table program runs it. */
export const undefused = (cell: string): string => (/^'[=+\-@]/.test(cell) ? cell.slice(1) : cell);
