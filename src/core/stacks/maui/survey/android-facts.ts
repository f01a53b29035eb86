import { readStrings } from '../../../formats/android-resources/read.js';
import { readXml } from '../../../formats/xml/read.js';
import { readingOf } from '../../../code/source-files.js';
import type { SourceCall } from '../../../code/source-reading.js';
import type { Fact, SurveyEdition, Variant } from '../../../facts/model.js';
import type { Effective } from '../../../facts/effective.js';
import { placeAt } from '../../../facts/place.js';
import { folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { manifestFacts } from '../../common/manifest/facts.js';
import { type ManifestBuild } from '../../common/manifest/model.js';
import type { ManifestFile } from '../../common/manifest/model.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { compiledAt } from '../../../syntax/preprocessor.js';
import { mauiDefines } from './builds.js';
import { filesOf, isCompiledFor } from './files.js';
import { buildOf } from './parts.js';
import { platformFolder, type MauiProject } from './project.js';
import { identifierOf, type SettingOutcome } from './settings.js';

export function manifestOf(project: MauiProject): string {
  return `${platformFolder(project, 'android')}/AndroidManifest.xml`;
}

/** The manifests of a project, as the reader of manifests takes them. */
export function mauiManifests(tree: Tree, project: MauiProject): ManifestFile[] {
  const path = manifestOf(project);
  const document = tree.has(path) ? tree.read(path, readXml) : undefined;
  return document ? [{ path, sourceSet: 'main', document, library: false }] : [];
}

/** The value of a placeholder, with the line that gives it. */
function placeholder(
  tree: Tree,
  project: MauiProject,
  configuration: string,
  name: string,
): SettingOutcome | undefined {
  if (name === 'applicationId') return identifierOf(tree, project, 'android', configuration);
  const given = buildOf(tree, project, 'android', configuration).property('AndroidManifestPlaceholders');
  if (!given) return undefined;
  if (given.value === null) return { value: null, reason: given.reason, chain: given.chain };
  const pairs = given.value.split(';').map((pair) => pair.split('='));
  const value = pairs
    .findLast(([key]) => key?.trim() === name)
    ?.slice(1)
    .join('=');
  if (value === undefined) return undefined;
  const line = given.chain.findLast((step) => new RegExp(`(^|;)\\s*${name}=`).test(step.value ?? ''));
  return { value, chain: line ? [line] : given.chain };
}

/** App IDs, permissions and components of a variant: in the manifest, and in attributes of C#. */
export function androidFacts(
  tree: Tree,
  project: MauiProject,
  edition: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const { module } = edition;
  const home = `${platformFolder(project, 'android')}/Resources/values`;
  const build: ManifestBuild = {
    module,
    variant: variant.name,
    files: mauiManifests(tree, project),
    isComplete: false,
    namespace: null,
    placeholder: (name) => placeholder(tree, project, variant.name, name),
    string(name) {
      for (const path of tree.paths.filter((one) => folderOf(one) === home && one.endsWith('.xml'))) {
        const found = tree.read(path, readStrings)?.strings.find((one) => one.name === name);
        if (!found) continue;
        const place = placeAt(path, tree.text(path), found);
        return { value: found.value, step: { what: `string ${name}`, value: found.raw, place } };
      }
      return undefined;
    },
  };
  const found = manifestFacts(tree, build, context);
  return {
    facts: [...found.facts, ...attributeFacts(tree, project, edition, { variant, context })],
    unresolved: found.unresolved,
  };
}

/** `Internet` of `Manifest.Permission.Internet`, as written in the manifest. */
function permissionName(written: string): string {
  const last = written.split('.').at(-1) ?? '';
  return `android.permission.${last.replace(/([a-z0-9])([A-Z])/g, '$1_$2').toUpperCase()}`;
}

/** What attributes put into the manifest (learn.microsoft.com, ".NET for Android", "Android manifest"). */
function attributeFacts(
  tree: Tree,
  project: MauiProject,
  edition: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Fact[] {
  const { profiles } = context;
  const { module } = edition;
  const defined = mauiDefines(tree, project)(edition, variant);
  const isBuilt = isCompiledFor(tree, project);
  const wanted = new Set(
    profiles.flatMap(({ android }) => android?.permissions.map(({ name }) => name) ?? []),
  );
  const files = filesOf(tree, project, '.cs').filter((path) => isBuilt(path, 'android'));
  return files.flatMap((path) => {
    const document = tree.text(path);
    const compiled = compiledAt(document?.text ?? '', defined);
    const calls = readingOf(tree, path).calls.filter(({ start }) => compiled(start) !== 'no');
    const given = (call: SourceCall, label: string | null) => {
      const [value] = call.arguments.find((one) => one.label === label)?.values ?? [];
      return value;
    };
    const heldBy = (call: SourceCall): Effective => {
      const { type } = call.context;
      const beside = calls.filter((one) => one.context.type === type && one.context.method === null);
      if (type === null || beside.some(({ name }) => /^(Application)(Attribute)?$/.test(name))) return true;
      const holder = beside.some(({ name }) => /^Activity/.test(name)) ? 'activity' : 'class';
      return { reason: 'nested', about: `${holder} ${type}` };
    };
    return calls.flatMap((call): Fact[] => {
      const first = given(call, null);
      const place = placeAt(path, document, call);
      const base = { platform: 'android' as const, module, variants: [variant.name], place };
      const effective = true as const;
      if (/^UsesPermission(Attribute)?$/.test(call.name) && first && first.is !== 'other') {
        const name = first.is === 'text' ? first.value : permissionName(first.name);
        if (!wanted.has(name)) return [];
        const chain = [{ what: 'attribute', value: name, place }];
        return [{ ...base, kind: 'permission', network: null, name, value: name, effective, chain }];
      }
      const value = given(call, 'Value');
      if (!/^MetaData(Attribute)?$/.test(call.name) || first?.is !== 'text' || value?.is !== 'text')
        return [];
      const at = placeAt(path, document, { start: value.start + 1, end: value.end - 1 });
      const chain = [{ what: 'attribute', value: value.value, place: at }];
      const more = { name: first.value, value: value.value, effective: heldBy(call), place: at, chain };
      if (profiles.some(({ android }) => android?.['meta-data'].some(({ key }) => key === first.value)))
        return [{ ...base, kind: 'meta-data', network: null, as: 'value', ...more }];
      const owner = profiles.find(({ android }) => {
        const taken = android?.['app-id'];
        return taken?.place === 'manifest' && taken.key === first.value;
      });
      if (!owner) return [];
      return [{ ...base, kind: 'app-id', network: owner.id, carrier: 'manifest', ...more }];
    });
  });
}
