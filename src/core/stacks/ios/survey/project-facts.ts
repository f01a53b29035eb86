import { plistText, topEntries } from '../../../formats/plist/read.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { attribute, descendants } from '../../../formats/xml/query.js';
import type { ViewClass } from '../../../network/needs.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { propertiesOf } from '../../common/plist/properties.js';
import { podfileOf } from './dependencies.js';
import { membershipOf } from './membership.js';
import { podSettingsFacts } from './pod-settings.js';
import { missingIncludes, settingOf } from './settings.js';
import { blank } from './blank.js';
import type { IosVariant, TargetModel } from './targets.js';

/** What the project itself says: linker flags, extensions, the workspace to open, views in storyboards. */
export function projectFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  return {
    facts: [
      ...linkerFacts(model, variant, context),
      ...extensionFacts(tree, model, variant),
      ...workspaceFacts(tree, model, variant),
      ...podSettingsFacts(tree, model, variant),
      ...viewFacts(tree, model, variant, context),
      ...privacyFacts(tree, model, variant),
    ],
    unresolved: missingIncludes(variant.scope).flatMap(({ path, include, chain }): Unresolved[] => {
      // What an install of pods writes is never part of a checkout.
      if (/(^|\/)Pods\//.test(include.path)) return [];
      const place = placeAt(path, tree.text(path), include);
      return [
        {
          ...blank('extension', model, variant),
          what: `the settings that ${include.path} would give`,
          value: include.path,
          reason: 'the file is not in the tree',
          place,
          chain,
        },
      ];
    }),
  };
}

function linkerFacts(model: TargetModel, variant: IosVariant, { profiles }: SurveyContext): Fact[] {
  const flags = settingOf(variant.scope, 'OTHER_LDFLAGS');
  const place = flags?.chain[0]?.place;
  if (flags?.value == null || !place) return [];
  const given = new Set(flags.value.split(/\s+/).map((flag) => flag.replace(/^"(.*)"$/, '$1')));
  const wanted = new Set(
    profiles.flatMap(({ ios }) => (ios?.['linker-flags'] ?? []).map(({ flag }) => flag)),
  );
  return [...wanted]
    .filter((flag) => given.has(flag))
    .map((flag) => ({
      ...blank('linker-flag', model, variant),
      value: flag,
      place,
      chain: flags.chain,
    }));
}

/** Targets that are built into the application and are none themselves. */
function extensionFacts(tree: Tree, model: TargetModel, variant: IosVariant): Fact[] {
  return model.project.extensions.map(({ name, type, entry }) => {
    const place = placeAt(model.project.path, tree.text(model.project.path), entry);
    const chain = [{ what: 'target', value: type, place }];
    return { ...blank('extension', model, variant), name, value: type, place, chain };
  });
}

/** The workspace that holds the project; with pods it is what has to be opened. */
function workspaceFacts(tree: Tree, model: TargetModel, variant: IosVariant): Fact[] {
  const { folder, path } = model.project;
  const podfile = podfileOf(tree, folder);
  const home = podfile === undefined ? folder : folderOf(podfile);
  const workspaces = tree.paths.filter(
    (file) =>
      baseOf(file) === 'contents.xcworkspacedata' &&
      !folderOf(file).includes('.xcodeproj/') &&
      isWithin(file, home),
  );
  return workspaces.flatMap((file): Fact[] => {
    const root = tree.read(file, readXml)?.root;
    const around = folderOf(folderOf(file));
    const locations = [...(root ? descendants(root) : [])]
      .filter(({ name }) => name === 'FileRef')
      .flatMap((element) => attribute(element, 'location')?.value ?? [])
      .flatMap((location) => joinPath(around, location.replace(/^(group|container|self):/, '')) ?? []);
    if (!locations.includes(folderOf(path))) return [];
    const place = { path: file, line: 1, column: 1 };
    const value = folderOf(file);
    return [
      {
        ...blank('workspace', model, variant),
        value,
        holdsPods: podfile !== undefined,
        place,
        chain: [{ what: 'workspace', value, place }],
      },
    ];
  });
}

/** What the privacy manifest of the application says of tracking. */
function privacyFacts(tree: Tree, model: TargetModel, variant: IosVariant): Fact[] {
  const { copies } = membershipOf(model);
  return tree.paths
    .filter(
      (path) =>
        baseOf(path) === 'PrivacyInfo.xcprivacy' && isWithin(path, model.project.folder) && copies(path),
    )
    .flatMap((path) => {
      const list = propertiesOf(tree, path);
      return (list ? topEntries(list) : [])
        .filter(({ key }) => key === 'NSPrivacyTracking')
        .map((entry): Fact => {
          const place = placeAt(path, list?.binary ? undefined : tree.text(path), entry);
          const value = plistText(entry.value);
          const chain = [{ what: 'privacy manifest', value, place }];
          const { type } = entry.value;
          const base = { ...blank('plist-key', model, variant), name: entry.key, value };
          return { ...base, type, list: 'privacy', place, chain };
        });
    });
}

/** The network whose view reads its unit ID from a runtime attribute; undefined if none does. */
function takerOf(
  attributeElement: XmlElement,
  views: readonly { id: string; view: ViewClass }[],
): string | undefined {
  const key = attribute(attributeElement, 'keyPath')?.value;
  for (let holder = attributeElement.parent; holder; holder = holder.parent) {
    const name = attribute(holder, 'customClass')?.value;
    if (name !== undefined) return views.find(({ view }) => view.class === name && view.unit === key)?.id;
  }
  return undefined;
}

/** Views of networks in storyboards and xibs, with the unit IDs they are given as runtime attributes. */
function viewFacts(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  { profiles, recogniser }: SurveyContext,
): Fact[] {
  const { copies } = membershipOf(model);
  const views = profiles.flatMap(({ id, ios }) => (ios?.views ?? []).map((view) => ({ id, view })));
  return tree.paths
    .filter(
      (path) => /\.(storyboard|xib)$/.test(path) && isWithin(path, model.project.folder) && copies(path),
    )
    .flatMap((path) => {
      const root = tree.read(path, readXml)?.root;
      return [...(root ? descendants(root) : [])].flatMap((element): Fact[] => {
        const owned = views.find(({ view }) => view.class === attribute(element, 'customClass')?.value);
        const facts: Fact[] = [];
        if (owned) {
          const place = placeAt(path, tree.text(path), element.openTag);
          facts.push({
            ...blank('banner-view', model, variant),
            network: owned.id,
            format: owned.view.format,
            value: owned.view.class,
            place,
            chain: [{ what: 'storyboard', value: owned.view.class, place }],
          });
        }
        if (element.name === 'userDefinedRuntimeAttribute') {
          const value = attribute(element, 'value');
          const taker = takerOf(element, views);
          const reading =
            value && recogniser.recognise(value.value, taker).find(({ kind }) => kind === 'unit');
          if (value && reading) {
            const place = placeAt(path, tree.text(path), value.valueSpan);
            const name = attribute(element, 'keyPath')?.value ?? '';
            facts.push({
              ...blank('unit-id', model, variant),
              network: reading.network,
              name,
              value: value.value,
              carrier: 'storyboard',
              place,
              chain: [{ what: 'runtime attribute', value: value.value, place }],
            });
          }
        }
        return facts;
      });
    });
}
