import type { PracticeWrite } from '@even-bed/contract';
import { practiceBed, scorePractice } from '@even-bed/core/level/practiceBed';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { atField } from '../kernel/problem';

/** Writes a round on the practice bed into the book, scored anew. The same again changes nothing. @returns its points */
export async function keepPractice(
  db: Knex,
  id: string,
  { at, lesson, seed, acts, said }: PracticeWrite,
): Promise<number> {
  const { points, touches, best } = scored();
  const known = (await db('book').where({ kind: 'practised', at }).select('data')) as { data: string }[];
  if (!known.some(({ data }) => (JSON.parse(data) as { practiceId: string }).practiceId === id))
    await writeEntry(db, { at, kind: 'practised', data: { practiceId: id, lesson, seed, points, touches, best } });
  return points;

  function scored() {
    try {
      return scorePractice(practiceBed(lesson, seed), acts, said);
    } catch (error) {
      if (error instanceof RangeError) throw atField('acts', error.message);
      throw error;
    }
  }
}
