import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { writePrivate } from './home-folder.js';

/** The file of secrets in the data folder, a NAME=value per line. */
export const secretsFile = 'secrets';

/**
 * What is wrong with a secret's value; undefined when it can be sent in a header (RFC 9110, section 5.5: visible
 * ASCII characters, with blanks between them).
 */
export function faultOfSecret(value: string): string | undefined {
  if (value === '') return 'The secret is empty.';
  if (/[\r\n]/.test(value)) return 'The secret has several lines.';
  if (!/^[\x21-\x7e]([\x20-\x7e]*[\x21-\x7e])?$/.test(value))
    return 'The secret holds a character that no header can carry.';
  return undefined;
}

/** Puts secrets into the file, which only its owner may read; null takes one out. Returns where it is. */
export function writeSecrets(home: string, secrets: ReadonlyMap<string, string | null>): string {
  const path = join(home, secretsFile);
  let lines: string[] = [];
  try {
    lines = readFileSync(path, 'utf8').split(/\r?\n/).filter(Boolean);
  } catch {
    // There is none yet.
  }
  const kept = lines.filter((line) => !secrets.has((line.split('=')[0] ?? '').trim()));
  const added = [...secrets].flatMap(([name, value]) => (value === null ? [] : [`${name}=${value}`]));
  writePrivate(path, `${[...kept, ...added].join('\n')}\n`);
  return path;
}
