// For work on the code: the demo's service, started again whenever its sources change, and Vite's server with the
// sources of the console in front of it.
import { spawn, spawnSync } from 'node:child_process';
import { dirname, join, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { watch } from 'chokidar';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const node = (script, ...args) => [process.execPath, [join(root, ...script), ...args]];
const ownConsole = join(root, 'src', 'console') + sep;

let service;
let isBuilding = false;
let isWanted = false;

/** Builds the service and starts it; with a fault in the sources the one that runs goes on. */
async function restart() {
  isWanted = true;
  if (isBuilding) return;
  isBuilding = true;
  while (isWanted) {
    isWanted = false;
    const [command, args] = node(['scripts', 'build.mjs'], 'node');
    if (spawnSync(command, args, { cwd: root, stdio: 'inherit' }).status !== 0) continue;
    await ended(service);
    const [demo, rest] = node(['bin', 'run-bundle.cjs'], 'demo');
    service = spawn(demo, rest, { stdio: 'inherit' });
  }
  isBuilding = false;
}

function ended(child) {
  if (!child || child.exitCode !== null || child.signalCode !== null) return undefined;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  return gone;
}

await restart();
const vite = spawn(...node(['node_modules', 'vite', 'bin', 'vite.js']), { cwd: root, stdio: 'inherit' });
let pause;
const watcher = watch([join(root, 'src'), join(root, 'profiles')], {
  ignoreInitial: true,
  ignored: (path) => path.startsWith(ownConsole),
});
watcher.on('all', () => {
  clearTimeout(pause);
  pause = setTimeout(restart, 150);
});

async function stop() {
  await watcher.close();
  vite.kill('SIGTERM');
  await ended(service);
  process.exit(0);
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
vite.on('exit', stop);
