import { shortDecimal } from '../ui/formatHeight';
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
    .map(([name, value]) => [nameInWords(name), inWords(value)]);
}

const without = (record: Details, names: readonly string[]): Details =>
  Object.fromEntries(Object.entries(record).filter(([name]) => !names.includes(name)));

/** "sideUp" is "side up". */
const nameInWords = (name: string) => name.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

/** Times are numbers of this size: 2001 and later in epoch ms. */
const isTime = (value: number) => Number.isInteger(value) && value > 1e12;

function inWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return isTime(value) ? dayAndTime(value) : shortDecimal(value, 6);
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(inWords).join(', ');
  if (!isRecord(value)) return String(value);
  if ('to' in value) return `${inWords(value['from'])} → ${inWords(value['to'])}`;
  return Object.entries(value)
    .map(([name, part]) => `${nameInWords(name)} ${inWords(part)}`)
    .join(', ');
}
