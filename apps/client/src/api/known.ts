import { errorOf } from './errorOf';

/** A record as the server has it, or as a list that this device has kept says. */
export interface Known<T> {
  data: T | undefined;
  error: unknown;
  refetch: () => unknown;
}

/** Without a signal: what the lists, that this device has kept, say. */
export const isSilent = (error: unknown): boolean => errorOf(error)?.code === 'no-answer';
