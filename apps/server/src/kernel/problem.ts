/** An answer that is not what was asked for, with a message for a person. */
export class Problem extends Error {
  override readonly name = 'Problem';
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly more: { fields?: Record<string, string>; current?: unknown; yours?: unknown; retryAfter?: number } = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string) => new Problem(404, 'not-found', `${what} is not here.`);

/** A record was changed by somebody else since the sender saw it: both versions go back. */
export const stale = (what: string, current: unknown, yours: unknown) =>
  new Problem(409, 'stale', `${what} was changed by somebody else meanwhile. Look at both versions and save again.`, {
    current,
    yours,
  });

/** A client-made id that already names something else. */
export const idTaken = (what: string) => new Problem(409, 'id-taken', `This id already belongs to another ${what}.`);

/** What one field of a write has wrong, beside everything that validation can know. */
export const atField = (field: string, message: string) =>
  new Problem(422, 'not-valid', message, { fields: { [field]: message } });
