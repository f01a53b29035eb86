import { platformNames } from '../../words/names.js';
import { placeAt } from '../../facts/place.js';
import type { Declared } from '../../facts/declared.js';
import type { Tree } from '../../tree/tree.js';
import { scriptFiles } from '../react-native/index.js';
import { exampleOf } from '../script-packages.js';
import type { Recognition, Stack } from '../stack.js';
import { expoAt, expoRoots, type ExpoProject } from './project.js';
import { surveyExpo } from './survey.js';
import { unwireExpo, wireExpo } from './wire.js';

/** Expo: a package that depends on it and a configuration, from which native projects are made for each build. */
export const expo: Stack = {
  id: 'expo',
  name: 'Expo',
  collect: [
    ...scriptFiles,
    ...['app.json', 'app.config.json', 'eas.json', '.gitignore'].map((name) => ({ name })),
    ...['ts', 'js', 'cjs', 'mjs'].map((end) => ({ name: `app.config.${end}` })),
  ],
  writes: ['typescript', 'kotlin', 'java', 'swift', 'objective-c'],
  needles: ['registerRootComponent'],
  folders: [],
  recognise(tree) {
    return expoRoots(tree).flatMap((root) => {
      const project = expoAt(tree, root);
      return project ? [recognition(tree, project)] : [];
    });
  },
  survey: surveyExpo,
  wire: wireExpo,
  unwire: unwireExpo,
  declared: declaredInExpo,
};

function recognition(tree: Tree, { root, path, json, script, eas, parts }: ExpoProject): Recognition {
  const evidence = [
    `${path} depends on expo`,
    ...(json ? [`${json.path} configures it`] : []),
    ...(script ? [`${script.path} works its configuration out`] : []),
    ...(eas ? [`${eas.path} has the build profiles ${eas.profiles.map(({ name }) => name).join(', ')}`] : []),
    ...parts.map((part) => `${part.root} is made from it, and left out of the repository`),
  ];
  const roots = parts.map((part) => part.root);
  const above = exampleOf(tree, root);
  const found = { root, evidence, ...(roots.length > 0 ? { parts: roots } : {}) };
  return above === undefined
    ? found
    : { ...found, passedOver: `it is the example that ${above} brings along` };
}

function declaredInExpo(tree: Tree, root: string): Declared[] {
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
