import { readStrings } from '../../../formats/android-resources/read.js';
import { blockBody, callsIn, literal } from '../../../formats/gradle/query.js';
import { readGradle } from '../../../formats/gradle/read.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import type { Fact, SurveyEdition, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { manifestFacts } from '../../common/manifest/facts.js';
import type { ManifestBuild, ManifestFile } from '../../common/manifest/model.js';
import { lyingLibraries } from '../../common/library-file.js';
import { inEditions, type SharedFact } from '../../common/package-facts.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { localPackages } from './local-packages.js';
import { playerEntry, type UnityProject } from './project.js';
import { identifierEntry } from './settings.js';

const home = 'Assets/Plugins/Android';

/** Files of the project's own that are in for what Unity would write, and the switch that each hangs on. */
const templates = [
  { file: 'AndroidManifest.xml', key: 'useCustomMainManifest', name: 'Custom Main Manifest' },
  { file: 'mainTemplate.gradle', key: 'useCustomMainGradleTemplate', name: 'Custom Main Gradle Template' },
  {
    file: 'launcherTemplate.gradle',
    key: 'useCustomLauncherGradleManifest',
    name: 'Custom Launcher Gradle Template',
  },
  {
    file: 'baseProjectTemplate.gradle',
    key: 'useCustomBaseGradleTemplate',
    name: 'Custom Base Gradle Template',
  },
  {
    file: 'settingsTemplate.gradle',
    key: 'useCustomGradleSettingsTemplate',
    name: 'Custom Gradle Settings Template',
  },
] as const;
type Template = (typeof templates)[number];

/** The path of a project's own manifest, whether or not it exists. */
export function customManifest({ root }: UnityProject): string {
  return below(root, `${home}/AndroidManifest.xml`);
}

/** The switch of a template; one that the settings do not know is on wherever the file is. */
function switchOf(project: UnityProject, key: Template['key']) {
  const node = playerEntry(project, key);
  return { node, isOn: node === undefined || node.value === '1' };
}

/** Templates that are there: what they are called, and whether they are switched on. */
export function existingTemplates(tree: Tree, project: UnityProject) {
  return templates.flatMap((template) => {
    const path = below(project.root, `${home}/${template.file}`);
    return tree.has(path) ? [{ ...template, path, ...switchOf(project, template.key) }] : [];
  });
}

/** The manifests that are merged into a build, the weakest first: those of library folders, then the project's own. */
function unityManifests(tree: Tree, project: UnityProject): ManifestFile[] {
  const own = customManifest(project);
  const libraries = libraryFiles(tree, project).filter(
    (path) => baseOf(path) === 'AndroidManifest.xml' && /\.androidlib(\/src\/main)?$/.test(folderOf(path)),
  );
  const paths = [...libraries, ...(switchOf(project, 'useCustomMainManifest').isOn ? [own] : [])];
  return paths.flatMap((path): ManifestFile[] => {
    const document = tree.has(path) ? tree.read(path, readXml) : undefined;
    const isOwn = path === own;
    return document
      ? [{ path, sourceSet: isOwn ? 'main' : baseOf(folderOf(path)), document, library: !isOwn }]
      : [];
  });
}

/** The files of Android libraries below `Assets`, and in packages beside the project. */
function libraryFiles(tree: Tree, project: UnityProject): string[] {
  return tree.once(`unity libraries of ${project.root}`, () => {
    const homes = [below(project.root, 'Assets'), ...localPackages(tree, project).map(({ root }) => root)];
    return tree.paths.filter(
      (path) => path.includes('.androidlib/') && homes.some((home) => isWithin(path, home)),
    );
  });
}

/** A string of the resources of a library. */
function libraryString(tree: Tree, project: UnityProject, name: string): ReturnType<ManifestBuild['string']> {
  const files = libraryFiles(tree, project).filter((path) =>
    /\.androidlib\/(?:src\/main\/)?res\/values\/[^/]+\.xml$/.test(path),
  );
  for (const path of files) {
    const found = tree.read(path, readStrings)?.strings.find((one) => one.name === name);
    if (!found) continue;
    const place = placeAt(path, tree.text(path), found);
    return { value: found.value, step: { what: `string ${name}`, value: found.raw, place } };
  }
  return undefined;
}

/** App IDs, permissions and components that the manifests of a project give a variant. */
export function unityManifestFacts(
  tree: Tree,
  project: UnityProject,
  { module }: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const identifier = identifierEntry(project, 'android')?.value;
  const build = {
    module,
    variant: variant.name,
    files: unityManifests(tree, project),
    isComplete: false,
    namespace: null,
    placeholder: (name: string) =>
      name === 'applicationId' && identifier !== undefined ? { value: identifier, chain: [] } : undefined,
    string: (name: string) => libraryString(tree, project, name),
  };
  return manifestFacts(tree, build, context);
}

/** Templates, and what the Gradle ones among them name; library files that lie where Unity takes them in. */
export function androidFileFacts(
  tree: Tree,
  project: UnityProject,
  edition: SurveyEdition,
  { profiles }: SurveyContext,
): Fact[] {
  const existing = existingTemplates(tree, project);
  const switches = existing.map(({ path, name, node, isOn }): SharedFact => {
    const place = node
      ? placeAt(project.path, tree.text(project.path), node.valueSpan)
      : { path, line: 1, column: 1 };
    const value = isOn ? 'on' : 'off';
    const chain = [{ what: 'player settings', value: node?.value ?? null, place }];
    return { kind: 'template', network: null, name, value, file: path, isOn, effective: true, place, chain };
  });
  const scripts = existing.filter(({ path, isOn }) => isOn && path.endsWith('.gradle'));
  const ofLibraries = libraryFiles(tree, project).filter((path) =>
    /\.androidlib\/build\.gradle(\.kts)?$/.test(path),
  );
  const named = [...scripts.map(({ path }) => path), ...ofLibraries].flatMap((path) =>
    dependencyLines(tree, path, profiles),
  );
  const libraries = lyingLibraries(
    tree,
    profiles,
    (path) => isWithin(path, below(project.root, 'Assets')) && !/\/Editor\//.test(path),
  );
  return inEditions([...switches, ...named, ...libraries], [edition]);
}

/** Dependencies of networks that a Gradle template names; its markers (`**DEPS**`) are Unity's to fill. */
function dependencyLines(tree: Tree, path: string, profiles: readonly Profile[]): SharedFact[] {
  const statements = tree.read(path, readGradle)?.statements ?? [];
  return callsIn(blockBody(statements, 'dependencies')).flatMap(
    ({ path: configuration, call }): SharedFact[] => {
      const text = literal(call.args[0]?.value) ?? '';
      const [, name, version] = /^([\w.-]+:[\w.-]+):([\w.+-]+)/.exec(text) ?? [];
      const owner = profiles.find(({ android }) =>
        android?.dependencies.some(({ coordinate }) => coordinate === name),
      );
      if (!owner || name === undefined || version === undefined) return [];
      const place = placeAt(path, tree.text(path), call);
      const chain = [{ what: configuration, value: text, place }];
      return [{ kind: 'dependency', network: owner.id, name, value: version, effective: true, place, chain }];
    },
  );
}
