import { readLength } from '@even-bed/core/fleet/readLength';
import Joi from 'joi';

/** Messages a person can act on; the field's label stands in front. */
export const MESSAGES: Joi.LanguageMessages = {
  'any.required': '{#label} is missing.',
  'any.only': '{#label} must be one of {#valids}.',
  'any.unknown': '{#label} is not known here.',
  'object.unknown': '{#label} is not known here.',
  'object.base': '{#label} must be a group of fields.',
  'array.base': '{#label} must be a list.',
  'array.min': '{#label}: at least {#limit} are needed.',
  'array.max': '{#label}: at most {#limit} are possible.',
  'array.unique': '{#label} stands there twice.',
  'boolean.base': '{#label} must be yes or no.',
  'string.base': '{#label} must be text.',
  'string.empty': '{#label} is empty.',
  'string.max': '{#label} may have at most {#limit} characters.',
  'string.guid': '{#label} is not an id.',
  'number.base': '{#label} must be a number.',
  'number.integer': '{#label} must be a whole number.',
  'number.min': '{#label} must be at least {#limit}.',
  'number.max': '{#label} must be at most {#limit}.',
  'number.unsafe': '{#label} is too large.',
  'number.infinity': '{#label} must be a number.',
  'extent.order': '{#label}: the last place must lie to the right of and behind the first.',
  'time.ahead': '{#label} lies in the future: look at the clock of this device.',
  'length.base': '{#label} must be a length, such as 220, 0,2 or 8 1/2 in.',
  'length.min': '{#label} must be at least {#limit} mm.',
  'length.max': '{#label} must be at most {#limit} mm.',
};

/** How every schema is applied, at the server's edge and in forms: all faults at once, nothing unknown. */
export const VALIDATION: Joi.ValidationOptions = {
  abortEarly: false,
  allowUnknown: false,
  messages: MESSAGES,
  errors: { wrap: { label: false } },
};

/** A schema of exactly the keys of a type; what each of them may be is held against the type by a test. */
export const record = <T extends object>(keys: { [Key in keyof T]-?: Joi.Schema }): Joi.ObjectSchema<T> =>
  Joi.object<T>(keys);

/** A client-made id, in either case; kept in the lower one. */
export const idField = () => Joi.string().guid().lowercase().label('The id');

/** Letters, a dash and a number: S-014. */
export const TAG_PATTERN = /^[A-Za-z]{1,4}-\d{1,6}$/;
export const tagField = () =>
  Joi.string()
    .trim()
    .uppercase()
    .pattern(TAG_PATTERN)
    .messages({ 'string.pattern.base': '{#label} must be letters, a dash and a number, such as S-014.' })
    .label('Tag');
/** Something that leaves ink: letters, figures, marks, signs. */
const SEEN = /[\p{L}\p{N}\p{P}\p{S}]/u;
/** Control characters, ends of lines, and marks that turn the direction of what stands around them. */
const UNFIT = /[\p{Cc}\p{Zl}\p{Zp}\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069\uFEFF]/u;

/** One line of text for people: something of it can be seen, and nothing in it bends what stands beside it. */
export const nameField = (label: string, most = 60) =>
  Joi.string()
    .trim()
    .min(1)
    .max(most)
    .pattern(SEEN)
    .pattern(UNFIT, { invert: true })
    .messages({
      'string.pattern.base': '{#label} needs at least one letter, figure or sign that can be seen.',
      'string.pattern.invert.base':
        '{#label} holds characters that can’t be seen, such as an end of line. Type it anew.',
    })
    .label(label);

/** 2100: what is later is no time of a shop. */
const LATEST = Date.UTC(2100, 0, 1);
/** Time in epoch milliseconds, UTC. */
export const timeField = (label: string) => Joi.number().integer().min(0).max(LATEST).label(label);

/** Clocks and zones differ by up to a day. */
const AHEAD = 86_400_000;

/**
 * When something was done, as whoever did it tells: no later than a day from the server's clock, where that is known
 * (`context.now`). Epoch milliseconds, UTC.
 */
export const toldTime = (label: string) =>
  timeField(label).custom((at: number, helpers) => {
    const now = (helpers.prefs.context as { now?: number } | undefined)?.now;
    return now !== undefined && at > now + AHEAD ? helpers.error('time.ahead') : at;
  });

/** A length in mm, as a number or as people type it ("0,2", "8 1/2 in"). */
export function lengthField(label: string, { min, max }: { min: number; max: number }): Joi.AnySchema<number> {
  return Joi.any()
    .custom((value: unknown, helpers) => {
      const length = typeof value === 'number' ? value : typeof value === 'string' ? readLength(value) : null;
      if (length === null || !Number.isFinite(length)) return helpers.error('length.base');
      if (length < min) return helpers.error('length.min', { limit: min });
      if (length > max) return helpers.error('length.max', { limit: max });
      return length;
    })
    .meta({
      swaggerOverride: true,
      swagger: { type: 'number', minimum: min, maximum: max, description: `${label}, mm` },
    })
    .label(label);
}

/** The rectangle between the outermost readings of a height map, mm. */
export const extentSchema = Joi.object({
  x0: lengthField('First x', { min: -5000, max: 5000 }).required(),
  y0: lengthField('First y', { min: -5000, max: 5000 }).required(),
  x1: lengthField('Last x', { min: -5000, max: 5000 }).required(),
  y1: lengthField('Last y', { min: -5000, max: 5000 }).required(),
}).custom((value: { x0: number; y0: number; x1: number; y1: number }, helpers) =>
  value.x1 > value.x0 && value.y1 > value.y0 ? value : helpers.error('extent.order'),
);

/** One page of a list: where it goes on, or null at its end. */
export interface Page<T> {
  items: T[];
  next: string | null;
}

/** The one shape of every error. `fields` names inputs by their path ("adjusters.0.pitch"). */
export interface ErrorAnswer {
  error: { code: string; message: string; fields?: Record<string, string> };
  /** With code "stale": the record as it stands, and as it was sent. */
  current?: unknown;
  yours?: unknown;
}

/** A number that is no length, as a number or as people type it ("12,5"). */
export function numberField(
  label: string,
  { min, max, whole = false }: { min: number; max: number; whole?: boolean },
): Joi.AnySchema<number> {
  return Joi.any()
    .custom((value: unknown, helpers) => {
      const text = typeof value === 'string' ? value.trim().replace(',', '.').replace('\u2212', '-') : value;
      const number =
        typeof text === 'string' && text.length <= 40 && /^[-+]?(\d+(\.\d*)?|\.\d+)$/.test(text) ? Number(text) : text;
      if (typeof number !== 'number' || !Number.isFinite(number)) return helpers.error('number.base');
      if (whole && !Number.isInteger(number)) return helpers.error('number.integer');
      if (number < min) return helpers.error('number.min', { limit: min });
      if (number > max) return helpers.error('number.max', { limit: max });
      return number;
    })
    .meta({
      swaggerOverride: true,
      swagger: { type: whole ? 'integer' : 'number', minimum: min, maximum: max, description: label },
    })
    .label(label);
}
