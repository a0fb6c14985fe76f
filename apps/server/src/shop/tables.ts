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
  /** Rows that are left out. */
  without?: { column: string; value: string };
}

export const TAKEN_TABLES: readonly TakenTable[] = [
  { name: 'people', order: ['id'], secret: ['secret'] },
  { name: 'settings', order: ['key'], without: { column: 'key', value: 'demo-accounts' } },
  { name: 'areas', order: ['id'] },
  { name: 'machines', order: ['id'] },
  { name: 'adjusters', order: ['machine_id', 'id'] },
  { name: 'rules', order: ['id'] },
  { name: 'machine_tokens', order: ['id'], secret: ['token_hash'] },
  { name: 'level_checks', order: ['id'] },
  { name: 'level_rounds', order: ['id'] },
  { name: 'made_turns', order: ['round_id', 'adjuster_id'] },
  { name: 'level_notes', order: ['id'] },
  { name: 'z_marks', order: ['id'] },
  { name: 'gauges', order: ['id'] },
  { name: 'surface_kinds', order: ['id'] },
  { name: 'surfaces', order: ['id'] },
  { name: 'mounts', order: ['seq'] },
  { name: 'shape_records', order: ['id'] },
  { name: 'stack_layers', order: ['machine_id', 'position'] },
  { name: 'prints', order: ['id'] },
  { name: 'offsets', order: ['id'] },
  { name: 'inspections', order: ['id'] },
  { name: 'photos', order: ['id'] },
  { name: 'print_lists', order: ['id'] },
  { name: 'print_list_lines', order: ['list_id', 'line'] },
  { name: 'plans', order: ['id'] },
  { name: 'procedures', order: ['id', 'version'] },
  { name: 'jobs', order: ['id'] },
  { name: 'job_events', order: ['job_id', 'seq'] },
  { name: 'book', order: ['seq'] },
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
