import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import pino, { type Logger } from 'pino';
import { connect, migrate } from './db/connect';
import { buildApp } from './http/app';
import { backupIsDue, holdFolder } from './shop/backup';
import { databaseFile, photoFolder, settingsFrom } from './settings';

/** Serves a shop from its data folder until it is told to stop. */
async function main(): Promise<void> {
  const log = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
  const { port, host, dataFolder, keepBackups } = settingsFrom(process.env, 'data');
  const clientFolder = path.resolve(__dirname, '../../client/dist');
  const db = connect(databaseFile(dataFolder));
  await migrate(db);
  const app = buildApp({
    db,
    log,
    clientFolder: fs.existsSync(clientFolder) ? clientFolder : undefined,
    photoFolder: photoFolder(dataFolder),
  });
  let letGo = () => {};
  const server = app.listen(port, host);
  server.on('error', (error: NodeJS.ErrnoException) => {
    const message =
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program. Choose another one with PORT, such as PORT=${port + 1}.`
        : `Cannot listen on ${host}:${port}: ${error.message}`;
    process.stderr.write(`${message}\n`);
    process.exit(1);
  });
  server.on('listening', () => {
    letGo = holdFolder(dataFolder);
    if (keepBackups > 0) backUpDaily(dataFolder, log);
    const address = server.address();
    const actual = typeof address === 'object' && address ? address.port : port;
    process.stdout.write(
      `Even Bed is open at http://${host === '0.0.0.0' ? 'localhost' : host}:${actual}\nIts data lies in ${dataFolder}\n`,
    );
  });
  const stop = () => {
    letGo();
    server.closeAllConnections();
    server.close(() => void db.destroy().then(() => process.exit(0)));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
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

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
