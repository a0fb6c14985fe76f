import { shortDecimal, size, temperature } from '../ui/formatHeight';
import { dayAndTime } from '../ui/formatTime';

type Details = Record<string, unknown>;

const isRecord = (value: unknown): value is Details =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a line's data says, in names and words: old and new where both are known, without the ids and marks in it. */
export function detailRows(data: object): [name: string, value: string][] {
  const { event, from, to, changed, said, sides: _, ...rest } = data as Details;
  const all: Details = { ...rest };
  if (isRecord(changed)) Object.assign(all, changed);
  if (isRecord(said)) Object.assign(all, without(said, ['code']));
  if (isRecord(event)) Object.assign(all, without(event, ['kind', 'at']));
  else if (event !== undefined) all['event'] = event;
  if (isRecord(from) && isRecord(to)) {
    for (const name of Object.keys(to))
      if (JSON.stringify(from[name]) !== JSON.stringify(to[name])) all[name] = { from: from[name], to: to[name] };
  } else if (isRecord(to)) Object.assign(all, to);
  else if (to !== undefined) all['change'] = { from, to };
  return Object.entries(all)
    .filter(([name, value]) => !/(^id|Ids?|sha256|version)$/.test(name) && value !== null && value !== '')
    .map(([name, value]) => [nameInWords(name), inWords(value, name)]);
}

const without = (record: Details, names: readonly string[]): Details =>
  Object.fromEntries(Object.entries(record).filter(([name]) => !names.includes(name)));

/** "sideUp" is "side up". */
const nameInWords = (name: string) => name.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

/** Times are numbers of this size: 2001 and later in epoch ms. */
const isTime = (value: number) => Number.isInteger(value) && value > 1e12;

/** Names under which lengths and temperatures are kept, in mm and °C. */
const LENGTHS =
  /^(plate|print)(Width|Depth)$|^origin[XY]$|^(x|y|x0|x1|y0|y1|width|depth|height|thickness|uncertainty|pitch|offset|aim|range|before|after|firstLayer|platformKey|predicted|least|most|by|feeler)$/;
const TEMPERATURES = /^(hottest|limit|temperatureLimit|bedTemperature)$/;
const NAMES: Record<string, string> = { mm: 'millimetres, °C', in: 'inches, °F' };

function numberInWords(value: number, name: string): string {
  if (LENGTHS.test(name)) return size(value, 4);
  if (TEMPERATURES.test(name)) return temperature(value);
  return isTime(value) ? dayAndTime(value) : shortDecimal(value, 6);
}

/** @param name under which it is kept: says what its numbers are */
function inWords(value: unknown, name: string): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return numberInWords(value, name);
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map((part) => inWords(part, name)).join(', ');
  if (!isRecord(value)) return name === 'units' ? (NAMES[String(value)] ?? String(value)) : String(value);
  if ('to' in value) return `${inWords(value['from'], name)} → ${inWords(value['to'], name)}`;
  return Object.entries(value)
    .map(([own, part]) => `${nameInWords(own)} ${inWords(part, own)}`)
    .join(', ');
}
