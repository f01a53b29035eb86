import type { Node } from 'jsonc-parser';
import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import type { PackageDependency } from '../../../formats/package-json/read.js';
import type { Span } from '../../../text/problem.js';
import { packageFor } from '../../../network/for-stack.js';
import type { ChainStep, Place } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf } from '../../../text/paths.js';
import { compareVersions } from '../../../text/versions.js';
import { unity } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import { inEditions, packageFacts, type LockState, type SharedFact } from '../../common/package-facts.js';
import { below } from '../../common/script-packages/packages.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { localPackages, type LocalPackage } from './local-packages.js';
import type { UnityProject } from './project.js';

/** The packages that a project's manifest declares. */
export function askedPackages({ packages }: UnityProject): PackageDependency[] {
  return packages?.manifest.dependencies.filter(({ section }) => section === 'dependencies') ?? [];
}

/** A package that a project is built with, and the file that says so. */
export interface AskedPackage {
  dependency: PackageDependency;
  path: string;
  /** Whether it comes from a package whose folder is in the tree. */
  isBeside: boolean;
}

/**
 * How a project gets a package: its manifest declares it, or an embedded package does. The manifest wins: its version
 * is built, whatever others declare.
 */
export function askedFor(tree: Tree, project: UnityProject, name: string): AskedPackage[] {
  const own = askedPackages(project).map((dependency) => ({
    dependency,
    path: project.packages?.path ?? '',
    isBeside: false,
  }));
  const beside = localPackages(tree, project).flatMap(({ path, manifest }) =>
    manifest.dependencies.flatMap((dependency) =>
      dependency.section === 'dependencies' ? [{ dependency, path, isBeside: true }] : [],
    ),
  );
  return [...own, ...beside].filter(({ dependency }) => dependency.name === name);
}

/** The package itself, where its folder is in the tree: that is what is built then. */
export function localPackage(tree: Tree, project: UnityProject, name: string): LocalPackage | undefined {
  return localPackages(tree, project).find(({ manifest }) => manifest.name === name);
}

/** A registry besides Unity's own: where it is, and the beginnings of names that are looked for there. */
interface ScopedRegistry {
  url: string;
  scopes: string[];
  node: Node;
}

export function registriesOf({ packages }: UnityProject): ScopedRegistry[] {
  return registriesIn(packages?.manifest.root ?? null);
}

/** The registries that a manifest of packages names. */
export function registriesIn(root: Node | null): ScopedRegistry[] {
  return nodesAt(root, ['scopedRegistries', '*']).flatMap((node) => {
    const [url] = nodesAt(node, ['url']);
    if (typeof url?.value !== 'string') return [];
    const scopes = nodesAt(node, ['scopes', '*']).flatMap(({ value }) =>
      typeof value === 'string' ? [value] : [],
    );
    return [{ url: url.value, scopes, node }];
  });
}

/** Whether a registry is queried for a package (Unity manual, "Scoped registries"). */
export function serves({ scopes }: ScopedRegistry, name: string): boolean {
  return scopes.some((scope) => name === scope || name.startsWith(`${scope}.`));
}

const spanOf = ({ offset, length }: Node) => ({ start: offset, end: offset + length });

/** Packages of networks that a manifest declares, their locked versions, and the registries that provide them. */
export function unityPackageFacts(
  tree: Tree,
  project: UnityProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const { packages } = project;
  if (!packages) return [];
  const place = (span: Span) => placeAt(packages.path, tree.text(packages.path), span);
  const found = profiles.flatMap((profile): SharedFact[] => {
    const name = packageFor(profile, 'unity')?.package;
    if (name === undefined) return [];
    const local = localPackage(tree, project, name);
    const [asked] = askedFor(tree, project, name);
    const said = local
      ? { path: local.path, ...versionOf(local) }
      : asked && { ...asked, ...asked.dependency };
    if (!said) return [];
    const { path, version } = said;
    return packageFacts({
      network: profile.id,
      name,
      value: version,
      place: placeAt(path, tree.text(path), said),
      manifest: path === packages.path ? 'manifest.json' : 'package.json',
      // What comes from a folder or a repository has no version to hold.
      locks: !local && /^\d/.test(version) ? [lockState(tree, project, name)] : [],
    });
  });
  const registries = registriesOf(project).flatMap((registry): SharedFact[] => {
    const owner = profiles.find((profile) => {
      const wanted = packageFor(profile, 'unity')?.package;
      return wanted !== undefined && serves(registry, wanted);
    });
    if (!owner) return [];
    const { url, node } = registry;
    const step = { what: 'scoped registry', value: url, place: place(spanOf(node)) };
    return [
      {
        kind: 'repository',
        network: owner.id,
        name: 'scoped registry',
        value: url,
        scope: 'feed',
        effective: true,
        place: step.place,
        chain: [step],
      },
    ];
  });
  return inEditions([...found, ...registries], editions);
}

/** The version that a package says it has. */
function versionOf({ manifest }: LocalPackage): { version: string } & Span {
  const [node] = nodesAt(manifest.root, ['version']);
  const version = typeof node?.value === 'string' ? node.value : '';
  return { version, ...(node ? spanOf(node) : { start: 0, end: 0 }) };
}

function lockState(tree: Tree, { lock }: UnityProject, name: string): LockState {
  const base = { lock: 'packages-lock.json' };
  if (!lock) return { ...base, exists: false, held: undefined };
  const [version] = nodesAt(lock.json.root, ['dependencies', name, 'version']);
  if (typeof version?.value !== 'string') return { ...base, exists: true, held: undefined };
  const place = placeAt(lock.path, tree.text(lock.path), spanOf(version));
  return { ...base, exists: true, held: { version: version.value, place } };
}

/**
 * Whether the native libraries that packages name were fetched for a platform, and for which version of the package.
 */
export function nativeLibraryFacts(
  tree: Tree,
  project: UnityProject,
  { platform, module, variants }: SurveyEdition,
  { profiles }: SurveyContext,
): Fact[] {
  return profiles.flatMap((profile): Fact[] => {
    const [asked] = askedFor(tree, project, packageFor(profile, 'unity')?.package ?? '');
    const own = asked?.dependency;
    const resolution = unity.needsOf(profile)?.native?.[platform];
    if (!own || !resolution || !project.packages) return [];
    const path = below(project.root, resolution.file);
    const json = tree.has(path) ? tree.read(path, readJson) : undefined;
    const [version] = nodesAt(json?.root ?? null, resolution.version);
    const held = version && String(jsonValue(version));
    const asks: Place = placeAt(asked.path, tree.text(asked.path), own);
    const place = version ? placeAt(path, tree.text(path), spanOf(version)) : asks;
    const isOlder = held !== undefined && /^\d/.test(own.version) && compareVersions(held, own.version) < 0;
    const chain: ChainStep[] = [
      { what: baseOf(asked.path), value: `${own.name} ${own.version}`, place: asks },
    ];
    if (held !== undefined) chain.push({ what: 'fetched for', value: held, place });
    return [
      {
        kind: 'native-libraries',
        network: profile.id,
        platform,
        module,
        variants: variants.map(({ name }) => name),
        name: resolution.file,
        value: held ?? '',
        state: held === undefined ? 'not-fetched' : isOlder ? 'older' : 'fetched',
        effective: true,
        place,
        chain,
      },
    ];
  });
}
