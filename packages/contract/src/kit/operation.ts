import type Joi from 'joi';

/** looker: sees · technician: does · lead: rules, people, corrections, retiring, restoring. Each may what the one before may. */
export const ROLES = ['looker', 'technician', 'lead'] as const;
export type Role = (typeof ROLES)[number];

/** Least role that may; "anyone" needs no sign-in. */
export type Access = Role | 'anyone';

/** What an answer shows and a write changes: what was fetched of these is old after it. */
export const RECORDS = [
  'Area',
  'Book',
  'Check',
  'Inspection',
  'Job',
  'Kind',
  'Level',
  'List',
  'Machine',
  'Offset',
  'Person',
  'Photo',
  'Plan',
  'Print',
  'Procedure',
  'Scan',
  'Session',
  'Settings',
  'Stack',
  'Surface',
  'Token',
] as const;
export type RecordKind = (typeof RECORDS)[number];

/** An answer that is a file; its media type stands in `gives`. */
export type FileAnswer = unknown;

/** A file that comes as the body of a request. */
export interface TakesFile {
  types: readonly string[];
  /** Bytes at most. */
  limit: number;
  tooLarge: string;
  /** Large: it is put into a file and not held in memory. */
  toFile?: true;
}

/** What is said of an operation, once: the server's route, the client's endpoint, the outbox and the API's description follow. */
export interface Described<SchemaName extends string = string> {
  method: 'get' | 'put' | 'post';
  path: `/${string}`;
  access: Access;
  /** A machine's own token may do this for that machine. */
  token?: true;
  /** A read that is of whoever asks: another program's token may not. */
  personal?: true;
  /** A read that is answered as things stand now, or not at all: no device keeps its answer for when there is no signal. */
  fresh?: true;
  summary: string;
  /** What the answer holds, for the documentation. */
  answers: string;
  /** Name of the area's schema for the query; `after` and `limit` of a list are added to it. */
  query?: SchemaName;
  /** Name of the area's schema for the body. Left out in a write: it has none. */
  body?: SchemaName;
  /** Comes in pages of so many items: usually, and at most. */
  list?: { usual: number; most: number };
  /** Status of success, where it isn't 200. */
  status?: 201 | 202;
  /** Refusals beyond those that follow from its access, its path and its body. */
  refuses?: readonly (403 | 404 | 409 | 422 | 429)[];
  /** Media type of an answer that is no JSON. */
  gives?: string;
  takes?: TakesFile;
  /** Bytes of its JSON body at most, and values in it, where the usual limits are too low. */
  bodyLimit?: number;
  nodes?: number;
  /** Carries a secret, or does slow work before it writes: no transaction round it, and no record of its content. */
  alone?: true;
  /** Of a read: what its answer is made of. */
  shows?: readonly RecordKind[];
  /** Of a write: what is old after it. */
  touches?: readonly RecordKind[];
  /** May wait on a device without a signal; of one record (a parameter or a field names it) each waits for the one before. */
  waits?: { of: string };
}

/** An operation with what its types are; `types` is never there at run time. */
export interface Operation<
  Answer = unknown,
  Param extends string = string,
  Query = unknown,
  Body = unknown,
> extends Described {
  id: string;
  area: string;
  readonly types?: { answer: Answer; param: Param; query: Query; body: Body };
}

/** Names in a path: "/machines/:machineId/tokens/:id" has machineId and id. */
export type ParamOf<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamOf<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

/** What every list may be asked: where it goes on (the `next` of the page before), and how many. */
export interface PageAsk {
  after?: string | undefined;
  limit: number;
}

type Validated<Schemas, Name> = Name extends keyof Schemas
  ? Schemas[Name] extends Joi.ObjectSchema<infer T>
    ? T
    : never
  : unknown;

type QueryOf<Schemas, D> = (D extends { query: infer Name } ? Validated<Schemas, Name> : unknown) &
  (D extends { list: object } ? PageAsk : unknown);

/** The operations of an area, each with its types. */
export type OperationsOf<Table, Schemas, Answers> = {
  [Id in keyof Table & keyof Answers]: Operation<
    Answers[Id],
    Table[Id] extends { path: infer Path extends string } ? ParamOf<Path> : never,
    QueryOf<Schemas, Table[Id]>,
    Table[Id] extends { body: infer Name } ? Validated<Schemas, Name> : undefined
  > &
    Table[Id];
};

/**
 * The operations of an area. Its schemas are named, not imported, so that who only calls loads no validator; their types and
 * those of the answers are held against the names by the compiler.
 */
export function operations<Schemas, Answers>() {
  return <const Table extends Record<keyof Answers & string, Described<keyof Schemas & string>>>(
    area: string,
    table: Table & Record<Exclude<keyof Table, keyof Answers>, never>,
  ): OperationsOf<Table, Schemas, Answers> =>
    Object.fromEntries(
      Object.entries<Described>(table).map(([id, described]) => [id, { ...described, id, area }]),
    ) as unknown as OperationsOf<Table, Schemas, Answers>;
}

/** The path of an operation with its parameters filled in. */
export const pathOf = (path: string, params: Readonly<Record<string, unknown>>): string =>
  path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])));
