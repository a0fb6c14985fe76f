import type { ErrorAnswer } from '@even-bed/contract';
import { DegenerateAdjusters, DegenerateInput, ImpossibleEvent, UnreadableHeights } from '@even-bed/core';
import { Problem } from '../kernel/problem';
import { isDamage } from '../shop/damage';

const SUMS = [DegenerateAdjusters, DegenerateInput, UnreadableHeights];

/** The one shape of every error. Only messages written for people leave; anything else becomes a plain 500. */
export function errorAnswer(error: unknown): { status: number; body: ErrorAnswer } {
  if (error instanceof Problem) {
    const { status, code, message, more } = error;
    const { fields, retryAfter: _, ...rest } = more;
    return { status, body: { error: { code, message, ...(fields ? { fields } : {}) }, ...rest } };
  }
  if (SUMS.some((kind) => error instanceof kind)) {
    const { code, message } = error as DegenerateInput;
    return { status: 422, body: { error: { code, message } } };
  }
  if (error instanceof ImpossibleEvent)
    return { status: 409, body: { error: { code: error.code, message: error.message } } };
  const { status, code: cause } = (error ?? {}) as { status?: unknown; code?: unknown };
  if (cause === 'ENOSPC' || cause === 'SQLITE_FULL')
    return plain(
      507,
      'disk-full',
      'The server’s disk is full: nothing was saved. Whoever runs it has to make room; then try again.',
    );
  if (cause === 'EROFS' || cause === 'EACCES' || cause === 'SQLITE_READONLY')
    return plain(
      507,
      'read-only',
      'The server may not write to its disk: nothing was saved. Whoever runs it has to look.',
    );
  if (isDamage(error))
    return plain(
      500,
      'damaged',
      'The shop’s file on the server is damaged, and this part of it can’t be read. A lead finds on the bench what helps.',
    );
  if (status === 413) return plain(413, 'too-large', 'That is more than the server takes in one piece.');
  // An address that leads out of the folder of the client, or is none.
  if (status === 403 || status === 404) return plain(404, 'not-found', 'There is nothing at this address.');
  if (status === 400) return plain(400, 'bad-json', 'The request is not readable JSON.');
  return plain(500, 'internal', 'Something went wrong on the server. Nothing was saved; try again.');
}

const plain = (status: number, code: string, message: string) => ({ status, body: { error: { code, message } } });
