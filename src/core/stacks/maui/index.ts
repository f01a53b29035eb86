import { platformNames } from '../../words/names.js';
import type { Declared } from '../../facts/declared.js';
import { placeAt } from '../../facts/place.js';
import type { Tree } from '../../tree/tree.js';
import type { Recognition, Stack } from '../stack.js';
import { entriesOf } from './evaluate.js';
import { mauiAt, mauiRoots, type MauiProject } from './project.js';
import { surveyMaui } from './survey.js';
import { unwireMaui, wireMaui } from './wire.js';

/** .NET MAUI: a project file that builds an application for Android and iOS from one source. */
export const maui: Stack = {
  id: 'maui',
  name: '.NET MAUI',
  collect: [
    { suffix: '.csproj' },
    ...[
      'packages.lock.json',
      'nuget.config',
      'NuGet.config',
      'NuGet.Config',
      'Placebook.cs',
      'MauiProgram.cs',
    ].map((name) => ({ name })),
    { suffix: '.props' },
    { suffix: '.targets' },
    { suffix: '.cs', needle: true },
    { suffix: '.xaml', needle: true },
  ],
  // Attributes that put something into the manifest.
  writes: ['csharp'],
  needles: ['UsesPermission(', 'MetaData('],
  folders: [],
  fills: ['bin', 'obj'].map((folder) => ({ folder, beside: '.csproj' })),
  recognise(tree) {
    return mauiRoots(tree).flatMap((root) => {
      const project = mauiAt(tree, root);
      return project ? [recognition(project)] : [];
    });
  },
  survey: surveyMaui,
  wire: wireMaui,
  unwire: unwireMaui,
  declared: declaredInProject,
};

function recognition({ root, path, frameworks, configurations }: MauiProject): Recognition {
  const built = Object.values(frameworks).join(' and ');
  const evidence = [
    `${path} builds an application with MAUI for ${built}`,
    `its configurations are ${configurations.join(', ')}`,
  ];
  return { root, evidence };
}

/** The packages that a project refers to; those of the framework itself left out. */
function declaredInProject(tree: Tree, root: string): Declared[] {
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
