import { renameSync, rmSync, writeFileSync } from 'node:fs';

/**
 * Puts a text in place of a file in one step: a reader sees the old text or the new one, and when it cannot be written
 * (a full disk), the old one stays.
 */
export function replaceFile(file: string, text: string, mode = 0o666): void {
  const draft = `${file}.${process.pid}.new`;
  rmSync(draft, { force: true });
  try {
    writeFileSync(draft, text, { mode, flag: 'wx' });
    renameSync(draft, file);
  } catch (error) {
    rmSync(draft, { force: true });
    throw error;
  }
}
