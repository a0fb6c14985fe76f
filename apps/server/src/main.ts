import { spawn } from 'node:child_process';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import fs from 'node:fs';
import type { Server } from 'node:net';
import path from 'node:path';
import QRCode from 'qrcode';
import pino, { type Logger } from 'pino';
import type { Knex } from 'knex';
import { connect, migrate, pendingMigrations } from './db/connect';
import { buildApp } from './app/app';
import { ourHosts } from './app/ourHosts';
import { keepEditions } from './care/procedureStore';
import { countPeople } from './people/store';
import { backupIsDue, finishRestore, lastBackupAt, listBackups, makeBackup } from './shop/backup';
import { takeFolder } from './db/folderLock';
import { FirstCode, newFirstCode } from './kernel/firstCode';
import { networksOf } from './kernel/networks';
import { Damage, giveUp } from './shop/damage';
import { databaseFile, photoFolder, settingsFrom } from './settings';
import { serve, type Served } from './tls/serve';

/** Serves a shop from its data folder until it is told to stop. */
async function main(): Promise<void> {
  // Nobody else on this host reads the shop's data or its backups.
  process.umask(0o077);
  const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
  const settings = settingsFrom(process.env, 'data');
  const { port, host, dataFolder, keepBackups, hosts, consoleNetworks, proxies } = settings;
  const isOurs = ourHosts([host, ...hosts]);
  const letGo = takeFolder(dataFolder);
  const finished = finishRestore(dataFolder);
  if (finished !== null) process.stdout.write(`${finished}\n`);
  refuseEmptyBesideBackups(dataFolder);
  const clientFolder = path.resolve(__dirname, '../../client/dist');
  const db = connect(databaseFile(dataFolder));
  await upgrade(db, { dataFolder, keepBackups });
  await keepEditions(db, Date.now());
  const asked = (await countPeople(db)) === 0 ? newFirstCode() : null;
  const firstCode = new FirstCode(asked, { onNew: sayCode });
  const damage = new Damage(dataFolder);
  const app = buildApp({
    db,
    log,
    clientFolder: fs.existsSync(clientFolder) ? clientFolder : undefined,
    photoFolder: photoFolder(dataFolder),
    firstCode,
    isOurs,
    reach: () => served.reach(portOf(server, port)),
    proxies,
    networks: networksOf(consoleNetworks),
    damage,
    lastBackup: () => (keepBackups > 0 ? lastBackupAt(dataFolder, Date.now()) : null),
  });
  const served = await serve(app.callback(), {
    settings,
    isOurs,
    onError: (error) => log.error({ err: error }, 'the certificate could not be renewed'),
  });
  const { server } = served;
  server.listen(port, host);
  server.on('error', (error: NodeJS.ErrnoException) => {
    const message =
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program. Choose another one with PORT, such as PORT=${port + 1}.`
        : `Cannot listen on ${host}:${port}: ${error.message}`;
    process.stderr.write(`${message}\n`);
    process.exit(1);
  });
  server.on('listening', () => {
    void damage.look().then(() => {
      const words = damage.words();
      if (words !== null) process.stderr.write(`${words}\n`);
    });
    if (keepBackups > 0) backUpDaily(dataFolder, log);
    watchDelay(log);
    const url = `${served.scheme}://${host === '0.0.0.0' ? 'localhost' : host}:${portOf(server, port)}`;
    if (asked !== null) sayCode(asked);
    process.stdout.write(`Even Bed is open at ${url}\nIts data lies in ${dataFolder}\n`);
    void sayHowPhonesGetIn(served, portOf(server, port));
  });
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    // What is under way, an export too, is let end; what idles is not waited for.
    served.closeIdle();
    const hurry = setTimeout(() => served.closeAll(), STOP_WITHIN_MS);
    server.close(() => {
      clearTimeout(hurry);
      void db.destroy().then(() => {
        letGo();
        process.exit(0);
      });
    });
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

const sayCode = (code: string): void => void process.stdout.write(`The first account is made with the code ${code}\n`);

/** The port that it has in the end: 0 asks for any. */
function portOf(server: Server, asked: number): number {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : asked;
}

/** The code that takes a phone to trusting the shop, on the terminal. */
async function sayHowPhonesGetIn({ told, reach }: Served, port: number): Promise<void> {
  if (told !== null) process.stderr.write(`${told}\n`);
  const { trust } = reach(port);
  if (!trust) return;
  const code = await QRCode.toString(
    trust.address,
    process.stdout.isTTY ? { type: 'terminal', small: true } : { type: 'utf8' },
  );
  process.stdout.write(
    `A phone that is new here scans this, or opens ${trust.address}\n${code}\nFingerprint of the shop’s certificate: ${trust.fingerprint}\n`,
  );
}

/** What is under way when the server is told to stop may take so long. */
const STOP_WITHIN_MS = 10_000;
const WATCH_EVERY_MS = 60_000;
/** A delay of the thread that serves everybody that somebody would notice. */
const NOTICED_MS = 200;

/** Says in the log how long requests waited for the thread that serves them. */
function watchDelay(log: Logger): void {
  const delay = monitorEventLoopDelay({ resolution: 10 });
  delay.enable();
  setInterval(() => {
    const [p95, longest] = [delay.percentile(95) / 1e6, delay.max / 1e6].map(Math.round);
    delay.reset();
    if (longest! >= NOTICED_MS) log.warn({ p95, longest }, 'the server was slow to answer, ms');
    else log.info({ p95, longest }, 'delay of the server, ms');
  }, WATCH_EVERY_MS).unref();
}

/** A folder without a database but with backups is a lost shop, not a new one. */
function refuseEmptyBesideBackups(dataFolder: string): void {
  const [latest] = listBackups(dataFolder);
  if (latest === undefined || fs.existsSync(databaseFile(dataFolder))) return;
  throw new Error(
    `There is no database in ${dataFolder}, but there are backups. Put one back: npm run restore -- ${latest}\nFor a new shop choose another folder with EVEN_BED_DATA.`,
  );
}

/** Brings an older database to this version, after a backup of it. Refuses a newer one. */
async function upgrade(db: Knex, { dataFolder, keepBackups }: { dataFolder: string; keepBackups: number }) {
  const pending = await pendingMigrations(db);
  if (pending.newer.length > 0)
    throw new Error('This data was written by a newer Even Bed. Start that one; this one would not understand it.');
  if (pending.known && pending.missing.length > 0) {
    const { name } = await makeBackup(dataFolder, { now: Date.now(), keep: Math.max(1, keepBackups) });
    process.stdout.write(`Before the data is brought to this version a backup was made: ${name}\n`);
  }
  await migrate(db);
}

const LOOK_EVERY_MS = 3_600_000;

/** Makes a backup when the last one is a day old, in a process of its own so that nobody waits for it. */
function backUpDaily(dataFolder: string, log: Logger): void {
  const look = () => {
    if (!backupIsDue(dataFolder, Date.now())) return;
    const child = spawn(process.execPath, ['--import', 'tsx', path.join(__dirname, 'shopCommand.ts'), 'backup'], {
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    child.on('exit', (code) =>
      code === 0 ? log.info('daily backup made') : log.error({ said }, 'daily backup failed'),
    );
  };
  look();
  setInterval(look, LOOK_EVERY_MS).unref();
}

main().catch(giveUp);
