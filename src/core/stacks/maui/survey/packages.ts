import { nodesAt, readJson } from '../../../formats/json/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Fact, SurveyEdition, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Platform } from '../../../words/words.js';
import type { Tree } from '../../../tree/tree.js';
import { inEditions, packageFacts, type LockState, type SharedFact } from '../../common/package-facts.js';
import { below } from '../../common/script-packages/packages.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { EvaluatedProject } from './evaluate.js';
import { flowing, partsOf, type Part } from './parts.js';
import type { MauiProject } from './project.js';

/** Whether an item names a package; names of packages are compared without regard to case. */
export function isNamed(metadata: ReadonlyMap<string, string>, name: string): boolean {
  return [metadata.get('include'), metadata.get('update')].some(
    (one) => one?.toLowerCase() === name.toLowerCase(),
  );
}

/** The items of a type that name a package. */
export function itemsNaming(build: EvaluatedProject, type: string, name: string): Item[] {
  return build.items(type).filter(({ metadata }) => isNamed(metadata, name));
}

type Item = ReturnType<EvaluatedProject['items']>[number];

/** How a build of the application comes to a package: the project that refers to it, and what says its version. */
export interface PackageReference {
  part: Part;
  references: Item[];
  versions: Item[];
  /** What the nearest of them says; empty where nothing does. */
  version: string;
}

/** The nearest project of a build that refers to a package; one of another may keep its packages for itself. */
export function referenceTo(
  tree: Tree,
  project: MauiProject,
  { platform, configuration, name }: { platform: Platform; configuration: string; name: string },
): PackageReference | undefined {
  for (const part of partsOf(tree, project, platform, configuration)) {
    const references = flowing(itemsNaming(part.build, 'PackageReference', name), part.path === project.path);
    if (!references.some(({ metadata }) => metadata.has('include'))) continue;
    const versions = itemsNaming(part.build, 'PackageVersion', name);
    const given = [...references, ...versions].flatMap(({ metadata }) => versionIn(metadata) ?? []);
    return { part, references, versions, version: given[0] ?? '' };
  }
  return undefined;
}

export const versionIn = (metadata: ReadonlyMap<string, string>): string | undefined =>
  metadata.get('versionoverride') ?? metadata.get('version');

/** Packages of networks that a variant refers to, each at the version that the project or the central list gives. */
export function mauiPackageFacts(
  tree: Tree,
  project: MauiProject,
  edition: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Fact[] {
  const asked = { platform: edition.platform, configuration: variant.name };
  const found = context.profiles.flatMap((profile): SharedFact[] => {
    const name = packageFor(profile, 'maui')?.package;
    const reference = name === undefined ? undefined : referenceTo(tree, project, { ...asked, name });
    if (name === undefined || !reference) return [];
    const { references, versions, version } = reference;
    const at = [...references, ...versions].find(({ metadata }) => versionIn(metadata) !== undefined);
    const { path, element, type } = at ?? references[0] ?? {};
    if (path === undefined || !element) return [];
    return packageFacts({
      network: profile.id,
      name,
      value: version,
      place: placeAt(path, tree.text(path), element),
      manifest: type === 'PackageVersion' ? 'Directory.Packages.props' : 'project file',
      locks: locksOf(tree, project, edition, name, version),
    });
  });
  return inEditions(found, [{ ...edition, variants: [variant] }]);
}

/** Without a lock file the lowest version that fits is taken, which is the one that is named: nothing is open then. */
function locksOf(
  tree: Tree,
  { root, frameworks }: MauiProject,
  { platform }: SurveyEdition,
  name: string,
  version: string,
): LockState[] {
  const path = below(root, 'packages.lock.json');
  const lock = 'packages.lock.json';
  const json = tree.has(path) ? tree.read(path, readJson)?.root : undefined;
  if (!json) return /[*[(]/.test(version) ? [{ lock, exists: false, held: undefined }] : [];
  const sections = nodesAt(json, ['dependencies'])[0]?.children ?? [];
  const mine = sections.filter(({ children }) =>
    String(children?.[0]?.value).startsWith(frameworks[platform] ?? '?'),
  );
  const entry = mine
    .flatMap(({ children }) => children?.[1]?.children ?? [])
    .find(({ children }) => String(children?.[0]?.value).toLowerCase() === name.toLowerCase());
  const [held] = entry?.children?.[1] ? nodesAt(entry.children[1], ['resolved']) : [];
  if (typeof held?.value !== 'string') return [{ lock, exists: true, held: undefined }];
  const place = placeAt(path, tree.text(path), { start: held.offset, end: held.offset + held.length });
  return [{ lock, exists: true, held: { version: held.value, place } }];
}
