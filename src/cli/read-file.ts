import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { attributionPlist } from '../core/standards/skadnetwork.js';
import { idsIn } from '../core/formats/attribution-list/read.js';
import { escapeXml } from '../core/text/escape-xml.js';
import { isBinaryPlist, readBinaryPlist } from '../core/formats/plist/binary.js';
import { decoded, decodeText, knownEncoding } from '../core/text/decode.js';
import { codeOf, reasonOf } from '../disk/errors.js';
import { printableText } from '../core/text/printable.js';
import { CommandError, exit, type Io } from './io.js';

/** The bytes of a file that a person named. */
export async function bytesOf(io: Io, file: string): Promise<Uint8Array> {
  try {
    return file === '-' ? await io.input() : await readFile(resolve(io.cwd, file));
  } catch (error) {
    throw unreadable(file, error);
  }
}

/** The bytes of a file that a person named; null where there is no such file. */
export async function bytesIfThere(io: Io, file: string): Promise<Uint8Array | null> {
  return readFile(resolve(io.cwd, file)).catch((error: unknown) => {
    if (codeOf(error) === 'ENOENT') return null;
    throw unreadable(file, error);
  });
}

/**
 * The text of a file that is to be changed, so that nothing in it is lost on the way; null where there is no such file.
 * @throws CommandError when it is not in UTF-8
 */
export async function textToChange(io: Io, file: string): Promise<string | null> {
  const bytes = await bytesIfThere(io, file);
  return bytes && utf8Of(bytes, file);
}

/** The text of bytes that are to be changed; see {@link textToChange}. */
export function utf8Of(bytes: Uint8Array, file: string): string {
  try {
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    throw new CommandError(
      `${file} is not in UTF-8, so it cannot be changed without changing its other text.`,
      exit.wrongUse,
      'Save it as UTF-8 first.',
    );
  }
}

/** The failure of a command whose file or folder cannot be read. */
export function unreadable(path: string, error: unknown, fix = 'Check the path.'): CommandError {
  return new CommandError(`${path} cannot be read: ${reasonOf(error)}.`, exit.wrongUse, fix);
}

/** A document in UTF-8. */
export async function readNamed(io: Io, file: string): Promise<string> {
  return new TextDecoder('utf-8', { ignoreBOM: true }).decode(await bytesOf(io, file));
}

/**
 * A file of text, in whichever encoding it was saved. Where that cannot be determined, a person is asked.
 * @param encoding says it instead
 */
export async function textOfFile(io: Io, file: string, encoding?: string): Promise<string> {
  if (encoding !== undefined && knownEncoding(encoding) === null)
    throw new CommandError(
      `There is no encoding ${encoding}.`,
      exit.wrongUse,
      'Name one such as utf-8, utf-16le, windows-1252 or macintosh.',
    );
  const bytes = await bytesOf(io, file);
  const found = decodeText(bytes, encoding);
  if (found.text !== null) return found.text;
  const { candidates } = found;
  const lines = candidates.map(
    ({ encoding: name, sample }, at) => `  ${at + 1}  ${name.padEnd(13)} ${printableText(sample)}`,
  );
  const what = `The encoding of ${file} cannot be determined.`;
  const answer = await io.ask(
    `${what} It may say:\n${lines.join('\n')}\nWhich is right? [1-${lines.length}] `,
  );
  const chosen = candidates[Number(answer) - 1]?.encoding;
  if (chosen !== undefined) return decoded(bytes, chosen);
  throw new CommandError(
    what,
    exit.wrongUse,
    'Name it with --encoding, and check the names that result.',
    lines,
  );
}

/** A published list as text; of a binary property list the identifiers, as its text form has them. */
export async function listOfFile(io: Io, file: string): Promise<string> {
  const bytes = await bytesOf(io, file);
  if (!isBinaryPlist(bytes)) return textOfFile(io, file);
  const { root, problems } = readBinaryPlist(bytes);
  if (!root || problems.length > 0)
    throw new CommandError(
      `${file} cannot be read: ${problems[0]?.message ?? 'it is empty.'}`,
      exit.wrongUse,
      'Export it again.',
    );
  return attributionPlist(idsIn(root).map(({ written }) => escapeXml(written)));
}
