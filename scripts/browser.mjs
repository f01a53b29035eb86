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

/** The packages of a list (a file of each, or a file and what it is for) that are not on this machine. */
export function missingPackages(wanted) {
  return Object.entries(wanted)
    .map(([name, of]) => ({ name, ...(typeof of === 'string' ? { file: of, why: '' } : of) }))
    .filter(({ file }) => !existsSync(file));
}

/** Installs Debian packages that are missing, when this machine lets us; says plainly when it does not. */
export function ensurePackages(wanted) {
  const missing = missingPackages(wanted);
  if (missing.length === 0) return true;
  const names = missing.map(({ name }) => name);
  const canInstall = existsSync('/usr/bin/apt-get') && process.getuid?.() === 0;
  if (canInstall) {
    const reasons = missing.map(({ name, why }) => `  ${name}${why ? `: ${why}` : ''}\n`);
    process.stderr.write(
      `Debian packages are missing, and are installed with apt-get now:\n${reasons.join('')}`,
    );
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
