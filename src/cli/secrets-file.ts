import { chmodSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Puts secrets into the file of the data folder, which only its owner may read; null takes one out. */
export function writeSecrets(home: string, secrets: Readonly<Record<string, string | null>>): string {
  mkdirSync(home, { recursive: true, mode: 0o700 });
  const path = join(home, 'secrets');
  let lines: string[] = [];
  try {
    lines = readFileSync(path, 'utf8').split(/\r?\n/).filter(Boolean);
  } catch {
    // There is none yet.
  }
  const kept = lines.filter((line) => !((line.split('=')[0] ?? '').trim() in secrets));
  const added = Object.entries(secrets).flatMap(([name, value]) =>
    value === null ? [] : [`${name}=${value}`],
  );
  writeFileSync(`${path}.new`, `${[...kept, ...added].join('\n')}\n`, { mode: 0o600 });
  chmodSync(`${path}.new`, 0o600);
  renameSync(`${path}.new`, path);
  return path;
}
