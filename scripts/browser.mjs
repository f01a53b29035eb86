// Chromium for tests and screenshots: Debian's, installed by apt when it is missing and that is possible.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

export const chromiumPath = '/usr/bin/chromium';

/** Flags that keep a headless browser to this machine. */
export const chromiumFlags = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Installs Debian packages that are missing, when this machine lets us; says plainly when it does not. */
export function ensurePackages(wanted) {
  const missing = Object.entries(wanted).filter(([, file]) => !existsSync(file));
  if (missing.length === 0) return true;
  const names = missing.map(([name]) => name);
  const canInstall = existsSync('/usr/bin/apt-get') && process.getuid?.() === 0;
  if (canInstall) {
    process.stderr.write(`Installing ${names.join(', ')} with apt…\n`);
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const apt = (...args) =>
      spawnSync('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env }).status === 0;
    if (apt('update') && apt('install', '-y', '--no-install-recommends', ...names)) return true;
  }
  process.stderr.write(
    `These Debian packages are missing: ${names.join(', ')}.\nInstall them: apt-get install ${names.join(' ')}\n`,
  );
  return false;
}
