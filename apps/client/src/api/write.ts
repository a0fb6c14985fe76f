/** A write with its client-made id and key. */
export interface Keyed<T> {
  id: string;
  key: string;
  body: T;
}

/** A PUT or POST that may be sent twice: its key makes the second one harmless. */
export const write = <T>(
  path: string,
  { key, body }: Pick<Keyed<T>, 'key' | 'body'>,
  method: 'PUT' | 'POST' = 'PUT',
) => ({
  url: path,
  method,
  headers: { 'Idempotency-Key': key },
  body: body as unknown,
});
