import type { Declared } from '../../../facts/declared.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { projectAt } from './project.js';

/** What the pubspec and the native trees of a project declare. */
export function declaredInPubspec(tree: Tree, root: string): Declared[] {
  const project = projectAt(tree, root);
  if (!project) return [];
  const { path, pubspec, parts } = project;
  const own = pubspec.dependencies
    .filter(({ section, from }) => section === 'dependencies' && from !== 'sdk')
    .flatMap((asked) =>
      parts.map(({ stack }): Declared => ({
        platform: stack.id === 'native-android' ? 'android' : 'ios',
        kind: 'dependency',
        name: asked.name,
        value: asked.version ?? asked.from,
        place: placeAt(path, tree.text(path), asked),
      })),
    );
  return [...own, ...parts.flatMap((part) => part.stack.declared(tree, part.root))];
}
