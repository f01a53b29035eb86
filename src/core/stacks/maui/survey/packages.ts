import { nodesAt, readJson } from '../../../formats/json/read.js';
import { attribute, descendants } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Fact, SurveyEdition, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { folderOf } from '../../../text/paths.js';
import { maui } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import { inEditions, packageFacts, type LockState, type SharedFact } from '../../common/package-facts.js';
import { below } from '../../common/script-packages/packages.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { nearest } from './evaluate.js';
import { buildOf, type MauiProject } from './project.js';

type Items = ReturnType<ReturnType<typeof buildOf>['items']>;

/** The items of a type that name a package; names of packages are compared without regard to case. */
export function itemsNaming(items: Items, name: string): Items {
  return items.filter(({ metadata }) =>
    [metadata.get('include'), metadata.get('update')].some(
      (one) => one?.toLowerCase() === name.toLowerCase(),
    ),
  );
}

/** Packages of networks that a variant refers to, each at the version that the project or the central list gives. */
export function mauiPackageFacts(
  tree: Tree,
  project: MauiProject,
  edition: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Fact[] {
  const build = buildOf(tree, project, edition.platform, variant.name);
  const references = build.items('PackageReference');
  const central = build.items('PackageVersion');
  const found = context.profiles.flatMap((profile): SharedFact[] => {
    const wanted = packageFor(profile, 'maui')?.package;
    const own = wanted === undefined ? [] : itemsNaming(references, wanted);
    const [reference] = own;
    if (wanted === undefined || !reference) return [];
    const given =
      own.find(({ metadata }) => metadata.has('version') || metadata.has('versionoverride')) ??
      itemsNaming(central, wanted)[0];
    const version = given?.metadata.get('versionoverride') ?? given?.metadata.get('version') ?? '';
    const at = given ?? reference;
    const place = placeAt(at.path, tree.text(at.path), at.element);
    return packageFacts({
      network: profile.id,
      name: wanted,
      value: version,
      place,
      manifest: given && given.type === 'PackageVersion' ? 'Directory.Packages.props' : 'project file',
      locks: locksOf(tree, project, edition, wanted, version),
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

/** The file that names the feeds of a project: the nearest one in its folder or above. */
export function feedFile(tree: Tree, { path }: MauiProject): string | undefined {
  return nearest(tree, folderOf(path), 'nuget.config');
}

/** The feeds of a project that networks publish in. */
export function feedFacts(
  tree: Tree,
  project: MauiProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
): Fact[] {
  const path = feedFile(tree, project);
  const root = path === undefined ? undefined : tree.read(path, readXml)?.root;
  if (path === undefined || !root) return [];
  const feeds = [...descendants(root)].flatMap((element): SharedFact[] => {
    const url =
      element.parent?.name === 'packageSources' &&
      element.name === 'add' &&
      attribute(element, 'value')?.value;
    const owner = profiles.find((profile) => maui.needsOf(profile)?.source === url);
    if (!url || !owner) return [];
    const place = placeAt(path, tree.text(path), element);
    const chain = [{ what: 'package source', value: url, place }];
    const base = { network: owner.id, name: 'package source', value: url, effective: true as const };
    return [{ kind: 'repository', ...base, scope: 'feed', place, chain }];
  });
  return inEditions(feeds, editions);
}
