import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { Declared } from '../../../facts/declared.js';
import { coordinatesOf } from './coordinates.js';
import { allDependencyCalls } from './dependency-calls.js';
import { androidNamespace } from '../../common/manifest/namespaces.js';
import { repositoriesOf } from './repositories.js';
import { appModules } from '../../common/gradle/scripts.js';
import { manifestsOf } from './sources.js';
import { readModule } from './variants.js';

/** Keys, dependencies and repositories that the application modules below a root declare. */
export function declaredOnAndroid(tree: Tree, root: string): Declared[] {
  const found = appModules(tree)
    .filter((module) => module.root === root)
    .flatMap((module): Declared[] => {
      const model = readModule(tree, module);
      const dependencies = allDependencyCalls(model).flatMap((item) =>
        coordinatesOf(tree, model, item).map(({ name, version }): Declared => ({
          platform: 'android',
          kind: 'dependency',
          name,
          value: version,
          place: placeAt(item.script, tree.text(item.script), item.call),
        })),
      );
      const keys = model.variants.flatMap((variant) =>
        manifestsOf(tree, model, variant).flatMap(({ path, document }) => {
          const { root: manifest } = document;
          if (!manifest) return [];
          const prefix = prefixOf(manifest, androidNamespace, 'android');
          return elements(manifest, 'application')
            .flatMap((application) => elements(application, 'meta-data'))
            .map((element): Declared => ({
              platform: 'android',
              kind: 'meta-data',
              name: attribute(element, `${prefix}:name`)?.value ?? '',
              value:
                attribute(element, `${prefix}:value`)?.value ??
                attribute(element, `${prefix}:resource`)?.value ??
                '',
              place: placeAt(path, tree.text(path), element),
            }));
        }),
      );
      return [...keys, ...dependencies];
    });
  const modules = appModules(tree).filter((module) => module.root === root);
  const repositories = modules
    .flatMap(({ folder }) => repositoriesOf(tree, root, folder))
    .map(({ name, place }): Declared => ({
      platform: 'android',
      kind: 'repository',
      name,
      value: '',
      place,
    }));
  return once([...found, ...repositories]);
}

function once(declared: readonly Declared[]): Declared[] {
  return [
    ...new Map(
      declared.map((item) => [`${item.kind} ${item.name} ${JSON.stringify(item.place)}`, item]),
    ).values(),
  ];
}
