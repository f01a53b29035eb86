import type { Declared } from '../../../facts/declared.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { platformNames } from '../../../words/names.js';
import { entriesOf } from './evaluate.js';
import { mauiAt } from './project.js';

/** The packages that a project refers to; those of the framework itself left out. */
export function declaredInProject(tree: Tree, root: string): Declared[] {
  const project = mauiAt(tree, root);
  if (!project) return [];
  const references = entriesOf(tree, project.path).flatMap((entry) =>
    entry.is === 'item' && entry.type === 'PackageReference' ? [entry] : [],
  );
  return platformNames
    .filter((platform) => project.frameworks[platform] !== undefined)
    .flatMap((platform) =>
      references.flatMap(({ path, element, metadata }): Declared[] => {
        const name = metadata.get('include');
        if (name === undefined || /^(Microsoft|System|Xamarin)\./.test(name)) return [];
        const place = placeAt(path, tree.text(path), element);
        return [{ platform, kind: 'dependency', name, value: metadata.get('version') ?? '', place }];
      }),
    );
}
