import { checkDatabase } from './shop/copy';
import { databaseFile, settingsFrom } from './settings';
import { connect } from './db/connect';
import { hashSecret, newToken } from './people/secrets';
import { resetLead } from './people/store';
import { bookHeads, headMissing } from './shop/bookHeads';
import { listBackups, makeBackup, restoreBackup } from './shop/backup';
import { giveUp } from './shop/damage';

/** npm run backup · npm run restore -- NAME · npm run verify · npm run reset-lead -- NAME */
async function main(): Promise<void> {
  process.umask(0o077);
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
      const heads = bookHeads(dataFolder);
      const db = connect(databaseFile(dataFolder));
      const missing = await headMissing(db, heads).finally(() => db.destroy());
      say(missing ?? `It holds the last line of each of ${heads.length} backups.`);
      if (missing !== null) process.exitCode = 1;
      return undefined;
    }
    case 'reset-lead': {
      if (name === undefined) throw new Error('Say whose: npm run reset-lead -- "Name"');
      const secret = newToken().slice(0, 12);
      const db = connect(databaseFile(dataFolder));
      try {
        await resetLead(db, { name, hash: await hashSecret(secret), now: Date.now() });
      } finally {
        await db.destroy();
      }
      return say(`${name} signs in with ${secret} now, and changes it under “You”.`);
    }
    default:
      throw new Error('Say what to do: backup, restore, verify or reset-lead.');
  }
}

main().catch(giveUp);
