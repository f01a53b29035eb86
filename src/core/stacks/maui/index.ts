import { documentFiles } from '../common/documents.js';
import type { Stack } from '../stack.js';
import { maui as description } from './description.js';
import { surveyMaui } from './survey/index.js';
import { wireMaui } from './wire/index.js';
import { unwireMaui } from './unwire/index.js';
import { recogniseMaui } from './recognise.js';
import { declaredInProject } from './survey/declared.js';

/** .NET MAUI: a project file that builds an application for Android and iOS from one source. */
export const maui: Stack = {
  ...description,
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
    ...documentFiles,
  ],
  writes: ['csharp'],
  // Attributes that put something into the manifest.
  needles: ['UsesPermission(', 'MetaData('],
  folders: [],
  skips: [],
  fills: ['bin', 'obj'].map((folder) => ({ folder, beside: '.csproj' })),
  recognise: recogniseMaui,
  survey: surveyMaui,
  wire: wireMaui,
  unwire: unwireMaui,
  declared: declaredInProject,
};
