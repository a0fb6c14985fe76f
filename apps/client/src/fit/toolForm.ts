/** What a tool is asked, as it is typed: numbers are text until they are read. */
export type Typed<T> = T extends boolean
  ? boolean
  : T extends number | null
    ? string
    : T extends string
      ? T
      : T extends readonly (infer Item)[]
        ? Typed<Item>[]
        : T extends object
          ? { [Key in keyof T]: Typed<T[Key]> }
          : T;

type Loose = { [key: string]: Loose } | Loose[] | string | boolean | null | undefined;

const parts = (path: string) => path.split('.');

/** What stands at a path ("pieces.0.width"); undefined where there is nothing. */
export function valueAt(form: unknown, path: string): unknown {
  return parts(path).reduce<unknown>(
    (value, key) => (value !== null && typeof value === 'object' ? (value as Record<string, unknown>)[key] : undefined),
    form,
  );
}

/** The form with another value at a path; what is not on the way stays the same object. */
export function withValue<T>(form: T, path: string, value: unknown): T {
  const change = (part: unknown, [key, ...rest]: string[]): unknown => {
    if (key === undefined) return value;
    if (Array.isArray(part)) return part.map((item: unknown, i) => (i === Number(key) ? change(item, rest) : item));
    return { ...(part as object), [key]: change((part as Record<string, unknown> | undefined)?.[key], rest) };
  };
  return change(form, parts(path)) as T;
}

/** A kept plan as the form holds it: numbers as text, nothing as empty text. */
export function typedOf<T>(input: T): Typed<T> {
  const typed = (value: unknown): unknown => {
    if (value === null) return '';
    if (typeof value === 'number') return String(value);
    if (Array.isArray(value)) return value.map(typed);
    if (typeof value === 'object')
      return Object.fromEntries(Object.entries(value as object).map(([key, part]) => [key, typed(part)]));
    return value;
  };
  return typed(input) as Typed<T>;
}

/** The form without what was left empty, for the schema: an empty field, and a group of empty fields, is missing. */
export function withoutEmpty(form: unknown): unknown {
  const strip = (value: Loose): Loose => {
    if (Array.isArray(value)) return value.map((item) => strip(item) ?? {});
    if (value === undefined || (typeof value === 'string' && value.trim() === '')) return undefined;
    if (value === null || typeof value !== 'object') return value;
    const kept = Object.entries(value).flatMap(([key, part]): [string, Loose][] => {
      const rest = strip(part);
      return rest === undefined ? [] : [[key, rest]];
    });
    return kept.length === 0 && Object.keys(value).length > 0 ? undefined : Object.fromEntries(kept);
  };
  return strip(form as Loose) ?? {};
}

/** The form with its numbers taken out, to be typed anew: what is chosen, named and how many rows there are stays. */
export function withoutNumbers<T>(form: T): T {
  const clear = (value: unknown): unknown => {
    if (typeof value === 'string') return /^-?\d+(?:\.\d+)?$/.test(value) ? '' : value;
    if (Array.isArray(value)) return value.map(clear);
    if (value !== null && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, clear(part)]));
    return value;
  };
  return clear(form) as T;
}
