import type { Operation, RecordKind } from '@even-bed/contract';
import { pathOf } from '@even-bed/contract/kit/operation';

/** Why an operation goes no further by itself. */
export interface Parked {
  /** refused: the server said no · broken: it failed on it again and again. */
  kind: 'refused' | 'broken';
  /** For the person. */
  reason: string;
  /** What the server said of single fields, by their place in the body. */
  fields?: Record<string, string>;
  at: number;
}

/** An operation that was done on this device and waits for the server. Its key makes sending it twice harmless. */
export interface Waiting {
  key: string;
  /** Where it stands among the others: what was done first is sent first. */
  order: number;
  operation: string;
  method: 'put' | 'post';
  /** Its address under /api. */
  path: string;
  params: Record<string, string>;
  body: unknown;
  /** The record that it is of: of one record each waits for the one before. */
  of: string;
  /** What is old once it is done. */
  touches: RecordKind[];
  /** What it is, for people; and the page where it is seen. */
  what: string;
  at: string | null;
  /** Who did it: it is sent in nobody else's name. */
  personId: string | null;
  /** How often the server failed on it. */
  tries: number;
  parked: Parked | null;
}

/** Whether it is this person's to send, change or let go of. */
export const isOf = ({ personId }: Pick<Waiting, 'personId'>, person: string | null): boolean =>
  person !== null && (personId === null || personId === person);

type Types<Op> = Op extends Operation<unknown, infer Param, unknown, infer Body> ? { param: Param; body: Body } : never;

/** What is said of an operation that may wait. */
export interface Said<Op> {
  params: Record<Types<Op>['param'], string>;
  body: Types<Op>['body'];
  key: string;
  what: string;
  at?: string;
}

/** The record that an operation is of: its area, and what names the record. */
export const recordOf = (area: string, id: string): string => `${area}:${id}`;

let lastOrder = 0;
/** Ascending on this device: by the clock, and one after the other where that stands or was set back. */
const nextOrder = (): number => (lastOrder = Math.max(Date.now(), lastOrder + 0.001));

/** An operation as it waits. Only those that may wait by their definition can be given. */
export function waitingFor<Op extends Operation & { waits: { of: string } }>(
  operation: Op,
  { params, body, key, what, at }: Said<Op>,
): Waiting {
  const { id, area, method, path, touches = [], waits } = operation;
  const named = (params as Record<string, string>)[waits.of];
  return {
    key,
    order: nextOrder(),
    operation: id,
    method: method as 'put' | 'post',
    path: pathOf(path, params),
    params,
    body,
    of: recordOf(area, named ?? key),
    touches: [...touches],
    what,
    at: at ?? null,
    personId: null,
    tries: 0,
    parked: null,
  };
}
