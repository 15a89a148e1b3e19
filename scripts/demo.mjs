import { existsSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { bundled, ensureBuilt, ensureInstalled, giveUp, root, run, serve } from './lib.mjs';

// The demonstration: installs and builds what is missing, makes its data once, and serves them.
ensureInstalled();
await ensureBuilt();
const dataDir = join(root, 'data-demo');
const make = [bundled('demo'), dataDir, ...process.argv.slice(2)];
if (!run(process.execPath, make)) giveUp('The demonstration data could not be made: see above.');

// One unit of the valley reads itself: a controller stands in for its own. Where its port is taken, it is silent.
const order = join(dataDir, 'stand-in.json');
if (existsSync(order)) {
  const registers = join(root, 'docs/registers/stand-in.csv');
  const standIn = spawn(process.execPath, [bundled('stand-in'), order, registers], {
    cwd: root,
    stdio: 'inherit',
  });
  process.on('exit', () => standIn.kill());
}

serve({
  ENTRETIEN_DATA_DIR: dataDir,
  ENTRETIEN_GATEWAY: process.env.ENTRETIEN_GATEWAY ?? 'yes',
  ...(process.env.ENTRETIEN_GATEWAY === 'no'
    ? {}
    : { ENTRETIEN_DEVICES: process.env.ENTRETIEN_DEVICES ?? '127.0.0.1:1502' }),
  // Its data are made again at will: a backup of them a day would only take room.
  ENTRETIEN_BACKUPS: process.env.ENTRETIEN_BACKUPS ?? 'no',
});
