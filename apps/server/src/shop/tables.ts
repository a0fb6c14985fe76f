/**
 * What a shop takes along, in the order in which its tables stand on each other. Left out on purpose: sessions, wrong
 * sign-ins and answers to writes, which belong to devices and not to the shop.
 */
export interface TakenTable {
  name: string;
  /** What the rows are sorted by, so that the same shop gives the same bytes. */
  order: readonly string[];
  /** Columns that stand in the JSON alone: hashes of secrets have no place in a table that is opened in an office. */
  secret?: readonly string[];
  /** Columns that hold JSON, or nothing. */
  json?: readonly string[];
  /** Rows that are left out. */
  without?: { column: string; value: string };
}

export const TAKEN_TABLES: readonly TakenTable[] = [
  { name: 'people', order: ['id'], secret: ['secret'] },
  { name: 'settings', order: ['key'], json: ['value'], without: { column: 'key', value: 'demo-accounts' } },
  { name: 'areas', order: ['id'] },
  { name: 'machines', order: ['id'], json: ['map_extent', 'console'] },
  { name: 'adjusters', order: ['machine_id', 'id'] },
  { name: 'rules', order: ['id'] },
  { name: 'machine_tokens', order: ['id'], secret: ['token_hash'] },
  { name: 'level_checks', order: ['id'], json: ['setup'] },
  { name: 'level_rounds', order: ['id'], json: ['reading', 'plan', 'small_map'] },
  { name: 'made_turns', order: ['round_id', 'adjuster_id'] },
  { name: 'level_notes', order: ['id'], json: ['raw', 'result'] },
  { name: 'z_marks', order: ['id'] },
  { name: 'gauges', order: ['id'] },
  { name: 'surface_kinds', order: ['id'], json: ['sides', 'faces', 'life', 'care'] },
  { name: 'surfaces', order: ['id'] },
  { name: 'mounts', order: ['seq'] },
  { name: 'shape_records', order: ['id'], json: ['raw', 'result'] },
  { name: 'stack_layers', order: ['machine_id', 'position'] },
  { name: 'prints', order: ['id'], json: ['places'] },
  { name: 'offsets', order: ['id'] },
  { name: 'inspections', order: ['id'], json: ['numbers'] },
  { name: 'photos', order: ['id'] },
  { name: 'print_lists', order: ['id'], json: ['columns', 'matched'] },
  { name: 'print_list_lines', order: ['list_id', 'line'], json: ['cells'] },
  { name: 'plans', order: ['id'], json: ['input', 'answer'] },
  { name: 'procedures', order: ['id', 'version'], json: ['doc'] },
  { name: 'jobs', order: ['id'], json: ['doc', 'choices', 'parts', 'sides', 'stack_before'] },
  { name: 'job_events', order: ['job_id', 'seq'], json: ['event', 'recorded'] },
  { name: 'book', order: ['seq'], json: ['data'] },
];

/** Tables that stay, each with why. */
export const LEFT_TABLES: Readonly<Record<string, string>> = {
  sessions: 'belong to devices',
  sign_in_failures: 'belong to devices',
  known_devices: 'belong to devices',
  writes: 'answers that devices may ask for again',
  procedure_editions: 'what ships with the program, kept at each start',
  book_text: 'the index of the book’s words, made anew',
  knex_migrations: 'of the database itself',
  knex_migrations_lock: 'of the database itself',
};
