import type { Node } from 'jsonc-parser';
import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import type { PackageDependency, PackageJson } from '../../../formats/package-json/read.js';
import { readPnpmWorkspace } from '../../../formats/pnpm-workspace/read.js';
import { globMatcher } from '../../../text/globs.js';
import { folderOf, isWithin, joinPath } from '../../../text/paths.js';
import { compareVersions, floorOf } from '../../../text/versions.js';
import type { Tree } from '../../../tree/tree.js';
import { below, packagesOf } from './packages.js';

/** A package of the tree that an application depends on, itself or through others. */
export interface WorkspacePackage {
  root: string;
  manifest: PackageJson;
  /** The roots of the packages of the tree that it depends on. */
  uses: readonly string[];
}

/** The workspace that a folder is in: its members by name, and whether plain versions mean them, too. */
interface Workspace {
  members: ReadonlyMap<string, string>;
  linksPackages: boolean;
}

/**
 * The packages of the tree that an application depends on, resolved as its package manager does: by a folder that is named
 * (`file:`, `link:`, `portal:`), by an alias, or by the name of a member of its workspace (docs.npmjs.com, "workspaces"; pnpm.io,
 * "Workspace"; yarnpkg.com, "Workspaces"; bun.sh, "Workspaces").
 */
export function workspacePackages(tree: Tree, root: string): readonly WorkspacePackage[] {
  return tree.once(`workspace packages of ${root}`, () => {
    const all = packagesOf(tree);
    const workspace = workspaceOf(tree, root);
    const usesOf = (manifest: PackageJson, from: string): string[] =>
      manifest.dependencies
        .filter(({ section }) => section === 'dependencies' || section === 'optionalDependencies')
        .flatMap((one) => folderFor(one, from, workspace, all) ?? [])
        .filter((one) => one !== root);
    const found = new Map<string, WorkspacePackage>();
    const own = all.get(root);
    const queue = own ? [...usesOf(own, root), ...aliasedPackages(tree, root)] : [];
    for (const next of queue) {
      const manifest = found.has(next) ? undefined : all.get(next);
      if (!manifest) continue;
      const uses = usesOf(manifest, next);
      found.set(next, { root: next, manifest, uses });
      queue.push(...uses);
    }
    return [...found.values()];
  });
}

function folderFor(
  { name, version }: PackageDependency,
  from: string,
  { members, linksPackages }: Workspace,
  all: ReadonlyMap<string, PackageJson>,
): string | undefined {
  const path = /^(?:file|link|portal):(.+)$/.exec(version)?.[1];
  if (path !== undefined) return joinPath(from, path) ?? undefined;
  const [, asked] = /^workspace:(.*)$/.exec(version) ?? [];
  if (asked !== undefined) {
    const alias = /^((?:@[^@/]+\/)?[^@/]+)@/.exec(asked)?.[1];
    const isPath = /^\.{0,2}\//.test(asked);
    return isPath ? (joinPath(from, asked) ?? undefined) : members.get(alias ?? name);
  }
  const member = linksPackages ? members.get(name) : undefined;
  return member !== undefined && fits(version, versionOf(all.get(member))) ? member : undefined;
}

function versionOf(manifest: PackageJson | undefined): string | undefined {
  const [node] = nodesAt(manifest?.root ?? null, ['version']);
  return typeof node?.value === 'string' ? node.value : undefined;
}

/** Whether a version may be what a range asks for, as far as its first version says; one without a version fits all. */
function fits(range: string, version: string | undefined): boolean {
  if (version === undefined || !/^[\^~>=v\s\d*x.]/.test(range) || range.includes(':'))
    return version === undefined && !range.includes(':');
  const floor = floorOf(range);
  if (floor === undefined) return true;
  const part = (text: string, at: number) => text.split(/[.+-]/)[at] ?? '0';
  if (/^[\^~]/.test(range) && part(floor, 0) !== part(version, 0)) return false;
  if (range.startsWith('~') && part(floor, 1) !== part(version, 1)) return false;
  const order = compareVersions(version, floor);
  return /^[\^~>]/.test(range) || /[x*]/.test(range) ? order >= 0 : order === 0;
}

/** How many configurations that extend each other are followed. */
const maxExtended = 5;

/** The packages that aliases of an application lead to (typescriptlang.org, "paths", "baseUrl", "extends"). */
function aliasedPackages(tree: Tree, root: string): string[] {
  const all = packagesOf(tree);
  const found = new Set<string>();
  let file: string | null = below(root, 'tsconfig.json');
  for (let depth = 0; depth < maxExtended && file !== null && tree.has(file); depth++) {
    const json: Node | null = tree.read(file, readJson)?.root ?? null;
    const text = (...way: string[]): string[] => nodesAt(json, way).map((node) => String(jsonValue(node)));
    const [base = '.'] = text('compilerOptions', 'baseUrl');
    for (const target of text('compilerOptions', 'paths', '*', '*')) {
      const home = packageAbove(joinPath(folderOf(file), base, target.replace(/\/?\*.*$/, '')), all);
      if (home !== undefined && home !== root && !isWithin(root, home)) found.add(home);
    }
    const [extended] = text('extends');
    file = extended?.startsWith('.')
      ? joinPath(folderOf(file), extended.replace(/(\.json)?$/, '.json'))
      : null;
  }
  return [...found];
}

/** The package that a path is in. */
function packageAbove(path: string | null, all: ReadonlyMap<string, PackageJson>): string | undefined {
  for (let at = path; at !== null && at !== ''; at = folderOf(at)) if (all.has(at)) return at;
  return undefined;
}

/** The nearest workspace above a folder that takes it in; there are no members where none does. */
function workspaceOf(tree: Tree, root: string): Workspace {
  const all = packagesOf(tree);
  for (let folder = root; ; folder = folderOf(folder)) {
    const pnpm = below(folder, 'pnpm-workspace.yaml');
    const byPnpm = tree.has(pnpm) ? tree.read(pnpm, readPnpmWorkspace) : undefined;
    const patterns = byPnpm?.packages ?? patternsIn(all.get(folder));
    const matches = folderMatcher(folder, patterns);
    if (patterns.length > 0 && (folder === root || matches(root))) {
      const members = [...all].filter(([one]) => one === folder || matches(one));
      return {
        members: new Map(members.flatMap(([one, { name }]) => (name === undefined ? [] : [[name, one]]))),
        linksPackages: byPnpm?.linksPackages ?? true,
      };
    }
    if (folder === '') return { members: new Map(), linksPackages: false };
  }
}

/** The folders that `workspaces` of a `package.json` names. */
function patternsIn(manifest: PackageJson | undefined): string[] {
  const root = manifest?.root ?? null;
  return [...nodesAt(root, ['workspaces', '*']), ...nodesAt(root, ['workspaces', 'packages', '*'])].flatMap(
    (node) => (node.type === 'string' ? [String(jsonValue(node))] : []),
  );
}

function folderMatcher(folder: string, patterns: readonly string[]): (path: string) => boolean {
  const matchers = patterns.map((pattern) => {
    const isOut = pattern.startsWith('!');
    const plain = pattern.replace(/^!/, '').replace(/^\.\//, '').replace(/\/+$/, '');
    return { isOut, matches: globMatcher(below(folder, plain)) };
  });
  return (path) => {
    const last = matchers.findLast(({ matches }) => matches(path));
    return last !== undefined && !last.isOut;
  };
}
