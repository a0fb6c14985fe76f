import type { Knex } from 'knex';
import { connect, migrate } from '../db/connect';
import { loadDemo } from './loadDemo';

const NOW = Date.UTC(2026, 10, 25, 9);

async function demo(seed: string): Promise<{ db: Knex; dump: Record<string, unknown[]> }> {
  const db = connect(':memory:');
  await migrate(db);
  await loadDemo(db, { now: NOW, seed, consoleBasePort: 4300, secretCost: { log2N: 4, r: 1, p: 1 } });
  const tables = [
    ...['areas', 'machines', 'adjusters', 'rules', 'level_checks', 'level_rounds', 'made_turns', 'book'],
    ...['surfaces', 'mounts', 'stack_layers', 'prints', 'offsets', 'inspections'],
  ];
  const dump: Record<string, unknown[]> = {};
  for (const table of tables) dump[table] = await db(table);
  return { db, dump };
}

test('the same seed and now give the same shop, another seed another one', async () => {
  const [first, second, other] = await Promise.all([demo('a'), demo('a'), demo('b')]);
  expect(second.dump).toEqual(first.dump);
  expect(other.dump['level_rounds']).not.toEqual(first.dump['level_rounds']);
  await Promise.all([first, second, other].map(({ db }) => db.destroy()));
});

test('the hall is there, its year lies in the past, and the bowed bed was cured', async () => {
  const { db, dump } = await demo('saltmarsh');
  expect(dump['areas']).toHaveLength(3);
  expect(await db('machines').where({ family: 'filament' })).toHaveLength(16);
  expect(await db('machines').where({ family: 'resin' })).toHaveLength(6);
  const late = await db('book').where('at', '>', NOW);
  expect(late).toEqual([]);
  const due = await db('rules').where('next_due_at', '<=', NOW);
  expect(due.length).toBeGreaterThan(2);
  const whimbrel = await db('level_checks as c')
    .join('machines as m', 'm.id', 'c.machine_id')
    .where('m.name', 'Whimbrel')
    .orderBy('c.started_at')
    .select('c.after_range', 'c.note', 'c.aim');
  const cured = whimbrel.findIndex(({ note }) => String(note).includes('belt clamp'));
  expect(cured).toBeGreaterThan(3);
  expect(whimbrel.slice(0, cured).every(({ after_range, aim }) => after_range > aim)).toBe(true);
  expect(whimbrel.slice(cured).every(({ after_range, aim }) => after_range <= aim)).toBe(true);
  await db.destroy();
});

test("the hall's surfaces: stories in the book, holds that end later, one place for each", async () => {
  const { db } = await demo('saltmarsh');
  const surfaces = (await db('surfaces')) as { tag: string; machine_id: string | null; hold_until: number | null }[];
  expect(surfaces.length).toBeGreaterThanOrEqual(60);
  expect(surfaces.filter(({ hold_until }) => hold_until !== null && hold_until > NOW).length).toBeGreaterThanOrEqual(3);
  const open = (await db('mounts').whereNull('to_at')) as { surface_id: string }[];
  expect(open).toHaveLength(surfaces.filter(({ machine_id }) => machine_id !== null).length);
  const told = ((await db('book').select('words')) as { words: string }[]).map(({ words }) => words).join('\n');
  for (const story of [/S-014: coat: faded/, /quarter turn wrong/, /P-003.*Lapped/, /cut short.*harbour fair/])
    expect(told).toMatch(story);
  const share = async (tag: string, from: number, to: number) => {
    const [row] = (await db('prints as p')
      .join('surfaces as s', 's.id', 'p.surface_id')
      .where('s.tag', tag)
      .whereBetween('p.ended_at', [NOW - (365 - from) * 86_400_000, NOW - (365 - to) * 86_400_000])
      .select(db.raw('1 - avg(p.held) as failed'))) as { failed: number }[];
    return row!.failed;
  };
  expect(await share('S-014', 95, 125)).toBeGreaterThan(2 * (await share('S-014', 126, 206)));
  await db.destroy();
});
