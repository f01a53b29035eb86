import { platformNames } from '../../../words/names.js';
import type { Span } from '../../../text/problem.js';
import type { Declared } from '../../../facts/declared.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { askedPackages, registriesOf } from './packages.js';
import { unityAt } from './project.js';
import { identifierEntry } from './settings.js';

/** The packages that a project declares, and the registries that they come from; Unity's own left out. */
export function declaredInUnity(tree: Tree, root: string): Declared[] {
  const project = unityAt(tree, root);
  if (!project?.packages) return [];
  const { path } = project.packages;
  const place = (span: Span) => placeAt(path, tree.text(path), span);
  const platforms = platformNames.filter((platform) => identifierEntry(project, platform));
  return platforms.flatMap((platform): Declared[] => [
    ...askedPackages(project)
      .filter(({ name }) => !name.startsWith('com.unity.'))
      .map(({ name, version, ...span }): Declared => ({
        platform,
        kind: 'dependency',
        name,
        value: version,
        place: place(span),
      })),
    ...registriesOf(project).map(({ url, node: { offset, length } }): Declared => ({
      platform,
      kind: 'repository',
      name: url,
      value: url,
      place: place({ start: offset, end: offset + length }),
    })),
  ]);
}
