import type { Knex } from 'knex';

/**
 * Narrows a query over `book` to the lines in which every word of a search begins some word of the text.
 * Full-text search as only SQLite knows it (FTS5).
 */
export function matchBookText(query: Knex.QueryBuilder, search: string): void {
  const words = search.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  if (words.length === 0) return;
  const match = words.map((word) => `"${word}"*`).join(' ');
  void query.whereIn('book.seq', function inText() {
    void this.select('rowid').from('book_text').whereRaw('book_text MATCH ?', [match]);
  });
}
