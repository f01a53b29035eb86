import type { Declared } from '../../../facts/declared.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { platformNames } from '../../../words/names.js';
import { expoAt } from '../../common/script-packages/expo-project.js';

/** The packages that an Expo project depends on, for both platforms. */
export function declaredInExpo(tree: Tree, root: string): Declared[] {
  const project = expoAt(tree, root);
  if (!project) return [];
  const { path, manifest } = project;
  return manifest.dependencies
    .filter(({ section }) => section === 'dependencies')
    .flatMap((asked) =>
      platformNames.map((platform): Declared => ({
        platform,
        kind: 'dependency',
        name: asked.name,
        value: asked.version,
        place: placeAt(path, tree.text(path), asked),
      })),
    );
}
