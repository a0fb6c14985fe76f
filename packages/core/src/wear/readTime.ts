/** Characters of a cell that may be a time. */
const LONGEST_TIME = 60;

/** A date and time on a clock somewhere, without saying where. */
interface ClockTime {
  year: number;
  month: number;
  day: number;
  hour: number;
  minute: number;
  second: number;
}

const ISO =
  /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?)?\s{0,8}(Z|[+-]\d{2}:?\d{2})?$/i;
const PARTS = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})(?:[ ,T]+(\d{1,2}):(\d{2})(?::(\d{2}))?)?\s*([ap]\.?m\.?)?$/i;

/**
 * A time as lists write it: ISO with or without zone, 25.11.2026 14:20, 11/25/2026 2:20 pm, or epoch seconds or
 * milliseconds.
 * @param dayFirst what 3/4/2026 means; dates with dots always have the day first
 * @param zone IANA name for times that don't say their zone
 * @returns epoch ms; null when it is no time
 * @example readTime('25.11.2026 14:20', { dayFirst: true, zone: 'UTC' }) // 1795616400000
 */
export function readTime(text: string, { dayFirst, zone }: { dayFirst: boolean; zone: string }): number | null {
  if (text.length > LONGEST_TIME) return null;
  const trimmed = text.trim();
  if (/^\d{9,10}$/.test(trimmed)) return Number(trimmed) * 1000;
  if (/^\d{12,13}$/.test(trimmed)) return Number(trimmed);
  const iso = ISO.exec(trimmed);
  if (iso) {
    const [, year, month, day, hour = '0', minute = '0', second = '0', fraction = '0', offset] = iso;
    const clock = checked({ year, month, day, hour, minute, second });
    if (!clock) return null;
    const ms = Math.floor(Number(`0.${fraction}`) * 1000 + 1e-6);
    return (offset === undefined ? epochIn(clock, zone) : utc(clock) - offsetMs(offset)) + ms;
  }
  const parts = PARTS.exec(trimmed);
  if (!parts) return null;
  const [, first, mark, second, year, hour = '0', minute = '0', seconds = '0', half] = parts;
  const dayLeads = mark === '.' || dayFirst;
  const clock = checked({
    year,
    month: dayLeads ? second : first,
    day: dayLeads ? first : second,
    hour: half === undefined ? hour : String((Number(hour) % 12) + (/p/i.test(half) ? 12 : 0)),
    minute,
    second: seconds,
  });
  return clock && epochIn(clock, zone);
}

function checked(parts: Record<keyof ClockTime, string | undefined>): ClockTime | null {
  const clock = Object.fromEntries(
    Object.entries(parts).map(([name, text]) => [name, Number(text)]),
  ) as unknown as ClockTime;
  const { year, month, day, hour, minute, second } = clock;
  if (year < 1990 || year > 2200 || month < 1 || month > 12 || hour > 23 || minute > 59 || second > 59) return null;
  return day >= 1 && day <= new Date(Date.UTC(year, month, 0)).getUTCDate() ? clock : null;
}

const utc = ({ year, month, day, hour, minute, second }: ClockTime) =>
  Date.UTC(year, month - 1, day, hour, minute, second);

function offsetMs(offset: string): number {
  const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(offset) ?? [];
  return sign === undefined ? 0 : (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) * 60_000;
}

const formats = new Map<string, Intl.DateTimeFormat>();
/** Clocks change at quarters of an hour only: what a zone was ahead by in one is kept, for as many as a long list meets. */
const QUARTER_MS = 900_000;
const MOST_KEPT = 20_000;
const kept = new Map<string, number>();

/** How far a zone's clocks are ahead of UTC at a moment, ms. */
function ahead(at: number, zone: string): number {
  const key = `${zone} ${Math.floor(at / QUARTER_MS)}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const found = aheadByClock(at, zone);
  kept.set(key, found);
  return found;
}

function aheadByClock(at: number, zone: string): number {
  let format = formats.get(zone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
    formats.set(zone, format);
  }
  const parts = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
  return utc(parts as unknown as ClockTime) - Math.floor(at / 1000) * 1000;
}

/** The moment at which a zone's clocks show a time; the earlier one when they show it twice. */
function epochIn(clock: ClockTime, zone: string): number {
  const naive = utc(clock);
  const first = naive - ahead(naive, zone);
  const second = naive - ahead(first, zone);
  return Math.min(first, second) + ahead(Math.min(first, second), zone) === naive ? Math.min(first, second) : second;
}

/** Characters of a cell that may be a span. */
const LONGEST_SPAN = 60;
const SPAN = /(\d{1,9}(?:\.\d{1,9})?)\s{0,8}(d|h|min|m|s)[a-z]{0,12}/g;

/**
 * A span as lists write it: 1:30 (hours and minutes), 1:30:00, 1 h 30 min, 90 min, or a bare number in the column's unit.
 * @returns seconds; null when it is no span
 * @example readSpan('1 h 30 min', 's') // 5400
 */
export function readSpan(text: string, unit: 's' | 'min' | 'h'): number | null {
  if (text.length > LONGEST_SPAN) return null;
  const trimmed = text.trim().toLowerCase().replace(',', '.');
  const colons = /^(\d{1,4}):(\d{2})(?::(\d{2}))?$/.exec(trimmed);
  if (colons) {
    const [, hours, minutes, seconds = '0'] = colons;
    return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds);
  }
  const size = { d: 86_400, h: 3600, min: 60, m: 60, s: 1 };
  if (/^\d+(\.\d+)?$/.test(trimmed)) return Math.round(Number(trimmed) * size[unit]);
  const said = [...trimmed.matchAll(SPAN)];
  if (said.length === 0 || trimmed.replace(SPAN, '').trim() !== '') return null;
  return Math.round(said.reduce((sum, [, amount, name]) => sum + Number(amount) * size[name as keyof typeof size], 0));
}
