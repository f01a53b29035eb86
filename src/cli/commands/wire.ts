import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, resolve } from 'node:path';
import { counted } from '../../core/text/counted.js';
import type { WiringAnswer } from '../../api/trees.js';
import type { SourceFile } from '../../core/edits/model.js';
import { codeOf, reasonOf } from '../../disk/errors.js';
import type { Client } from '../client.js';
import { demandCompared } from '../compared.js';
import { homeFolder, withService } from '../connect.js';
import { CommandError, exit, isCommandError, type Io, type Paint, printJson } from '../io.js';
import { callFollowed } from '../progress.js';
import { unreadable } from '../read-file.js';
import { sendTree } from '../send-tree.js';
import { settleInterrupted } from '../tree-state.js';
import type { TreeOptions } from './trees.js';

export interface WireOptions extends TreeOptions {
  write?: boolean;
  rule?: string[];
  network?: string[];
  variant?: string[];
  part?: string[];
  raiseSdk?: boolean;
  callSites?: boolean;
  file?: string[];
  full?: boolean;
  force?: boolean;
}

/** `syndexa wire DIR [--write]`. */
export function wire(io: Io, paint: Paint, directory: string, options: WireOptions): Promise<number> {
  return withService(io, async (client) => {
    const given = await namedFiles(io, options.file ?? []);
    if (options.write) await settleInterruptedWrite(io, directory);
    const { snapshot, folder } = await sendTree(client, io, directory);
    const call = {
      params: { snapshot },
      body: {
        title: options.title ?? null,
        choice: {
          rules: options.rule ?? [],
          networks: options.network ?? [],
          variants: options.variant ?? [],
          groups: options.part ?? [],
        },
        extras: {
          levels: options.raiseSdk ?? false,
          callSites: options.callSites ?? false,
          binaries: given.map(({ name, sha256, size }) => ({ name, sha256, size })),
          companions: given.flatMap(({ content, name, sha256, size }) =>
            content === null ? [] : [{ name, sha256, size, content }],
          ),
        },
      },
    };
    const wiring = await callFollowed(io, client, 'wire', call, 'working out the edits');
    const again = commandLine(directory, wiring.title, options);
    return show({ io, paint, client, directory, folder }, wiring, options, given, again);
  });
}

export interface UnwireOptions extends TreeOptions {
  write?: boolean;
  full?: boolean;
  force?: boolean;
}

/** `syndexa unwire NETWORK DIR [--write]`. */
export function unwire(
  io: Io,
  paint: Paint,
  network: string,
  directory: string,
  options: UnwireOptions,
): Promise<number> {
  return withService(io, async (client) => {
    if (options.write) await settleInterruptedWrite(io, directory);
    const { snapshot, folder } = await sendTree(client, io, directory);
    const added = await (await treeWrites(io)).added(folder);
    const call = {
      params: { snapshot },
      body: { title: options.title ?? null, network, added },
    };
    const wiring = await callFollowed(io, client, 'unwire', call, 'working out the edits');
    const again = `syndexa unwire ${network} ${directory} --title ${wiring.title} --write`;
    return show({ io, paint, client, directory, folder }, wiring, options, [], again);
  });
}

interface Place {
  io: Io;
  paint: Paint;
  client: Client;
  directory: string;
  folder: string;
}

/** Shows a wiring, and writes it on request. */
export async function show(
  place: Place,
  wiring: WiringAnswer,
  options: { write?: boolean; json?: boolean; full?: boolean; force?: boolean },
  given: readonly NamedFile[],
  again: string,
): Promise<number> {
  const { io, paint } = place;
  if (options.json) printJson(io, wiring);
  else {
    const { writeWiring } = await import('../render/wire.js');
    // What is piped on, to git or to a file, is whole.
    writeWiring(io, wiring, paint, options.full === true || !io.read);
  }
  demandCompared({
    compared: wiring.compared,
    title: wiring.title,
    directory: place.directory,
  });
  if (!options.write) {
    if (wiring.edits.length > 0 && !options.json)
      io.out(`${paint.dim('Nothing was written. To write these edits:')} ${again}\n`);
    return exit.clean;
  }
  if (wiring.edits.length > 0) await write(place, wiring, given, options.force === true);
  if (!options.json && wiring.edits.length > 0)
    io.out(
      `${paint.green('✔ written')}: ${counted(wiring.edits.length, 'file')} in ${resolve(place.folder)}; take it back with syndexa undo ${place.directory}\n`,
    );
  return exit.clean;
}

/** Writes the edits, and lets the board follow what was written. */
export async function write(
  { io, client, directory, folder }: Place,
  wiring: WiringAnswer,
  given: readonly NamedFile[],
  force: boolean,
): Promise<void> {
  const sources = new Map(given.map(({ sha256, path }) => [sha256, path]));
  const { noteOf } = await import('../../disk/writes/tree-writes.js');
  const note = noteOf(wiring, new Date().toISOString());
  const writes = await treeWrites(io);
  await asCommandError(
    () => writes.apply(folder, wiring.edits, note, { sources, force }),
    'Run the command again to plan the edits for the current files.',
  );
  const after = await sendTree(client, io, directory);
  await client.call('check', { params: { snapshot: after.snapshot }, body: { title: wiring.title } });
}

/** The writer of trees, with the data folder of this user. */
export async function treeWrites(io: Io) {
  const { TreeWrites } = await import('../../disk/writes/tree-writes.js');
  return new TreeWrites(homeFolder(io.env));
}

/** Settles a write that was interrupted, because what is written next is computed for the files as they are. */
export async function settleInterruptedWrite(io: Io, directory: string): Promise<void> {
  const folder = resolve(io.cwd, directory);
  // A folder that is not there is reported when it is read.
  if (existsSync(folder))
    await asCommandError(() => settleInterrupted(folder, io), 'Run the command again in a moment.');
}

/** Runs a write; what keeps it from being done becomes a command's failure. */
export async function asCommandError<Result>(work: () => Promise<Result>, fix: string): Promise<Result> {
  const { FileChangedError, WriteRefusedError } = await import('../../disk/writes/errors.js');
  try {
    return await work();
  } catch (error) {
    if (error instanceof FileChangedError)
      throw new CommandError(`Nothing was written. ${error.message}`, exit.refused, fix);
    if (error instanceof WriteRefusedError)
      throw new CommandError(`Nothing was written. ${error.message}`, exit.refused, error.fix);
    const code = codeOf(error);
    if (code !== undefined)
      throw new CommandError(
        `Nothing was written: ${reasonOf(error)}.`,
        exit.wrongUse,
        code === 'ENOSPC' ? 'Free some disk space and run it again.' : 'Fix that and run it again.',
      );
    throw error;
  }
}

/** A file that a person named, to be put into the tree. */
interface NamedFile extends SourceFile {
  path: string;
  /** Its text; null when it is none, or too long for what can be laid as text. */
  content: string | null;
}

async function namedFiles(io: Io, paths: readonly string[]): Promise<NamedFile[]> {
  return Promise.all(
    paths.map(async (written): Promise<NamedFile> => {
      const path = resolve(io.cwd, written);
      const bytes = await readFile(path).catch((error: unknown) => {
        throw unreadable(written, error);
      });
      const isText = bytes.length < 1_000_000 && !bytes.includes(0);
      return {
        path,
        name: basename(path),
        sha256: createHash('sha256').update(bytes).digest('hex'),
        size: bytes.length,
        content: isText ? bytes.toString('utf8') : null,
      };
    }),
  );
}

/** The command that writes what was shown. */
function commandLine(directory: string, title: string, options: WireOptions): string {
  const many = (flag: string, values: readonly string[] = []) => values.map((value) => `${flag} ${value}`);
  return [
    `syndexa wire ${directory} --title ${title}`,
    ...many('--rule', options.rule),
    ...many('--network', options.network),
    ...many('--variant', options.variant),
    ...many('--part', options.part),
    ...(options.raiseSdk ? ['--raise-sdk'] : []),
    ...(options.callSites ? ['--call-sites'] : []),
    ...many('--file', options.file),
    '--write',
  ].join(' ');
}

/** Lets the board follow what was taken back; a title that is gone has no board. */
export function followed(io: Io, directory: string, title: string): Promise<unknown> {
  return withService(io, async (client) => {
    const { snapshot } = await sendTree(client, io, directory);
    await client.call('check', { params: { snapshot }, body: { title } }).catch((error: unknown) => {
      if (!isCommandError(error)) throw error;
    });
    return exit.clean;
  });
}
