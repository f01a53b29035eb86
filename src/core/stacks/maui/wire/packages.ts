import { platformNames } from '../../../words/names.js';
import type { Platform } from '../../../words/words.js';
import { addItem, removeItem, setVersion } from '../../../formats/msbuild/edit.js';
import { readMsBuild } from '../../../formats/msbuild/read.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { packageFor } from '../../../network/for-stack.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import { folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { alsoFor, beginsBelow, platformOf } from '../../common/joint-wiring.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { entriesOf, nearest } from '../survey/evaluate.js';
import { isNamed, itemsNaming, referenceTo, versionIn, type PackageReference } from '../survey/packages.js';
import { codeProjects, partsOf, type Part } from '../survey/parts.js';
import { projectFiles, type MauiProject } from '../survey/project.js';
import { unwireFeed, wireFeed } from './feeds.js';
import { isIos, isAndroid } from './project.js';

/** The packages of networks, in the project file or in the central list, and the feeds that they come from. */
export function wireMauiPackages(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, 'maui');
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const base = {
      platform,
      also: alsoFor(context, platform),
      network: profile.id,
      topic: 'dependency' as const,
      rules: ['build/dependency-missing', 'build/dependency-too-old'],
    };
    const platforms = platformNames.filter(
      (one) => isEnrolled(context.title, profile.id, one) && project.frameworks[one] !== undefined,
    );
    const edits = new Edits(tree);
    byHand.push(
      ...referenceSteps(tree, project, platforms, wanted, edits).map((step) => ({
        ...step,
        network: profile.id,
      })),
    );
    changes.push(...edits.all().map((edit): Change => ({ ...base, kind: 'edit', ...edit })));
    const feed = wireFeed(tree, project, profile, { ...base, rules: ['build/feed-missing'] });
    changes.push(...feed.changes);
    byHand.push(...feed.byHand);
  }
  if (changes.some(({ kind }) => kind === 'edit') && tree.has(below(project.root, 'packages.lock.json')))
    byHand.push({
      platform: null,
      network: null,
      rule: null,
      what: 'Run dotnet restore --force-evaluate, and commit the new packages.lock.json.',
      why: 'A project with a lock file is built with the versions in it.',
      where: project.path,
    });
  return { changes, byHand };
}

/** Edits of several files, each place once, whichever build led to it. */
class Edits {
  private readonly edits = new Map<string, Map<string, Edit>>();

  constructor(private readonly tree: Tree) {}

  add(path: string, make: (text: string, eol: string) => Edit[]): void {
    const document = this.tree.text(path);
    const mine = this.edits.get(path) ?? new Map<string, Edit>();
    this.edits.set(path, mine);
    for (const edit of document ? make(document.text, document.lineEnd) : [])
      mine.set(JSON.stringify(edit), edit);
  }

  all(): { path: string; edits: Edit[] }[] {
    return [...this.edits].flatMap(([path, edits]) =>
      edits.size > 0 ? [{ path, edits: [...edits.values()] }] : [],
    );
  }
}

interface Wanted {
  package: string;
  version: string;
}

/**
 * A reference for the platforms that have none, and newer versions where they are too old. Where only some
 * configurations have one, nobody knows why, and a person decides.
 */
function referenceSteps(
  tree: Tree,
  project: MauiProject,
  platforms: readonly Platform[],
  wanted: Wanted,
  edits: Edits,
): Omit<ByHand, 'network'>[] {
  const { package: include, version } = wanted;
  const state = (platform: Platform) =>
    project.configurations.map((configuration) => ({
      configuration,
      found: referenceTo(tree, project, { platform, configuration, name: include }),
    }));
  const states = platforms.map((platform) => ({ platform, builds: state(platform) }));
  const without = states.filter(({ builds }) => builds.every(({ found }) => !found));
  const add = (path: string, type: string, item: { version?: string; condition?: string }) => {
    const file = tree.read(path, readMsBuild);
    if (file) edits.add(path, (text, eol) => addItem(text, file, { type, include, ...item }, eol));
  };
  const [own] = partsOf(tree, project, platforms[0] ?? 'android', project.configurations.at(-1) ?? 'Release');
  const central = own && centralList(tree, own);
  for (const condition of without.length === states.length
    ? [undefined]
    : without.map(({ platform }) => (platform === 'ios' ? isIos : isAndroid))) {
    add(project.path, 'PackageReference', {
      ...(central === undefined && { version }),
      ...(condition !== undefined && { condition }),
    });
  }
  if (
    without.length > 0 &&
    own &&
    central !== undefined &&
    itemsNaming(own.build, 'PackageVersion', include).length === 0
  )
    add(central, 'PackageVersion', { version });
  for (const { builds } of states)
    for (const { found } of builds) if (found) raise(tree, found, wanted, edits, add);
  return states.flatMap(({ platform, builds }): Omit<ByHand, 'network'>[] => {
    const lacking = builds.filter(({ found }) => !found).map(({ configuration }) => configuration);
    if (lacking.length === 0 || lacking.length === builds.length) return [];
    return [
      {
        platform,
        rule: 'build/dependency-missing',
        what: `Refer to ${include} in ${lacking.join(' and ')} too, or take the condition from its reference.`,
        why: 'Only some configurations refer to it, so the code of the others does not compile.',
        where: project.path,
      },
    ];
  });
}

/** The list that gives the versions of a project's packages, where there is one. */
function centralList(tree: Tree, { path, build }: Part): string | undefined {
  const isCentral = /^true$/i.test(build.property('ManagePackageVersionsCentrally')?.value ?? '');
  return isCentral ? nearest(tree, folderOf(path), 'Directory.Packages.props') : undefined;
}

function raise(
  tree: Tree,
  { part, references, versions }: PackageReference,
  { version }: Wanted,
  edits: Edits,
  add: (path: string, type: string, item: { version?: string }) => void,
): void {
  const central = centralList(tree, part);
  const isOverridden = references.some(({ metadata }) => metadata.has('versionoverride'));
  if (central !== undefined && versions.length === 0 && !isOverridden)
    add(central, 'PackageVersion', { version });
  for (const { path, element, metadata } of [...references, ...versions]) {
    const held = versionIn(metadata);
    if (held !== undefined && beginsBelow(held, version)) edits.add(path, () => setVersion(element, version));
  }
}

/**
 * Removes the package of a network wherever a build refers to it, with its feed if no other network needs it. What
 * projects outside this application also use stays as it is.
 */
export function unwireMauiPackages(tree: Tree, project: MauiProject, context: UnwireContext): StackWiring {
  const { network } = context;
  const wanted = packageFor(network, 'maui');
  if (!wanted) return { changes: [], byHand: [] };
  const base = {
    platform: platformOf(context, network.id) ?? ('android' as const),
    network: network.id,
    topic: 'dependency' as const,
    rules: [],
  };
  const own = codeProjects(tree, project);
  const others = projectFiles(tree).filter((path) => !own.includes(path));
  const elsewhere = new Set(others.flatMap((path) => codeProjects(tree, { path })));
  const isReference = ({ type }: { type: string }) => type === 'PackageReference';
  const isElsewhere = [...elsewhere].some((path) =>
    referencesIn(tree, path, wanted.package).some(isReference),
  );
  const removed = new Map<XmlElement, string>();
  const byHand: ByHand[] = [];
  for (const path of own)
    for (const item of referencesIn(tree, path, wanted.package)) {
      if (!isReference(item)) {
        // Other projects may take the version from the same list.
        if (!isElsewhere) removed.set(item.element, item.path);
      } else if (!elsewhere.has(path)) removed.set(item.element, item.path);
      else
        byHand.push({
          platform: null,
          network: network.id,
          rule: null,
          what: `Take the reference to ${wanted.package} out of ${path}, if no other application needs it.`,
          why: 'Projects outside this application use this file too.',
          where: path,
        });
    }
  const changes = [...removed].map(([element, path]): Change => ({
    ...base,
    path,
    kind: 'edit',
    edits: [removeItem(tree.text(path)?.text ?? '', element)],
  }));
  if (!isElsewhere) changes.push(...unwireFeed(tree, project, context, base));
  return { changes, byHand };
}

/** The items of a project that name a package, under whatever condition. */
function referencesIn(tree: Tree, path: string, name: string) {
  return entriesOf(tree, path).flatMap((entry) =>
    entry.is === 'item' && /^Package(Reference|Version)$/.test(entry.type) && isNamed(entry.metadata, name)
      ? [entry]
      : [],
  );
}
