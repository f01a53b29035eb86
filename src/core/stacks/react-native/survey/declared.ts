import type { Declared } from '../../../facts/declared.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { projectAt } from '../../common/script-packages/project.js';

/** What the `package.json` and the native trees of a project declare. */
export function declaredInPackageJson(tree: Tree, root: string): Declared[] {
  const project = projectAt(tree, root);
  if (!project) return [];
  const { path, manifest, parts } = project;
  const own = manifest.dependencies
    .filter(({ section }) => section === 'dependencies')
    .flatMap((asked) =>
      parts.map(({ stack }): Declared => ({
        platform: stack.id === 'native-android' ? 'android' : 'ios',
        kind: 'dependency',
        name: asked.name,
        value: asked.version,
        place: placeAt(path, tree.text(path), asked),
      })),
    );
  return [...own, ...parts.flatMap((part) => part.stack.declared(tree, part.root))];
}
