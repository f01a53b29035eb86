import { blockBody, callsIn, literal } from '../../formats/gradle/query.js';
import { attribute, elements, prefixOf } from '../../formats/xml/query.js';
import { placeAt } from '../../survey/place.js';
import type { Tree } from '../../tree/tree.js';
import type { Declared } from '../../survey/declared.js';
import { coordinatesOf } from './dependencies.js';
import { androidNamespace } from './manifest.js';
import { appModules, scriptOf, settingsNames, statementsOf } from './scripts.js';
import { manifestsOf } from './sources.js';
import { readModule } from './variants.js';

/** Keys, dependencies and repositories that the application modules below a root declare. */
export function declaredOnAndroid(tree: Tree, root: string): Declared[] {
  const found = appModules(tree)
    .filter((module) => module.root === root)
    .flatMap((module): Declared[] => {
      const model = readModule(tree, module);
      const script = module.script;
      const dependencies = callsIn(blockBody(statementsOf(tree, script), 'dependencies')).flatMap(
        ({ call }) =>
          coordinatesOf(tree, model, call).map(({ name, version }): Declared => ({
            platform: 'android',
            kind: 'dependency',
            name,
            value: version,
            place: placeAt(script, tree.text(script), call),
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
  const scripts = [
    ...settingsNames.map((name) => (root ? `${root}/${name}` : name)).filter((path) => tree.has(path)),
    scriptOf(tree, root),
  ];
  const repositories = scripts.flatMap((script) => (script ? repositoriesIn(tree, script) : []));
  return once([...found, ...repositories]);
}

const repositoryBlocks = [
  ['repositories'],
  ['allprojects', 'repositories'],
  ['dependencyResolutionManagement', 'repositories'],
];

/** The addresses of `maven` repositories in a script, in whichever form: `maven("…")`, `maven { url … }`. */
function repositoriesIn(tree: Tree, script: string): Declared[] {
  return repositoryBlocks.flatMap((way) => {
    const body = way.reduce((statements, name) => blockBody(statements, name), statementsOf(tree, script));
    return callsIn(body)
      .filter(({ path }) => path === 'maven')
      .flatMap(({ call }): Declared[] => {
        const text = tree.text(script)?.text.slice(call.start, call.end) ?? '';
        const url = literal(call.args[0]?.value) ?? /["'](https?:\/\/[^"'\s]{1,300})["']/.exec(text)?.[1];
        if (url === undefined) return [];
        return [
          {
            platform: 'android',
            kind: 'repository',
            name: url,
            value: '',
            place: placeAt(script, tree.text(script), call),
          },
        ];
      });
  });
}

function once(declared: readonly Declared[]): Declared[] {
  return [
    ...new Map(
      declared.map((item) => [`${item.kind} ${item.name} ${JSON.stringify(item.place)}`, item]),
    ).values(),
  ];
}
