import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { plistText, topEntries } from '../../../formats/plist/read.js';
import { podsFor, readPodfile } from '../../../formats/podfile/read.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { Declared } from '../../../facts/declared.js';
import { podfileOf } from './dependencies.js';
import { plistOf, targetsBelow } from './targets.js';

/** Keys, pods and packages that the application targets below a root declare. */
export function declaredOnIos(tree: Tree, root: string): Declared[] {
  const found = targetsBelow(tree, root).flatMap((model) => [
    ...keysOf(tree, model),
    ...podsOf(tree, model),
    ...packagesOf(tree, model),
  ]);
  return [...new Map(found.map((item) => [`${item.kind} ${item.name} ${item.place.path}`, item])).values()];
}

type Model = ReturnType<typeof targetsBelow>[number];

function keysOf(tree: Tree, { variants }: Model): Declared[] {
  return variants.flatMap((variant) => {
    const list = plistOf(tree, variant);
    if (!list) return [];
    return topEntries(list.document).map((entry): Declared => ({
      platform: 'ios',
      kind: 'plist-key',
      name: entry.key,
      value: plistText(entry.value),
      place: placeAt(list.path, list.text, entry),
    }));
  });
}

function podsOf(tree: Tree, { project, target }: Model): Declared[] {
  const podfile = podfileOf(tree, project.folder);
  if (podfile === undefined) return [];
  const read = tree.read(podfile, readPodfile);
  return (read ? podsFor(read, target.name) : []).map((pod) => ({
    platform: 'ios',
    kind: 'pod',
    name: pod.name,
    value: pod.version.replace(/^[~>=<\s]+/, ''),
    place: placeAt(podfile, tree.text(podfile), pod),
  }));
}

function packagesOf(tree: Tree, { project, target }: Model): Declared[] {
  const { objects, path } = project;
  return stringsOf(target.entry.value, 'packageProductDependencies').flatMap((id): Declared[] => {
    const entry = entryOf(objects, id);
    const name = stringOf(entry?.value, 'productName');
    const reference = entryOf(objects, stringOf(entry?.value, 'package') ?? '')?.value;
    if (!entry || name === undefined) return [];
    return [
      {
        platform: 'ios',
        kind: 'package',
        name,
        value: stringOf(reference, 'repositoryURL') ?? '',
        place: placeAt(path, tree.text(path), entry),
      },
    ];
  });
}
