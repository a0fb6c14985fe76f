import { checkDatabase } from './db/copy';
import { databaseFile, settingsFrom } from './settings';
import { listBackups, makeBackup, restoreBackup } from './shop/backup';

/** npm run backup · npm run restore -- NAME · npm run verify */
async function main(): Promise<void> {
  const [, , command, name] = process.argv;
  const { dataFolder, keepBackups } = settingsFrom(process.env, 'data');
  const say = (text: string): void => void process.stdout.write(`${text}\n`);
  switch (command) {
    case 'backup': {
      const made = await makeBackup(dataFolder, { now: Date.now(), keep: keepBackups || 1 });
      return say(`Backup ${made.name} is made and checked. ${made.message}`);
    }
    case 'restore': {
      if (name === undefined) {
        const there = listBackups(dataFolder);
        return say(
          there.length > 0
            ? `Say which: npm run restore -- ${there[0]}\n${there.join('\n')}`
            : `There is no backup in ${dataFolder} yet: npm run backup`,
        );
      }
      const { aside, message } = await restoreBackup(dataFolder, name, Date.now());
      return say(`Backup ${name} is in its place. ${message}\nWhat was there before lies in ${aside}`);
    }
    case 'verify': {
      const { sound, message, book } = await checkDatabase(databaseFile(dataFolder));
      say(book ? `${message}\nMark of the last line: ${book.lastHash}` : message);
      if (!sound) process.exitCode = 1;
      return undefined;
    }
    default:
      throw new Error('Say what to do: backup, restore or verify.');
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
