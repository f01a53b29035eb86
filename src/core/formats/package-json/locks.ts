import { valueAt } from '../../text/own-values.js';
import { visit } from 'jsonc-parser';
import { isMap, isScalar, type YAMLMap } from 'yaml';
import { baseOf } from '../../text/paths.js';
import { maxJsonLength, tooDeepAt } from '../json/read.js';
import { parseYaml } from '../yaml/parse.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A package at the version that a lock file holds. */
export interface LockedPackage extends Span {
  name: string;
  version: string;
  /** The ranges that it was computed for, where the lock says them. */
  asked: string[];
  /** The folder of the package that asks for it, relative to the lock; undefined where it is for all. */
  of?: string;
}

export interface PackageLock {
  packages: LockedPackage[];
  problems: ReadProblem[];
}

/** The package managers, by the names of the lock files that they write. */
export const lockFiles: Readonly<Record<string, { install: string; read: (text: string) => PackageLock }>> = {
  'package-lock.json': { install: 'npm install', read: readNpmLock },
  'npm-shrinkwrap.json': { install: 'npm install', read: readNpmLock },
  'yarn.lock': { install: 'yarn install', read: readYarnLock },
  'pnpm-lock.yaml': { install: 'pnpm install', read: readPnpmLock },
  'bun.lock': { install: 'bun install', read: readBunLock },
};

/** What reads a lock file of this path. */
export function lockReader(path: string): ((text: string) => PackageLock) | undefined {
  return valueAt(lockFiles, baseOf(path))?.read;
}

const nothing = (problems: ReadProblem[] = []): PackageLock => ({ packages: [], problems });
const tooLong = (text: string) =>
  text.length > maxJsonLength * 2
    ? nothing([{ message: `It is longer than ${maxJsonLength * 2} characters.`, start: 0, end: 0 }])
    : undefined;
const tooDeep = (text: string) => {
  const at = tooDeepAt(text);
  return at < 0 ? undefined : nothing([{ message: 'It is nested too deeply.', start: at, end: at + 1 }]);
};

interface Literal extends Span {
  way: readonly string[];
  value: string;
}

/** Every text in a JSON document with the keys that lead to it; large locks are not made into a tree for it. */
function literalsOf(text: string, depth: number, take: (literal: Literal) => void): ReadProblem[] {
  const way: string[] = [];
  const counts: number[] = [];
  const inArray: boolean[] = [];
  let level = 0;
  const problems: ReadProblem[] = [];
  const begin = (array: boolean) => () => {
    level++;
    inArray[level] = array;
    counts[level] = 0;
    return level <= depth;
  };
  visit(
    text,
    {
      onObjectBegin: begin(false),
      onArrayBegin: begin(true),
      onObjectEnd: () => {
        level--;
      },
      onArrayEnd: () => {
        level--;
      },
      onSeparator: (sign) => {
        if (sign === ',' && inArray[level]) counts[level] = (counts[level] ?? 0) + 1;
      },
      onObjectProperty: (name) => {
        way[level - 1] = name;
      },
      onLiteralValue: (value: unknown, start, length) => {
        if (inArray[level]) way[level - 1] = String(counts[level]);
        if (typeof value === 'string') take({ way: way.slice(0, level), value, start, end: start + length });
      },
      onError: (_, start, length) => {
        if (problems.length === 0)
          problems.push({ message: 'This is not JSON.', start, end: start + length });
      },
    },
    { allowTrailingComma: true, disallowComments: false },
  );
  return problems;
}

/** Reads a `package-lock.json` of any version (docs.npmjs.com, "package-lock.json"). */
export function readNpmLock(text: string): PackageLock {
  const refused = tooLong(text) ?? tooDeep(text);
  if (refused) return refused;
  const packages: LockedPackage[] = [];
  const problems = literalsOf(text, 4, ({ way, value, start, end }) => {
    const [section, key = '', field] = way;
    if (way.length !== 3 || field !== 'version') return;
    if (section === 'dependencies') packages.push({ name: key, version: value, asked: [], start, end });
    const [, of = '', name] = /^(.*?\/?)node_modules\/((?:@[^/]+\/)?[^/]+)$/.exec(key) ?? [];
    if (section !== 'packages' || name === undefined || of.includes('node_modules/')) return;
    const folder = of.replace(/\/$/, '');
    packages.push({ name, version: value, asked: [], start, end, ...(folder ? { of: folder } : {}) });
  });
  return { packages, problems };
}

/** Reads a `bun.lock` (bun.sh, "Lockfile"): each package is a list that begins with `name@version`. */
export function readBunLock(text: string): PackageLock {
  const refused = tooLong(text) ?? tooDeep(text);
  if (refused) return refused;
  const packages: LockedPackage[] = [];
  const problems = literalsOf(text, 4, ({ way, value, start, end }) => {
    const [section, name = '', place] = way;
    const version = value.slice(value.lastIndexOf('@') + 1);
    if (section === 'packages' && place === '0' && way.length === 3 && value.startsWith(`${name}@`))
      packages.push({ name, version, asked: [], start, end });
  });
  return { packages, problems };
}

/** Reads a `yarn.lock`, of the first version and of later ones (yarnpkg.com, "Lockfiles"). */
export function readYarnLock(text: string): PackageLock {
  const long = tooLong(text);
  if (long) return long;
  const packages: LockedPackage[] = [];
  let asked: { name: string; range: string }[] = [];
  let start = 0;
  let at = 0;
  for (const line of text.split('\n')) {
    if (/^["\w@]/.test(line) && /:\s*$/.test(line)) {
      asked = line
        .trimEnd()
        .slice(0, -1)
        .split(',')
        .flatMap((part) => descriptor(part.trim().replace(/^"|"$/g, '')) ?? []);
      start = at;
    } else {
      const version = /^ {2}version:? "?([^"\s]+)"?\s*$/.exec(line)?.[1];
      const [first] = asked;
      if (version !== undefined && first) {
        const ranges = asked.map(({ range }) => range);
        packages.push({ name: first.name, version, asked: ranges, start, end: at + line.trimEnd().length });
        asked = [];
      }
    }
    at += line.length + 1;
  }
  return { packages, problems: [] };
}

/** `@scope/name@npm:^1.0.0` as a name and a range. */
function descriptor(text: string): { name: string; range: string } | undefined {
  const [, name, range] = /^(@?[^@]+)@(?:npm:)?(.*)$/.exec(text) ?? [];
  return name === undefined || range === undefined ? undefined : { name, range };
}

/** Reads what a `pnpm-lock.yaml` says of what each project asks for; the rest of it does not matter here. */
export function readPnpmLock(text: string): PackageLock {
  const long = tooLong(text);
  if (long) return long;
  const rest = /^(?:packages|snapshots):/m.exec(text)?.index ?? text.length;
  const { document, problems: all } = parseYaml(text.slice(0, rest), maxJsonLength);
  const problems = all.slice(0, 1);
  const root = document.contents;
  if (!isMap(root)) return nothing(problems);
  const importers = root.get('importers', true);
  const projects: [string | undefined, YAMLMap][] = isMap(importers)
    ? importers.items.flatMap(({ key, value }): [string, YAMLMap][] =>
        isScalar(key) && isMap(value) ? [[String(key.value), value]] : [],
      )
    : [[undefined, root]];
  const packages = projects.flatMap(([of, project]) =>
    ['dependencies', 'optionalDependencies'].flatMap((section) => {
      const block = project.get(section, true);
      return isMap(block) ? block.items.flatMap((pair) => pnpmEntry(pair, of) ?? []) : [];
    }),
  );
  return { packages, problems };
}

function pnpmEntry(
  { key, value }: { key: unknown; value: unknown },
  of: string | undefined,
): LockedPackage | undefined {
  if (!isScalar(key) || !key.range) return undefined;
  const held = isMap(value) ? value.get('version', true) : value;
  const specifier = isMap(value) ? value.get('specifier') : undefined;
  if (!isScalar(held) || !held.range) return undefined;
  // `5.0.2(react-native@0.76.0)`, and `5.0.2_react-native@0.76.0` before that.
  const version = String(held.value).split(/[(_]/)[0] ?? '';
  return {
    name: String(key.value),
    version,
    asked: typeof specifier === 'string' ? [specifier] : [],
    start: key.range[0],
    end: held.range[1],
    ...(of === undefined || of === '.' ? {} : { of }),
  };
}
