import type { ErrorAnswer } from '@even-bed/contract';

export interface ReadableError {
  code: string;
  message: string;
  fields: Record<string, string>;
  current?: unknown;
}

const NO_ANSWER: ReadableError = {
  code: 'no-answer',
  message: 'The server does not answer. What you typed stays here; try again when it is back.',
  fields: {},
};

/** What a failed request says to a person: the server's own words, or that it doesn't answer. */
export function errorOf(error: unknown): ReadableError | null {
  if (error === undefined || error === null) return null;
  const data = (error as { data?: unknown }).data;
  if (isAnswer(data)) return { ...data.error, fields: data.error.fields ?? {}, current: data.current };
  return NO_ANSWER;
}

export function isAnswer(data: unknown): data is ErrorAnswer {
  const error = (data as ErrorAnswer | null | undefined)?.error;
  return typeof error?.code === 'string' && typeof error.message === 'string';
}
