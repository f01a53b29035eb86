import { mkdir, readdir } from 'node:fs/promises';
import { basename, dirname, join, relative, resolve } from 'node:path';
import { counted } from '../../core/text/counted.js';
import type { FieldDifference } from '../../api/titles.js';
import type * as z from 'zod';
import { isConfirmed } from '../confirm.js';
import { withService } from '../connect.js';
import { valueText } from '../../core/roster/field-changes.js';
import { ProblemError } from '../client.js';
import { readNamed, textToChange, unreadable } from '../read-file.js';
import { writeNamed } from '../write-file.js';
import { codeOf } from '../../disk/errors.js';
import { exit, writeDocument, type Io, type Paint, printJson } from '../io.js';

/** `syndexa roster export [FILE]`. */
export function exportRoster(io: Io, file: string | undefined, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    if (file === undefined) {
      const { document, ...more } = await client.call('exportRoster');
      if (options.json) printJson(io, { ...more, document });
      else writeDocument(io, document);
      return exit.clean;
    }
    const path = resolve(io.cwd, file);
    const earlier = await textToChange(io, file);
    const { document, revision, profiles } =
      earlier === null
        ? await client.call('exportRoster')
        : await client.call('updateRosterDocument', { body: { document: earlier } });
    writeNamed(io, file, document);
    const written = await writeProfiles(io, path, profiles);
    if (options.json) printJson(io, { file: path, revision, profileFiles: written });
    else {
      const done = earlier === null ? 'Written' : 'Updated, with its comments';
      io.out(`${done}: ${file} (revision ${revision})\n`);
      if (written.length > 0)
        io.out(
          `Your own profiles that it needs: ${written.map((one) => relative(io.cwd, one)).join(', ')}\n`,
        );
    }
    return exit.clean;
  });
}

/** The folder beside a document that holds the profiles which belong to it: `ads.yaml` has `ads-networks`. */
function profileFolder(path: string): string {
  return join(dirname(path), `${basename(path).replace(/\.ya?ml$/i, '')}-networks`);
}

async function writeProfiles(
  io: Io,
  path: string,
  profiles: readonly { id: string; text: string }[],
): Promise<string[]> {
  const folder = profileFolder(path);
  if (profiles.length > 0) await mkdir(folder, { recursive: true });
  return profiles.map(({ id, text }) => {
    const file = join(folder, `${id}.yaml`);
    writeNamed(io, file, text);
    return file;
  });
}

/** The profiles beside a document by their files, as they are named from here; none where there is no such folder. */
async function readProfiles(io: Io, path: string): Promise<Map<string, string>> {
  const folder = profileFolder(path);
  const names = await readdir(folder).catch((error: unknown) => {
    if (codeOf(error) === 'ENOENT') return [];
    throw unreadable(folder, error);
  });
  const found = new Map<string, string>();
  for (const name of names.filter((one) => /\.ya?ml$/i.test(one)).sort()) {
    const file = relative(io.cwd, join(folder, name));
    found.set(file, await readNamed(io, file));
  }
  return found;
}

/** A refusal that names the file of a profile, where the service knows its place in the list alone. */
function inFiles({ problem }: ProblemError, files: readonly string[]): ProblemError {
  const errors = problem.errors?.map((fault) => ({
    ...fault,
    field: fault.field.replace(
      /^profiles\.(\d+)(\.(?=.))?/,
      (_, at: string, more?: string) => `${files[Number(at)] ?? ''}${more ? ': ' : ''}`,
    ),
  }));
  return new ProblemError({ ...problem, ...(errors ? { errors } : {}) });
}

export interface ImportOptions {
  yes?: boolean;
  prune?: boolean;
  json?: boolean;
  dryRun?: boolean;
}

/** `syndexa roster import FILE`. */
export function importRoster(io: Io, paint: Paint, file: string, options: ImportOptions): Promise<number> {
  return withService(io, async (client) => {
    const document = await readNamed(io, file);
    const found = file === '-' ? new Map<string, string>() : await readProfiles(io, resolve(io.cwd, file));
    const body = { document, profiles: [...found.values()], prune: options.prune ?? false };
    const preview = await client
      .call('importRoster', { body: { ...body, dryRun: true } })
      .catch((error: unknown) => {
        throw error instanceof ProblemError ? inFiles(error, [...found.keys()]) : error;
      });
    if (!options.json) io.out(changesText(preview.changes, paint));
    if (options.dryRun || preview.changes.length === 0) {
      if (options.json) printJson(io, preview);
      return exit.clean;
    }
    if (!(await isConfirmed(io, `Import ${counted(preview.changes.length, 'change')}?`, options.yes)))
      return exit.refused;
    const done = await client.call('importRoster', { body: { ...body, dryRun: false } });
    if (options.json) printJson(io, done);
    else
      io.out(
        `${paint.green('✔ imported')}: ${counted(done.changes.length, 'change')}; the roster is at revision ${done.revision}.\n`,
      );
    return exit.clean;
  });
}

function changesText(changes: readonly z.infer<typeof FieldDifference>[], paint: Paint): string {
  if (changes.length === 0) return 'The document matches the roster; there is nothing to import.\n';
  return changes
    .flatMap((change) => opened(change))
    .map(({ path, was, is }) => {
      if (was === undefined || was === null) return `${paint.green('+')} ${path}: ${valueText(is)}\n`;
      if (is === undefined || is === null) return `${paint.red('-')} ${path}: ${valueText(was)}\n`;
      return `${paint.yellow('~')} ${path}: ${valueText(was)} → ${valueText(is)}\n`;
    })
    .join('');
}

/** What is added or taken out whole, as a line per value. */
function opened({ path, was, is }: z.infer<typeof FieldDifference>): z.infer<typeof FieldDifference>[] {
  const isRecord = (value: unknown): value is Record<string, unknown> =>
    typeof value === 'object' && value !== null && !Array.isArray(value);
  const [whole, other] = isRecord(is) ? [is, was] : [was, is];
  if (!isRecord(whole) || (other !== undefined && other !== null)) return [{ path, was, is }];
  return Object.entries(whole).flatMap(([key, value]) =>
    opened(
      isRecord(is)
        ? { path: `${path}.${key}`, was: undefined, is: value }
        : { path: `${path}.${key}`, was: value, is: undefined },
    ),
  );
}
