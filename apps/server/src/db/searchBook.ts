import type { Knex } from 'knex';

/** Up to this many lines a search is made a list of; with more, the lines that a filter leads to are looked at one by one. */
const RARE = 20_000;

const wordsOf = (text: string): string[] =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether every word begins some word of a text, as the full-text index sees it: without capitals and accents. */
export function holdsWords(text: string, words: string): boolean {
  const there = wordsOf(text);
  return wordsOf(words).every((word) => there.some((known) => known.startsWith(word)));
}

export interface BookSearch {
  search: string;
  /** Nothing else narrows the book. */
  alone: boolean;
  /** Only lines before this running number. */
  before: number | undefined;
  /** Lines that are wanted at most. */
  limit: number;
}

/**
 * Narrows a query over `book`, newest line first, to the lines in which every word of a search begins some word of the
 * text. Full-text search as only SQLite knows it (FTS5), and `holds_words` as the connection adds it.
 */
export async function matchBookText(db: Knex, query: Knex.QueryBuilder, found: BookSearch): Promise<void> {
  const { search, alone, before, limit } = found;
  const words = wordsOf(search);
  if (words.length === 0) return;
  const match = words.map((word) => `"${word}"*`).join(' ');
  const lines = () => db.select('rowid').from('book_text').whereRaw('book_text MATCH ?', [match]);
  if (alone) {
    const newest = lines().orderBy('rowid', 'desc').limit(limit);
    if (before !== undefined) void newest.where('rowid', '<', before);
    void query.whereIn('book.seq', newest);
    return;
  }
  const [row] = (await db.count('* as many').from(lines().limit(RARE).as('some'))) as { many: number }[];
  if (row!.many < RARE) void query.whereIn('book.seq', lines());
  else void query.whereRaw('holds_words(book.words, ?)', [words.join(' ')]);
}
