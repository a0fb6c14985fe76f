import type { LabelsQuery } from '@even-bed/contract';
import { LABEL_SHEETS, labelPlaces } from '@even-bed/core';
import type { Knex } from 'knex';
import path from 'node:path';
import { heavy, heavyTask, type Asker } from '../kernel/heavy';
import { atField, Problem } from '../kernel/problem';
import type { drawLabels, Labelled } from './labelsPdf';

const DRAW = heavyTask<typeof drawLabels>(path.join(__dirname, 'labelsPdf'), 'drawLabels');

/** What stands on the labels of some tags, in the order asked for. @throws Problem a tag that nobody has */
async function named(db: Knex, tags: readonly string[]): Promise<Labelled[]> {
  const upper = tags.map((tag) => tag.toUpperCase());
  const surfaces = (await db('surfaces as s')
    .join('surface_kinds as k', 'k.id', 's.kind_id')
    .whereIn('s.tag', upper)
    .select('s.tag', 'k.name')) as Labelled[];
  const machines = (await db('machines').whereIn('tag', upper).select('tag', 'name')) as Labelled[];
  const byTag = new Map([...surfaces, ...machines].map((item) => [item.tag, item]));
  return upper.map((tag) => {
    const item = byTag.get(tag);
    if (!item) throw atField('tags', `Nobody has the tag ${tag}.`);
    return item;
  });
}

/**
 * A PDF of labels: code, tag in large type, and what it is.
 * @throws Problem a tag that nobody has, too many, a cell that the sheet has not; as `heavy`
 */
export async function labelsPdf(db: Knex, query: LabelsQuery, origin: string, asker: Asker): Promise<Buffer> {
  const sheet = LABEL_SHEETS.find(({ id }) => id === query.sheet)!;
  const tags = query.tags.split(',');
  if (tags.length > 1000) throw new Problem(422, 'too-many', 'At most 1000 labels at once.');
  const items = await named(db, tags);
  let places;
  try {
    places = labelPlaces(sheet, items.length, query.cells?.split(',').map(Number));
  } catch {
    throw atField('cells', `This sheet has cells 0 to ${sheet.columns * sheet.rows - 1}.`);
  }
  return Buffer.from(await heavy(DRAW, { sheet, items, places, origin }, asker));
}
