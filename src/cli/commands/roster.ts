import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { basename, dirname, join, relative, resolve } from 'node:path';
import { counted } from '../../core/text/counted.js';
import type { FieldDifference } from '../../api/titles.js';
import type * as z from 'zod';
import { isConfirmed } from '../confirm.js';
import { withService } from '../connect.js';
import { ProblemError } from '../client.js';
import { readNamed } from '../read-file.js';
import { CommandError, exit, writeDocument, type Io, type Paint, printJson } from '../io.js';

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
    const earlier = await readFile(path, 'utf8').catch(() => null);
    const { document, revision, profiles } =
      earlier === null
        ? await client.call('exportRoster')
        : await client.call('updateRosterDocument', { body: { document: earlier } });
    await writeFile(path, document);
    const written = await writeProfiles(path, profiles);
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
  path: string,
  profiles: readonly { id: string; text: string }[],
): Promise<string[]> {
  const folder = profileFolder(path);
  if (profiles.length > 0) await mkdir(folder, { recursive: true });
  return Promise.all(
    profiles.map(async ({ id, text }) => {
      const file = join(folder, `${id}.yaml`);
      await writeFile(file, text);
      return file;
    }),
  );
}

/** The profiles beside a document; none where there is no such folder. */
async function readProfiles(path: string): Promise<string[]> {
  const folder = profileFolder(path);
  const names = await readdir(folder).catch(() => []);
  const files = names.filter((name) => /\.ya?ml$/i.test(name)).sort();
  return Promise.all(files.map((name) => readFile(join(folder, name), 'utf8')));
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
    const profiles = file === '-' ? [] : await readProfiles(resolve(io.cwd, file));
    const body = { document, profiles, prune: options.prune ?? false };
    const preview = await client
      .call('importRoster', { body: { ...body, dryRun: true } })
      .catch((error: unknown) => {
        throw error instanceof ProblemError && error.problem.code === 'stale' ? staleError(error) : error;
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

function staleError({ problem, code, fix }: ProblemError): CommandError {
  const details = (problem.changes ?? []).map(({ path, base, record, document, conflict }) => {
    return `${conflict ? '✕ ' : '  '}${path}: was ${shown(base)}, record ${shown(record)}, document ${shown(document)}${conflict ? ' (both changed it)' : ''}`;
  });
  return new CommandError(problem.detail, code, fix, details);
}

function changesText(changes: readonly z.infer<typeof FieldDifference>[], paint: Paint): string {
  if (changes.length === 0) return 'The document matches the roster; there is nothing to import.\n';
  return changes
    .flatMap((change) => opened(change))
    .map(({ path, was, is }) => {
      if (was === undefined || was === null) return `${paint.green('+')} ${path}: ${shown(is)}\n`;
      if (is === undefined || is === null) return `${paint.red('-')} ${path}: ${shown(was)}\n`;
      return `${paint.yellow('~')} ${path}: ${shown(was)} → ${shown(is)}\n`;
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

function shown(value: unknown): string {
  if (value === undefined || value === null) return '(nothing)';
  return typeof value === 'string' ? value : JSON.stringify(value);
}
