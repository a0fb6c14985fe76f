import { DEFAULT_SETTINGS, type SettingsWrite, type ShopSettings } from '@even-bed/contract';
import type { Knex } from 'knex';
import { writeEntry } from '../kernel/book';
import { stale } from '../kernel/problem';

const KEY = 'shop';

export async function shopSettings(db: Knex): Promise<ShopSettings> {
  const row = (await db('settings').where({ key: KEY }).first()) as { value: string; version: number } | undefined;
  if (!row) return DEFAULT_SETTINGS;
  return { ...DEFAULT_SETTINGS, ...(JSON.parse(row.value) as Partial<ShopSettings>), version: row.version };
}

export async function saveSettings(db: Knex, { at, version, ...settings }: SettingsWrite): Promise<ShopSettings> {
  const now = await shopSettings(db);
  if (now.version !== version) throw stale('The settings', now, { ...settings, version });
  const kept = (await db('settings')
    .insert({ key: KEY, value: JSON.stringify(settings), version: version + 1, updated_at: at })
    .onConflict('key')
    .merge()
    .where('settings.version', version)
    .returning('key')) as unknown[];
  if (kept.length === 0) throw stale('The settings', await shopSettings(db), { ...settings, version });
  const changed = (Object.keys(settings) as (keyof typeof settings)[]).filter((key) => now[key] !== settings[key]);
  await writeEntry(db, {
    at,
    kind: 'settings-changed',
    data: { changed: Object.fromEntries(changed.map((key) => [key, { from: now[key], to: settings[key] }])) },
  });
  return { ...settings, version: version + 1 };
}
