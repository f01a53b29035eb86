import type { Node } from 'jsonc-parser';
import { nodesAt, readJson } from '../json/read.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A package that a `package.json` declares; the span goes from its name to its range, the quotes included. */
export interface PackageDependency extends Span {
  name: string;
  section: PackageSection;
  /** The version range, or where the package comes from (`file:…`, `workspace:…`). */
  version: string;
  /** The range with its quotes. */
  versionSpan: Span;
}

const sections = ['dependencies', 'devDependencies', 'peerDependencies', 'optionalDependencies'] as const;
export type PackageSection = (typeof sections)[number];

/** What a `package.json` says, as far as builds are concerned (docs.npmjs.com, "package.json"). */
export interface PackageJson {
  name: string | undefined;
  dependencies: PackageDependency[];
  /** The object of the dependencies: where it begins and ends, brackets included; nothing where there is none. */
  block: Span | undefined;
  /** The whole object. */
  whole: Span | undefined;
  root: Node | null;
  problems: ReadProblem[];
}

/** Reads a `package.json`. What is no JSON becomes a problem, and what can be read is read. */
export function readPackageJson(text: string): PackageJson {
  const { root, problems } = readJson(text);
  const [name] = nodesAt(root, ['name']);
  const [block] = nodesAt(root, ['dependencies']);
  return {
    name: typeof name?.value === 'string' ? name.value : undefined,
    dependencies: sections.flatMap((section) => dependenciesIn(root, section)),
    block: block?.type === 'object' ? spanOf(block) : undefined,
    whole: root?.type === 'object' ? spanOf(root) : undefined,
    root,
    problems,
  };
}

/** Whether a range names a version of a registry, and not a file, a repository or a workspace. */
export function isVersionRange(range: string): boolean {
  return !/^[a-z][a-z+.-]*:|^[\w.-]+\/[\w.-]+|^\.{0,2}\//i.test(range);
}

function dependenciesIn(root: Node | null, section: PackageSection): PackageDependency[] {
  return nodesAt(root, [section]).flatMap((block) =>
    (block.children ?? []).flatMap((property): PackageDependency[] => {
      const [key, value] = property.children ?? [];
      if (typeof key?.value !== 'string' || typeof value?.value !== 'string') return [];
      const span = { start: key.offset, end: value.offset + value.length };
      return [{ name: key.value, section, version: value.value, versionSpan: spanOf(value), ...span }];
    }),
  );
}

function spanOf({ offset, length }: Node): Span {
  return { start: offset, end: offset + length };
}
