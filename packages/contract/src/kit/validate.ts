import type Joi from 'joi';
import { VALIDATION } from './fields';

export type Validated<T> = { ok: true; value: T } | { ok: false; fields: Record<string, string> };

/**
 * Applies a schema as the house does: every fault at once, by the path of its field.
 * @example validate(areaWriteSchema, {}).fields // { name: 'Name of the area is missing.', … }
 */
export function validate<T>(schema: Joi.Schema, value: unknown, more: Joi.ValidationOptions = {}): Validated<T> {
  const result = schema.validate(value, { ...VALIDATION, ...more });
  if (!result.error) return { ok: true, value: result.value as T };
  const fields: Record<string, string> = {};
  for (const { path, message } of result.error.details) {
    const key = path.join('.');
    fields[key] ??= message;
  }
  return { ok: false, fields };
}
