import { readPackageResolved } from '../../../formats/package-resolved/read.js';
import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { readPodfileLock } from '../../../formats/podfile/lock.js';
import { podsFor, readPodfile } from '../../../formats/podfile/read.js';
import type { Profile } from '../../../network/model.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { IosVariant, TargetModel } from './targets.js';

/** The Podfile that serves a project: beside it, or in a folder above. */
export function podfileOf(tree: Tree, folder: string): string | undefined {
  for (let at: string | null = folder; at !== null; at = at === '' ? null : folderOf(at)) {
    const path = joinPath(at, 'Podfile') ?? 'Podfile';
    if (tree.has(path)) return path;
  }
  return undefined;
}

/** Pods and Swift packages of a target that a network's profile claims, with what was installed of them. */
export function dependencyFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  { profiles }: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const pods = podFacts(tree, model, variant, profiles);
  const packages = packageFacts(tree, model, variant, profiles);
  return { facts: [...pods.facts, ...packages], unresolved: pods.unresolved };
}

function podFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  profiles: readonly Profile[],
): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const podfile = podfileOf(tree, model.project.folder);
  const read = podfile === undefined ? undefined : tree.read(podfile, readPodfile);
  if (podfile === undefined || !read) return { facts, unresolved };
  const lockPath = `${podfile}.lock`;
  const lock = tree.has(lockPath) ? tree.read(lockPath, readPodfileLock) : undefined;
  for (const pod of podsFor(read, model.target.name)) {
    const owner = profiles.find(({ ios }) => ios?.pods.some(({ name }) => name === pod.name.split('/')[0]));
    if (!owner) continue;
    if (pod.configurations && !pod.configurations.some((name) => same(name, variant.scope.own.name)))
      continue;
    const place = placeAt(podfile, tree.text(podfile), pod);
    const base = {
      kind: 'dependency' as const,
      network: owner.id,
      platform: 'ios' as const,
      module: model.module,
      variants: [variant.name],
      name: pod.name,
      place,
    };
    const via = pod.method === null ? [] : [{ what: 'method of the Podfile', value: pod.method, place }];
    const chain = [...via, { what: 'Podfile', value: `${pod.name} ${pod.version}`.trim(), place }];
    if (pod.condition !== null)
      unresolved.push({
        ...base,
        what: `whether the pod ${pod.name} is taken`,
        reason: `the Podfile takes it under a condition (${pod.condition})`,
        chain,
      });
    else facts.push({ ...base, value: pod.version, effective: true, chain });
    const installed = lock?.pods.find(({ name }) => name === pod.name);
    const lockPlace = installed
      ? placeAt(lockPath, tree.text(lockPath), installed)
      : { path: lock ? lockPath : podfile, line: 1, column: 1 };
    facts.push({
      ...base,
      kind: 'resolved-version',
      value: installed?.version ?? '',
      lock: 'Podfile.lock',
      state: installed ? 'locked' : lock ? 'missing' : 'no-lock',
      effective: true,
      place: installed ? lockPlace : place,
      chain: installed
        ? [
            ...chain,
            { what: 'Podfile.lock', value: `${installed.name} ${installed.version}`, place: lockPlace },
          ]
        : chain,
    });
  }
  return { facts, unresolved };
}

function same(a: string, b: string): boolean {
  return a.toLowerCase() === b.toLowerCase();
}

function packageFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  profiles: readonly Profile[],
): Fact[] {
  const facts: Fact[] = [];
  const { objects, path, folder } = model.project;
  const resolved = resolvedPath(tree, folder);
  const pins = resolved === undefined ? undefined : tree.read(resolved, readPackageResolved);
  for (const id of stringsOf(model.target.entry.value, 'packageProductDependencies')) {
    const entry = entryOf(objects, id);
    const product = stringOf(entry?.value, 'productName');
    const reference = entryOf(objects, stringOf(entry?.value, 'package') ?? '')?.value;
    const owner = profiles.find(({ ios }) => ios?.packages.some((wanted) => wanted.product === product));
    if (!entry || product === undefined || !owner) continue;
    const place = placeAt(path, tree.text(path), entry);
    const requirement = entryOf(reference, 'requirement')?.value;
    const version =
      stringOf(requirement, 'minimumVersion') ??
      stringOf(requirement, 'version') ??
      stringOf(requirement, 'branch') ??
      stringOf(requirement, 'revision') ??
      '';
    const url = stringOf(reference, 'repositoryURL');
    const chain = [{ what: 'Swift package', value: url ?? product, place }];
    const base = {
      network: owner.id,
      platform: 'ios' as const,
      module: model.module,
      variants: [variant.name],
      name: product,
      effective: true as const,
    };
    facts.push({ ...base, kind: 'dependency', value: version, place, chain });
    if (url === undefined) continue;
    const pin = pins?.packages.find(({ location }) => sameLocation(location, url));
    const pinPlace = pin && resolved !== undefined ? placeAt(resolved, tree.text(resolved), pin) : place;
    const step = { what: 'Package.resolved', value: pin?.version ?? null, place: pinPlace };
    facts.push({
      ...base,
      kind: 'resolved-version',
      value: pin?.version ?? '',
      lock: 'Package.resolved',
      state: pin ? 'locked' : pins ? 'missing' : 'no-lock',
      place: pinPlace,
      chain: pin ? [...chain, step] : chain,
    });
  }
  return facts;
}

/** Xcode keeps the resolution in the workspace, or in the one inside the project. */
function resolvedPath(tree: Tree, folder: string): string | undefined {
  const mine = tree.paths.filter((path) => baseOf(path) === 'Package.resolved' && isWithin(path, folder));
  const inProject = mine.find((path) => path.includes('.xcodeproj/project.xcworkspace/'));
  return (
    mine.find((path) => /(^|\/)[^/]+\.xcworkspace\/xcshareddata\//.test(path) && path !== inProject) ??
    inProject
  );
}

function sameLocation(a: string, b: string): boolean {
  const plain = (url: string) =>
    url
      .toLowerCase()
      .replace(/\/+$/, '')
      .replace(/\.git$/, '');
  return plain(a) === plain(b);
}
