import { numberIn } from '../ui/numberIn';
import type { Waiting } from './waiting';

/** A part of a refused operation that its person may put right. */
export interface Changeable {
  /** Where it stands in what is sent: "numbers.feeler". */
  path: string;
  /** "Numbers: feeler" */
  label: string;
  text: string;
  /** What the server said of it. */
  fault: string | null;
}

type Plain = string | number | null;
const isPlain = (value: unknown): value is Plain =>
  value === null || typeof value === 'string' || typeof value === 'number';

/** What stands at a place of a body; '' is the body itself. */
const at = (body: unknown, path: string): unknown =>
  path === ''
    ? body
    : path
        .split('.')
        .reduce<unknown>(
          (value, key) =>
            typeof value === 'object' && value && Object.hasOwn(value, key) ? (value as never)[key] : undefined,
          body,
        );

/** "endedAt" is "Ended at". */
const words = (name: string) => {
  const spaced = name.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
  return spaced.charAt(0).toUpperCase() + spaced.slice(1);
};
const labelOf = (path: string) => {
  const [first, ...rest] = path.split('.');
  return [words(first!), ...rest.map((part) => part.toLowerCase())].join(': ');
};

/** Names of records and moments are no matter of typing: those are changed where they arose. */
const isNoField = (path: string) => /(^|\.)(id|\w+Id|at|\w+At|version)$/.test(path);

/**
 * What of a parked operation can be put right here: what the server named; where it named nothing, all that was typed.
 * Nothing when what is wrong can't be typed.
 */
export function changeable({ body, parked }: Waiting): Changeable[] {
  if (parked?.kind !== 'refused') return [];
  const named = Object.keys(parked.fields ?? {});
  const paths = named.length > 0 ? named : Object.keys((body ?? {}) as object);
  return paths.flatMap((path) => {
    const value = at(body, path);
    if (isNoField(path) || !isPlain(value)) return [];
    return [
      { path, label: labelOf(path), text: value === null ? '' : String(value), fault: parked.fields?.[path] ?? null },
    ];
  });
}

/**
 * The operation with what was put right, ready to be sent anew; or what can't be read, by its path. A number stays a
 * number; an emptied field that had none is none again.
 */
export function changed(
  one: Waiting,
  texts: Readonly<Record<string, string>>,
): { ok: true; waiting: Waiting } | { ok: false; faults: Record<string, string> } {
  const body = structuredClone(one.body);
  const faults: Record<string, string> = {};
  for (const [path, text] of Object.entries(texts)) {
    const end = path.lastIndexOf('.');
    const owner = at(body, path.slice(0, Math.max(end, 0))) as Record<string, unknown>;
    const name = path.slice(end + 1);
    const before = owner[name];
    if (String(before ?? '') === text) continue;
    let value: Plain = text.trim() === '' && before === null ? null : text;
    if (typeof before === 'number') {
      value = numberIn(text);
      if (Number.isNaN(value)) faults[path] = 'This is not a number.';
    }
    owner[name] = value;
  }
  return Object.keys(faults).length > 0
    ? { ok: false, faults }
    : { ok: true, waiting: { ...one, body, tries: 0, parked: null } };
}
