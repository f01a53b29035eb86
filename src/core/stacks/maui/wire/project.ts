import { platformNames } from '../../../words/names.js';
import {
  addItem,
  removeGroup,
  removeItem,
  setGroup,
  setVersion,
  type LabelledGroup,
} from '../../../formats/msbuild/edit.js';
import { readMsBuild } from '../../../formats/msbuild/read.js';
import { escapeXml, insertAfter, removeElement } from '../../../formats/xml/edit.js';
import { attribute, descendants, elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { packageFor, profileFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import { folderOf } from '../../../text/paths.js';
import { maui } from '../description.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change, ChangeBase, EditChange } from '../../../edits/model.js';
import { alsoFor, beginsBelow, platformOf, titleEditions } from '../../common/joint-wiring.js';
import { othersNeedOn } from '../../common/others-need.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { nearest } from '../survey/evaluate.js';
import { feedFile, itemsNaming } from '../survey/packages.js';
import { buildOf, type MauiProject } from '../survey/project.js';

const isIos = "$([MSBuild]::GetTargetPlatformIdentifier('$(TargetFramework)')) == 'ios'";

/** A group of the project file, as a change. */
export function groupChange(
  tree: Tree,
  { path }: Pick<MauiProject, 'path'>,
  group: LabelledGroup,
  base: Omit<ChangeBase, 'path'>,
): Change[] {
  const document = tree.text(path);
  const file = tree.read(path, readMsBuild);
  if (!document || !file) return [];
  const edits = setGroup(document.text, file, group, document.lineEnd);
  return edits.length === 0 ? [] : [{ ...base, path, kind: 'edit', edits }];
}

/** Takes a group with a label out of the project file. */
export function groupRemoval(tree: Tree, { path }: Pick<MauiProject, 'path'>, label: string): Edit[] {
  const document = tree.text(path);
  const file = tree.read(path, readMsBuild);
  return document && file ? removeGroup(document.text, file, label) : [];
}

/** The packages of networks, in the project file or in the central list, and the feeds that they come from. */
export function wireMauiPackages(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of context.profiles) {
    const wanted = packageFor(profile, 'maui');
    const platform = platformOf(context, profile.id);
    if (!wanted || !platform) continue;
    const base = {
      platform,
      also: alsoFor(context, platform),
      network: profile.id,
      topic: 'dependency' as const,
      rules: ['build/dependency-missing', 'build/dependency-too-old'],
    };
    const made = referenceEdits(tree, project, platform, wanted);
    changes.push(...made.map((edit): Change => ({ ...base, kind: 'edit', ...edit })));
    const feed = feedChange(tree, project, profile, { ...base, rules: ['build/feed-missing'] });
    changes.push(...feed.changes);
    byHand.push(...feed.byHand);
  }
  if (changes.some(({ kind }) => kind === 'edit') && tree.has(below(project.root, 'packages.lock.json')))
    byHand.push({
      platform: null,
      network: null,
      rule: null,
      what: 'Run dotnet restore --force-evaluate, and keep the new packages.lock.json.',
      why: 'A project with a lock is built with what the lock holds.',
      where: project.path,
    });
  return { changes, byHand };
}

function referenceEdits(
  tree: Tree,
  project: MauiProject,
  platform: 'android' | 'ios',
  { package: include, version }: { package: string; version: string },
): Pick<EditChange, 'path' | 'edits'>[] {
  const build = buildOf(tree, project, platform, project.configurations.at(-1) ?? 'Release');
  const isCentral = /^true$/i.test(build.property('ManagePackageVersionsCentrally')?.value ?? '');
  const versions = isCentral ? nearest(tree, folderOf(project.path), 'Directory.Packages.props') : undefined;
  const found: Pick<EditChange, 'path' | 'edits'>[] = [];
  const edit = (path: string, make: (text: string, eol: string) => Edit[]) => {
    const document = tree.text(path);
    const edits = document ? make(document.text, document.lineEnd) : [];
    if (edits.length > 0) found.push({ path, edits });
  };
  const add = (path: string, type: string, given: string | undefined) => {
    const file = tree.read(path, readMsBuild);
    if (file) edit(path, (text, eol) => addItem(text, file, { type, include, version: given }, eol));
  };
  const references = itemsNaming(build.items('PackageReference'), include);
  const listed = itemsNaming(build.items('PackageVersion'), include);
  if (references.length === 0)
    add(project.path, 'PackageReference', versions === undefined ? version : undefined);
  if (
    versions !== undefined &&
    listed.length === 0 &&
    !references.some(({ metadata }) => metadata.has('versionoverride'))
  )
    add(versions, 'PackageVersion', version);
  for (const item of [...references, ...listed]) {
    const held = item.metadata.get('versionoverride') ?? item.metadata.get('version');
    if (held !== undefined && beginsBelow(held, version))
      edit(item.path, () => setVersion(item.element, version));
  }
  return found;
}

const head = ['<?xml version="1.0" encoding="utf-8"?>', '<configuration>', '  <packageSources>'];
const tail = ['  </packageSources>', '</configuration>'];

function feedChange(
  tree: Tree,
  project: MauiProject,
  profile: Profile,
  base: Omit<ChangeBase, 'path'>,
): StackWiring {
  const nothing: StackWiring = { changes: [], byHand: [] };
  const url = maui.needsOf(profile)?.source;
  if (url === undefined) return nothing;
  const line = `<add key="${escapeXml(profile.name)}" value="${escapeXml(url)}" />`;
  const path = feedFile(tree, project);
  if (path === undefined)
    return {
      changes: [
        {
          ...base,
          path: below(project.root, 'nuget.config'),
          kind: 'create',
          content: { head, lines: [`    ${line}`], tail },
        },
      ],
      byHand: [],
    };
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const sources = root ? elements(root, 'packageSources')[0] : undefined;
  const all = root ? [...descendants(root)].filter(({ name }) => name === 'add') : [];
  if (all.some((element) => attribute(element, 'value')?.value === url)) return nothing;
  const last = sources && elements(sources).at(-1);
  if (!document || !last)
    return {
      changes: [],
      byHand: [
        {
          platform: null,
          network: profile.id,
          rule: 'build/feed-missing',
          what: `Add ${line} to packageSources.`,
          why: `${profile.name} publishes its package there only.`,
          where: path,
        },
      ],
    };
  const byHand: ByHand[] =
    root && elements(root, 'packageSourceMapping').length > 0
      ? [
          {
            platform: null,
            network: profile.id,
            rule: null,
            what: `Map ${packageFor(profile, 'maui')?.package ?? ''} to ${profile.name} in packageSourceMapping.`,
            why: 'Where sources are mapped, a package is looked for in its own alone.',
            where: path,
          },
        ]
      : [];
  const edits = [insertAfter(document.text, last, [line], document.lineEnd)];
  return { changes: [{ ...base, path, kind: 'edit', edits }], byHand };
}

/** The package of a network that is taken out, with its feed where no other network publishes there. */
export function unwireMauiPackages(tree: Tree, project: MauiProject, context: UnwireContext): Change[] {
  const { network } = context;
  const wanted = packageFor(network, 'maui');
  const base = {
    platform: platformOf(context, network.id) ?? ('android' as const),
    network: network.id,
    topic: 'dependency' as const,
    rules: [],
  };
  if (!wanted) return [];
  const build = buildOf(tree, project, 'android', project.configurations.at(-1) ?? 'Release');
  const items = ['PackageReference', 'PackageVersion'].flatMap((type) =>
    itemsNaming(build.items(type), wanted.package),
  );
  const changes = items.map(({ path, element }): Change => ({
    ...base,
    path,
    kind: 'edit',
    edits: [removeItem(tree.text(path)?.text ?? '', element)],
  }));
  const url = maui.needsOf(network)?.source;
  const path = feedFile(tree, project);
  const document = path === undefined ? undefined : tree.text(path);
  const root = path === undefined ? undefined : tree.read(path, readXml)?.root;
  const needed = platformNames.some((platform) =>
    othersNeedOn(context, platform, (profile) => url !== undefined && maui.needsOf(profile)?.source === url),
  );
  const feed =
    root &&
    [...descendants(root)].find((one) => one.name === 'add' && attribute(one, 'value')?.value === url);
  if (path === undefined || !document || !feed || needed || url === undefined) return changes;
  const only = feedText(network, url) === document.text.replace(/\r\n/g, '\n');
  return [
    ...changes,
    only
      ? { ...base, path, kind: 'remove' }
      : { ...base, path, kind: 'edit', edits: [removeElement(document.text, feed)] },
  ];
}

/** The file as wiring makes it for one network. */
function feedText({ name }: Profile, url: string): string {
  const line = `    <add key="${escapeXml(name)}" value="${escapeXml(url)}" />`;
  return [...head, line, ...tail, ''].join('\n');
}

const linkerLabel = (flag: string): string => `Ads, linker flag ${flag}`;

/** Linker flags that networks need on iOS. */
export function wireLinker(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  const edition = titleEditions(context).find(({ platform }) => platform === 'ios');
  if (!edition) return { changes: [], byHand: [] };
  const changes = context.profiles.flatMap((profile) => {
    if (!isEnrolled(context.title, profile.id, 'ios')) return [];
    const flags = profileFor(profile, 'maui').ios?.['linker-flags'] ?? [];
    return flags.flatMap(({ flag }) => {
      const isThere = edition.variants.every(({ name }) =>
        context.survey.facts.some(
          (fact) =>
            fact.kind === 'linker-flag' &&
            fact.value === flag &&
            fact.module === edition.module &&
            fact.variants.includes(name),
        ),
      );
      if (isThere) return [];
      const entries = [`<MtouchExtraArgs>$(MtouchExtraArgs) --gcc_flags=${flag}</MtouchExtraArgs>`];
      const group: LabelledGroup = {
        kind: 'PropertyGroup',
        label: linkerLabel(flag),
        condition: isIos,
        entries,
      };
      return groupChange(tree, project, group, {
        platform: 'ios',
        network: profile.id,
        topic: 'linker',
        rules: ['plist/linker-flag-missing'],
      });
    });
  });
  return { changes, byHand: [] };
}

export function unwireLinker(tree: Tree, project: MauiProject, context: UnwireContext): Change[] {
  const flags = context.network.ios?.['linker-flags'] ?? [];
  return flags.flatMap(({ flag }): Change[] => {
    const isShared = othersNeedOn(context, 'ios', (other) =>
      (profileFor(other, 'maui').ios?.['linker-flags'] ?? []).some((one) => one.flag === flag),
    );
    const edits = isShared ? [] : groupRemoval(tree, project, linkerLabel(flag));
    return edits.length === 0
      ? []
      : [
          {
            path: project.path,
            platform: 'ios',
            network: context.network.id,
            topic: 'linker',
            rules: [],
            kind: 'edit',
            edits,
          },
        ];
  });
}
