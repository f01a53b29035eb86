import { valueAt } from '../../text/own-values.js';
import { parse, TomlError } from 'smol-toml';
import * as z from 'zod';
import type { ReadProblem } from '../../text/problem.js';

export interface CatalogEntry {
  /** The alias as build scripts write it: dots for dashes and underscores. */
  alias: string;
  /** Group and module for libraries, the plugin ID for plugins. */
  name: string;
  version: string | undefined;
  /** Offset of the alias in the file. */
  start: number;
}

export interface VersionCatalog {
  libraries: CatalogEntry[];
  plugins: CatalogEntry[];
  bundles: Map<string, string[]>;
  versions: Map<string, { value: string; start: number }>;
  problems: ReadProblem[];
}

const Version = z.union([
  z.string(),
  z.object({
    ref: z.string().optional(),
    strictly: z.string().optional(),
    require: z.string().optional(),
    prefer: z.string().optional(),
  }),
]);
const Entry = z.union([
  z.string(),
  z.object({
    module: z.string().optional(),
    group: z.string().optional(),
    name: z.string().optional(),
    id: z.string().optional(),
    version: Version.optional(),
  }),
]);
const Catalog = z.object({
  versions: z.record(z.string(), Version).default({}),
  libraries: z.record(z.string(), Entry).default({}),
  plugins: z.record(z.string(), Entry).default({}),
  bundles: z.record(z.string(), z.array(z.string())).default({}),
});

/** Versions that stand for others are followed so far. */
const maxRefs = 20;
/** A line longer than this (characters) is not looked at for the place of a key. */
const maxKeyLine = 10_000;

/** Reads a Gradle version catalogue (`libs.versions.toml`). */
export function readVersionCatalog(text: string): VersionCatalog {
  const empty: VersionCatalog = {
    libraries: [],
    plugins: [],
    bundles: new Map(),
    versions: new Map(),
    problems: [],
  };
  let parsed: z.infer<typeof Catalog>;
  try {
    parsed = Catalog.parse(parse(text));
  } catch (error) {
    return { ...empty, problems: [problemOf(text, error)] };
  }
  // A version may name another one; one that leads back to itself comes to nothing.
  const resolve = (version: z.infer<typeof Version> | undefined, depth = 0): string | undefined => {
    if (version === undefined || typeof version === 'string') return version;
    if (version.ref !== undefined)
      return depth > maxRefs ? undefined : resolve(valueAt(parsed.versions, version.ref), depth + 1);
    return version.strictly ?? version.require ?? version.prefer;
  };
  const offsets = keyOffsets(text);
  const keyOffset = (table: string, key: string) => offsets.get(`${table} ${key}`) ?? 0;
  const entries = (table: 'libraries' | 'plugins'): CatalogEntry[] =>
    Object.entries(parsed[table]).flatMap(([key, entry]) => {
      const [name, version] = nameAndVersion(entry, resolve);
      return name ? [{ alias: dotted(key), name, version, start: keyOffset(table, key) }] : [];
    });
  return {
    libraries: entries('libraries'),
    plugins: entries('plugins'),
    bundles: new Map(Object.entries(parsed.bundles).map(([key, names]) => [dotted(key), names.map(dotted)])),
    versions: new Map(
      Object.entries(parsed.versions).flatMap(([key, version]) => {
        const value = resolve(version);
        return value === undefined
          ? []
          : [[dotted(key), { value, start: keyOffset('versions', key) }] as const];
      }),
    ),
    problems: [],
  };
}

function nameAndVersion(
  entry: z.infer<typeof Entry>,
  resolve: (version: z.infer<typeof Version> | undefined) => string | undefined,
): [string | undefined, string | undefined] {
  if (typeof entry === 'string') {
    const at = entry.lastIndexOf(':');
    return at < 0 ? [entry, undefined] : [entry.slice(0, at), entry.slice(at + 1)];
  }
  const name =
    entry.id ?? entry.module ?? (entry.group && entry.name ? `${entry.group}:${entry.name}` : undefined);
  return [name, resolve(entry.version)];
}

function dotted(key: string): string {
  return key.replace(/[-_]/g, '.');
}

/** The place of each key, by its table. Keys in other forms are placed at the start of the file. */
function keyOffsets(text: string): Map<string, number> {
  const offsets = new Map<string, number>();
  let table = '';
  for (const match of text.matchAll(/([^\n]*)(?:\n|$)/g)) {
    const [, line = ''] = match;
    if (line.length > maxKeyLine) continue;
    const section = /^\s*\[\s*([\w-]+)\s*\]/.exec(line);
    if (section) table = section[1] ?? '';
    const key = /^[ \t]*(?:"([^"]*)"|'([^']*)'|([\w-]+))[ \t]*[=.]/.exec(line);
    const name = `${table} ${key?.[1] ?? key?.[2] ?? key?.[3] ?? ''}`;
    if (key && !offsets.has(name)) offsets.set(name, match.index);
  }
  return offsets;
}

function problemOf(text: string, error: unknown): ReadProblem {
  if (error instanceof TomlError) {
    const before = text
      .split('\n')
      .slice(0, error.line - 1)
      .join('\n').length;
    const start = Math.min(text.length, before + error.column);
    return { message: error.message.split('\n')[0] ?? 'It is not valid TOML.', start, end: start };
  }
  const issue = error instanceof z.ZodError ? error.issues[0] : undefined;
  return {
    message: `It is not a version catalogue: ${issue ? `${issue.path.join('.')}: ${issue.message}` : String(error)}`,
    start: 0,
    end: 0,
  };
}
