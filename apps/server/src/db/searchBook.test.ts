import fc from 'fast-check';
import { connect } from './connect';
import { holdsWords } from './searchBook';

const WORDS = ['Dunlin', 'dun', 'Ré', 're', 'S-014', '0.14', 'held', 'hélder', 'ASA', 'a', 'print'];
const text = fc.array(fc.constantFrom(...WORDS), { maxLength: 6 }).map((words) => words.join(' '));

// SQLite's own full-text index (FTS5, unicode61) says what a search finds; both ways of searching must agree with it.
test('a line holds the words of a search exactly when the full-text index finds it', async () => {
  const db = connect(':memory:');
  await db.raw(`CREATE VIRTUAL TABLE texts USING fts5(text, tokenize='unicode61 remove_diacritics 2')`);
  await fc.assert(
    fc.asyncProperty(text, text, async (line, search) => {
      const words = search.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
      fc.pre(words.length > 0);
      await db.raw('DELETE FROM texts');
      await db('texts').insert({ text: line });
      const match = words.map((word) => `"${word}"*`).join(' ');
      const found = (await db('texts').whereRaw('texts MATCH ?', [match])) as unknown[];
      const [byFunction] = (await db.raw('SELECT holds_words(?, ?) AS holds', [line, search])) as { holds: number }[];
      expect([holdsWords(line, search), byFunction!.holds === 1]).toEqual([found.length > 0, found.length > 0]);
    }),
    { seed: 5, numRuns: 400 },
  );
  await db.destroy();
});
