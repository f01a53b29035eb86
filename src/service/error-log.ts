import { appendFileSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** A log of errors that is longer than this goes aside, and a new one begins (bytes). */
const maxBytes = 1_000_000;

/** What is noted of an error of the service's own. */
export interface OwnError {
  error: unknown;
  at: Date;
  version: string;
  /** The path of the request. */
  path?: string | undefined;
}

/**
 * Appends an internal error to `errors.log` in the data folder. Returns the path of the file, or undefined if it cannot be
 * written.
 */
export function noteError(
  home: string,
  { error, at, version, path }: OwnError,
  clean: (text: string) => string,
): string | undefined {
  const file = join(home, 'errors.log');
  const head = [at.toISOString(), `syndexa ${version}`, ...(path === undefined ? [] : [path])].join('  ');
  const told = error instanceof Error ? (error.stack ?? error.message) : String(error);
  try {
    if ((statSync(file, { throwIfNoEntry: false })?.size ?? 0) > maxBytes)
      renameSync(file, join(home, 'errors.before.log'));
    appendFileSync(file, clean(`${head}\n${told}\n\n`), { mode: 0o600 });
    return file;
  } catch {
    // The error itself matters more than that it could not be noted.
    return undefined;
  }
}
