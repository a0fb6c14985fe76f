import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** Takes away the demo shops that this run's tests copied from. */
export default function sweep() {
  for (const name of fs.readdirSync(os.tmpdir()))
    if (name.startsWith(`even-bed-e2e-demo-${process.pid}-`))
      fs.rmSync(path.join(os.tmpdir(), name), { recursive: true, force: true });
}
