import { entryOf, stringOf, stringsOf } from '../../formats/pbxproj/read.js';
import { readPodfile } from '../../formats/podfile/read.js';
import type { Fact } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import { folderOf, joinPath } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { SurveyContext } from '../stack.js';
import type { IosVariant, TargetModel } from './targets.js';

/** The Podfile that serves a project: beside it, or in a folder above. */
export function podfileOf(tree: Tree, folder: string): string | undefined {
  for (let at: string | null = folder; at !== null; at = at === '' ? null : folderOf(at)) {
    const path = joinPath(at, 'Podfile') ?? 'Podfile';
    if (tree.has(path)) return path;
  }
  return undefined;
}

/** Pods and Swift packages of a target that a network's profile claims. */
export function dependencyFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  { profiles }: SurveyContext,
): Fact[] {
  const base = {
    kind: 'dependency' as const,
    platform: 'ios' as const,
    module: model.target.name,
    variants: [variant.name],
  };
  const facts: Fact[] = [];
  const podfile = podfileOf(tree, model.project.folder);
  const pods = podfile ? (tree.read(podfile, readPodfile)?.pods ?? []) : [];
  for (const pod of pods) {
    if (!podfile || (pod.targets.length > 0 && !pod.targets.includes(model.target.name))) continue;
    for (const profile of profiles) {
      if (!profile.ios?.pods.some(({ name }) => name === pod.name)) continue;
      const place = placeAt(podfile, tree.text(podfile), pod);
      const chain = [{ what: 'Podfile', value: `${pod.name} ${pod.version}`.trim(), place }];
      facts.push({ ...base, network: profile.id, name: pod.name, value: pod.version, place, chain });
    }
  }
  const { objects, path } = model.project;
  for (const id of stringsOf(model.target.entry.value, 'packageProductDependencies')) {
    const entry = entryOf(objects, id);
    const product = stringOf(entry?.value, 'productName');
    const reference = entryOf(objects, stringOf(entry?.value, 'package') ?? '')?.value;
    if (!entry || product === undefined) continue;
    for (const profile of profiles) {
      if (!profile.ios?.packages.some((wanted) => wanted.product === product)) continue;
      const place = placeAt(path, tree.text(path), entry);
      const requirement = entryOf(reference, 'requirement')?.value;
      const version = stringOf(requirement, 'minimumVersion') ?? stringOf(requirement, 'version') ?? '';
      const chain = [
        { what: 'Swift package', value: stringOf(reference, 'repositoryURL') ?? product, place },
      ];
      facts.push({ ...base, network: profile.id, name: product, value: version, place, chain });
    }
  }
  return facts;
}
