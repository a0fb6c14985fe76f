import fs from 'node:fs';
import { connect, migrate } from './db/connect';
import { loadDemo } from './demo/loadDemo';
import { databaseFile, photoFolder, settingsFrom } from './settings';

/** Puts a fresh copy of the demo shop into a data folder, in place of whatever copy lay there. */
async function main(): Promise<void> {
  const { dataFolder } = settingsFrom(process.env, '.demo');
  const file = databaseFile(dataFolder);
  for (const suffix of ['', '-wal', '-shm']) fs.rmSync(file + suffix, { force: true });
  fs.rmSync(photoFolder(dataFolder), { recursive: true, force: true });
  const db = connect(file);
  await migrate(db);
  await loadDemo(db, {
    now: Number(process.env['EVEN_BED_DEMO_NOW'] ?? Date.now()),
    seed: process.env['EVEN_BED_DEMO_SEED'] ?? 'saltmarsh',
    photoFolder: photoFolder(dataFolder),
    consoleBasePort: Number(process.env['EVEN_BED_CONSOLES'] ?? 4300),
  });
  await db.destroy();
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
