import { appendJson, removeJson } from '../../../formats/json/edit.js';
import { nodesAt, readJson } from '../../../formats/json/read.js';
import { setPackageVersion } from '../../../formats/package-json/edit.js';
import { isVersionRange } from '../../../formats/package-json/read.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import { Draft } from '../../../text/draft.js';
import { unity } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import type { Change } from '../../../edits/model.js';
import { alsoFor, beginsBelow, platformOf } from '../../common/joint-wiring.js';
import { unwirePackageJson, wirePackageJson } from '../../common/script-packages/wire.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { localPackages } from '../survey/local-packages.js';
import { askedFor, localPackage, registriesIn, registriesOf, serves } from '../survey/packages.js';
import { unityAt, unityRoots, type UnityProject } from '../survey/project.js';

const rules = ['build/feed-missing'];

const sameUrl = (a: string, b: string): boolean => a.replace(/\/+$/, '') === b.replace(/\/+$/, '');

/** The packages of networks, and the registries that they are published in. */
export function wireUnityPackages(tree: Tree, project: UnityProject, context: WireContext): StackWiring {
  const { packages } = project;
  if (!packages) return { changes: [], byHand: [] };
  const beside = context.profiles.filter((profile) => isBeside(tree, project, profile));
  const own = context.profiles.filter((profile) => !beside.includes(profile));
  const made = wirePackageJson(
    tree,
    packages,
    { ...context, profiles: own },
    {
      stack: 'unity',
      todo: 'Open the project in the editor once, and commit the new packages-lock.json.',
      rangeOf: (version) => version,
    },
  );
  const raised = beside.flatMap((profile) => raisedBeside(tree, project, profile, context));
  const changes = [...made.changes, ...raised, ...registryChanges(tree, project, context)];
  return { changes, byHand: made.byHand };
}

/** Whether a package beside the project brings that of a network, or is that package. */
function isBeside(tree: Tree, project: UnityProject, profile: Profile): boolean {
  const name = packageFor(profile, 'unity')?.package ?? '';
  const [asked] = askedFor(tree, project, name);
  return asked?.isBeside === true || (!asked && localPackage(tree, project, name) !== undefined);
}

/** Newer versions in the packages beside a project that declare an older one. */
function raisedBeside(tree: Tree, project: UnityProject, profile: Profile, context: WireContext): Change[] {
  const wanted = packageFor(profile, 'unity');
  const platform = platformOf(context, profile.id);
  if (!wanted || !platform || localPackage(tree, project, wanted.package)) return [];
  const base = { platform, also: alsoFor(context, platform), network: profile.id };
  return askedFor(tree, project, wanted.package).flatMap(({ dependency, path }): Change[] =>
    isVersionRange(dependency.version) && beginsBelow(dependency.version, wanted.version)
      ? [
          {
            ...base,
            path,
            topic: 'dependency',
            rules: ['build/dependency-too-old'],
            kind: 'edit',
            edits: setPackageVersion(dependency, wanted.version),
          },
        ]
      : [],
  );
}

/** The registries of networks; each is put into what the others made of the manifest. */
function registryChanges(tree: Tree, project: UnityProject, context: WireContext): Change[] {
  const { packages } = project;
  const document = packages && tree.text(packages.path);
  if (!document) return [];
  const draft = new Draft(document.text);
  const adds: string[] = [];
  const networks: string[] = [];
  for (const profile of context.profiles) {
    const wanted = unity.needsOf(profile)?.registry;
    const name = packageFor(profile, 'unity')?.package;
    if (!wanted || name === undefined || !platformOf(context, profile.id)) continue;
    const all = registriesIn(readJson(draft.text).root);
    const at = all.findIndex(({ url }) => sameUrl(url, wanted.url));
    const own = all[at];
    if (own && serves(own, name)) continue;
    networks.push(profile.id);
    if (!own) draft.apply(appendJson(draft.text, ['scopedRegistries'], wanted));
    else
      for (const scope of wanted.scopes) {
        draft.apply(appendJson(draft.text, ['scopedRegistries', String(at), 'scopes'], scope));
        adds.push(`scope ${scope}`);
      }
  }
  const [first, ...others] = networks;
  const platform = first === undefined ? undefined : platformOf(context, first);
  if (first === undefined || !platform) return [];
  return [
    {
      path: packages.path,
      platform,
      also: alsoFor(context, platform),
      network: others.length === 0 ? first : null,
      topic: 'dependency',
      rules,
      adds,
      kind: 'edit',
      edits: draft.edits,
    },
  ];
}

/** The package of a removed network, and its registry if no other package comes from there. */
export function unwireUnityPackages(tree: Tree, project: UnityProject, context: UnwireContext): StackWiring {
  const beside = unwireBeside(tree, project, context);
  return {
    changes: [...beside.changes, ...unwireManifest(tree, project, context)],
    byHand: beside.byHand,
  };
}

/** The package of a network goes from the packages beside a project; those of another project, too, are left. */
function unwireBeside(tree: Tree, project: UnityProject, context: UnwireContext): StackWiring {
  const others = unityRoots(tree).flatMap((root) =>
    root === project.root ? [] : (unityAt(tree, root) ?? []),
  );
  const shared = new Set(others.flatMap((other) => localPackages(tree, other).map(({ path }) => path)));
  const found = localPackages(tree, project).map((one) => ({
    path: one.path,
    changes: unwirePackageJson(one, context, 'unity'),
  }));
  return {
    changes: found.flatMap(({ path, changes }) => (shared.has(path) ? [] : changes)),
    byHand: found
      .filter(({ path, changes }) => shared.has(path) && changes.length > 0)
      .map(({ path }) => ({
        platform: null,
        network: context.network.id,
        rule: null,
        what: `Take ${packageFor(context.network, 'unity')?.package ?? ''} out of ${path}, if no other project needs it.`,
        why: 'Another project of this tree uses this package too.',
        where: path,
      })),
  };
}

function unwireManifest(tree: Tree, project: UnityProject, context: UnwireContext): Change[] {
  const { packages } = project;
  const { network, added } = context;
  const document = packages && tree.text(packages.path);
  if (!document) return [];
  const own = unwirePackageJson(packages, context, 'unity');
  const wanted = unity.needsOf(network)?.registry;
  const all = registriesOf(project);
  const at = all.findIndex(({ url }) => wanted !== undefined && sameUrl(url, wanted.url));
  const registry = all[at];
  if (!wanted || !registry) return own;
  const foreign = registry.scopes.filter((scope) => !wanted.scopes.includes(scope));
  const way = ['scopedRegistries', String(at)];
  const draft = new Draft(document.text);
  if (foreign.length === 0) draft.apply(removeJson(draft.text, way));
  else
    for (const scope of wanted.scopes.filter((one) => added.has(`scope ${one}`))) {
      const scopes = nodesAt(readJson(draft.text).root, [...way, 'scopes', '*']).map(
        ({ value }) => value as unknown,
      );
      if (scopes.includes(scope))
        draft.apply(removeJson(draft.text, [...way, 'scopes', String(scopes.indexOf(scope))]));
    }
  const { edits } = draft;
  if (edits.length === 0) return own;
  const platform = platformOf(context, network.id) ?? 'android';
  return [
    ...own,
    {
      path: packages.path,
      platform,
      network: network.id,
      topic: 'dependency',
      rules: [],
      kind: 'edit',
      edits,
    },
  ];
}
