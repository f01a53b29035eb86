import { podsFor, readPodfile } from '../../../formats/podfile/read.js';
import { readXcconfig, type XcInclude } from '../../../formats/xcconfig/read.js';
import type { Fact } from '../../../facts/model.js';
import { folderOf, joinPath, relativePath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { blank } from './blank.js';
import { podfileOf } from './dependencies.js';
import type { IosVariant, TargetModel } from './targets.js';

const ofPods = /(^|\/)Pods[-\w]*\.[\w .-]+\.xcconfig$/;
/** Flutter writes the include by itself, before each build. */
const madeByFlutter = /(^|\/)Generated\.xcconfig$/;

/**
 * The configuration file that a target with pods is based on, and whether it includes the settings of the pods. An
 * install of pods sets them only where a target is based on no other file (guides.cocoapods.org, "Pods and xcconfig").
 */
export function podSettingsFacts(tree: Tree, model: TargetModel, { name, scope }: IosVariant): Fact[] {
  const podfile = podfileOf(tree, model.project.folder);
  const read = podfile === undefined ? undefined : tree.read(podfile, readPodfile);
  const { base } = scope.own;
  if (podfile === undefined || !read || base === null || !tree.has(base)) return [];
  if (podsFor(read, model.target.name).length === 0) return [];
  const includes = includesOf(tree, base);
  if (includes.some(({ path }) => madeByFlutter.test(path))) return [];
  const pods = `Pods-${model.target.name}`;
  const wanted = `Pods/Target Support Files/${pods}/${pods}.${scope.own.name.toLowerCase()}.xcconfig`;
  const place = { path: base, line: 1, column: 1 };
  return [
    {
      ...blank('base-configuration', model, { name }),
      value: base,
      pods: relativePath(folderOf(base), joinPath(folderOf(podfile), wanted) ?? wanted).replace(/^\.\//, ''),
      includesPods: ofPods.test(base) || includes.some(({ path }) => ofPods.test(path)),
      place,
      chain: [{ what: 'base configuration', value: base, place }],
    },
  ];
}

/** The includes of a file, and those of the files that it includes. */
function includesOf(tree: Tree, base: string): XcInclude[] {
  const seen = new Set<string>();
  const waiting = [base];
  const found: XcInclude[] = [];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next) || !tree.has(next)) continue;
    seen.add(next);
    const includes = tree.read(next, readXcconfig)?.includes ?? [];
    found.push(...includes);
    waiting.push(...includes.flatMap(({ path }) => joinPath(folderOf(next), path) ?? []));
  }
  return found;
}
