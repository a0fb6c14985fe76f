// Looks at every page of a shop's file, in a thread of its own: a large one takes seconds.
const { parentPort, workerData } = require('node:worker_threads');
const Database = require('better-sqlite3');

let fault = null;
try {
  const file = new Database(workerData, { fileMustExist: true, readonly: true });
  const said = file.pragma('quick_check(1)', { simple: true });
  if (said !== 'ok') fault = String(said);
  file.close();
} catch (error) {
  fault = error instanceof Error ? error.message : String(error);
}
parentPort.postMessage(fault);
