// For work on the console: the demo's service, and Vite's server with the sources in front of it.
import { spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const service = spawn(process.execPath, [join(root, 'bin', 'syndexa'), 'demo'], { stdio: 'inherit' });
const vite = spawn(process.execPath, [join(root, 'node_modules', 'vite', 'bin', 'vite.js')], {
  cwd: root,
  stdio: 'inherit',
});
const stop = () => {
  service.kill('SIGTERM');
  vite.kill('SIGTERM');
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
service.on('exit', stop);
