import { removeEntry, setString } from '../../../formats/plist/edit.js';
import { readPlist } from '../../../formats/plist/read.js';
import { escapeXml } from '../../../text/escape-xml.js';
import type { Profile } from '../../../network/model.js';
import type { Platform, Stage } from '../../../words/words.js';
import { profileFor } from '../../../network/for-stack.js';
import { pascalCase } from '../../../languages/common/placebook.js';
import { expectedIds, isEnrolled } from '../../../roster/expected.js';
import { isWhereBuildLooks } from '../../../facts/effective.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { appIdRules, holeStep } from '../../common/by-hand-steps.js';
import { metaDataIn } from '../../common/manifest/found-meta-data.js';
import { metaDataChanges } from '../../common/manifest/meta-data.js';
import { madeTail } from '../../common/plist/made.js';
import { madeHead } from '../../common/plist/made.js';
import { titleEditions } from '../../common/joint-wiring.js';
import { literalFixes } from '../../common/literal-fix.js';
import { joined } from '../../common/joined.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import { manifestOf, mauiManifests } from '../survey/android-facts.js';
import { listOf } from '../survey/plist-facts.js';
import { platformFolder, type MauiProject } from '../survey/project.js';
import { groupChange, groupRemoval } from './project.js';

const stages: readonly Stage[] = ['test', 'production'];

/** What the parts of the wiring of app IDs work with. */
interface AppIdWork {
  tree: Tree;
  project: MauiProject;
  context: WireContext;
  edition: SurveyEdition;
  profile: Profile;
  /** The IDs of the stages that are built. */
  ids: Map<Stage, string>;
}

/** App IDs of networks that read them from the manifest or the property list. */
export function wireAppIds(tree: Tree, project: MauiProject, context: WireContext): StackWiring {
  return joined(
    titleEditions(context).flatMap((edition) =>
      context.profiles.map((profile) =>
        wireAppId(tree, project, context, { edition, profile: profileFor(profile, 'maui') }),
      ),
    ),
  );
}

function wireAppId(
  tree: Tree,
  project: MauiProject,
  context: WireContext,
  { edition, profile }: Pick<AppIdWork, 'edition' | 'profile'>,
): StackWiring {
  const { platform } = edition;
  const place = profile[platform]?.['app-id'];
  const built = new Set(edition.variants.map(({ stage }) => stage));
  if (!place || place.place === 'code' || !isEnrolled(context.title, profile.id, platform) || built.has(null))
    return { changes: [], byHand: [] };
  const expected = expectedIds(context.title, [profile], platform).filter(
    ({ kind, stage }) => kind === 'app' && built.has(stage),
  );
  const holes = expected.filter(({ id }) => id === undefined);
  if (holes.length > 0)
    return { changes: [], byHand: holes.map(({ stage }) => holeStep(platform, profile, stage)) };
  const ids = new Map(expected.map(({ stage, id }) => [stage, id ?? '']));
  const work: AppIdWork = { tree, project, context, edition, profile, ids };
  const facts = context.survey.facts.filter(
    (fact) => fact.kind === 'app-id' && fact.network === profile.id && fact.module === edition.module,
  );
  if (ids.size === 0 || agrees(work, facts)) return { changes: [], byHand: [] };
  const fixes = inPlace(work, facts);
  if (fixes) return { changes: fixes, byHand: [] };
  const inCode = facts.find(({ place: at }) => at.path.endsWith('.cs'));
  if (inCode) return { changes: [], byHand: [attributeStep(profile, inCode)] };
  return platform === 'android' ? wireManifest(work) : wireList(work);
}

/** Whether every variant carries the ID of its stage, once and in its place. */
function agrees({ edition, ids }: AppIdWork, facts: readonly Fact[]): boolean {
  return edition.variants.every(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    const [one] = mine;
    const isPlaced = one !== undefined && isWhereBuildLooks(one);
    return mine.length === 1 && isPlaced && stage !== null && one.value === ids.get(stage);
  });
}

/** Right IDs written over the wrong ones, where every variant has a place of its own for it. */
function inPlace({ tree, edition, ids, profile }: AppIdWork, facts: readonly Fact[]): Change[] | undefined {
  const values = edition.variants.map(({ name, stage }) => {
    const mine = facts.filter(({ variants }) => variants.includes(name));
    const [fact] = mine;
    return mine.length === 1 && fact && isWhereBuildLooks(fact) && stage
      ? { variant: name, chain: fact.chain, value: fact.value, wanted: ids.get(stage) ?? '' }
      : undefined;
  });
  const known = values.flatMap((value) => value ?? []);
  const fixes = known.length === values.length ? literalFixes(tree, known) : undefined;
  return fixes?.map(({ path, variants, ...edit }) => ({
    path,
    platform: edition.platform,
    network: profile.id,
    topic: 'app-id',
    rules: appIdRules,
    variants,
    kind: 'edit',
    edits: [edit],
  }));
}

function attributeStep({ id, name }: Profile, { place, value, effective }: Fact): ByHand {
  return {
    platform: 'android',
    network: id,
    rule: effective === true ? 'stage/production-id-in-test' : 'app-id/nested-too-deep',
    what: `Take the MetaData attribute with ${value} out, then wire again.`,
    why: `An attribute has one value for every build; ${name} needs one for each stage.`,
    where: `${place.path}:${place.line}`,
  };
}

/**
 * `'$(Configuration)' == 'Release'` for the configurations of production, and `!=` for all others: as in the placebook,
 * a configuration that no variant names is of the test stage.
 */
function conditionFor({ variants }: SurveyEdition, stage: Stage): string {
  const [sign, joint] = stage === 'test' ? ['!=', ' And '] : ['==', ' Or '];
  return variants
    .filter((variant) => variant.stage === 'production')
    .map(({ name }) => `'$(Configuration)' ${sign} '${name}'`)
    .join(joint);
}

const stageLabel = ({ name }: Profile, stage: Stage): string => `${name}, ${stage} stage`;
const listsLabel = ({ name }: Profile): string => `${name}, property lists`;

function wireManifest(work: AppIdWork): StackWiring {
  const { tree, project, context, edition, profile, ids } = work;
  const place = profile.android?.['app-id'];
  if (place?.place !== 'manifest') return { changes: [], byHand: [] };
  const values = [...new Set(ids.values())];
  const [only] = values;
  const apart = values.length > 1;
  const name = place.resource;
  const found = metaDataIn(mauiManifests(tree, project), place.key);
  const manifest = metaDataChanges({ ...context, tree, edition, manifest: manifestOf(project) }, profile, {
    key: place.key,
    reference: apart ? `\${${name}}` : (only ?? ''),
    found,
  });
  if (manifest.byHand.length > 0 || !apart) return manifest;
  const groups = stages.flatMap((stage) =>
    groupChange(
      tree,
      project,
      {
        kind: 'PropertyGroup',
        label: stageLabel(profile, stage),
        condition: conditionFor(edition, stage),
        entries: [
          `<AndroidManifestPlaceholders>$(AndroidManifestPlaceholders);${name}=${escapeXml(ids.get(stage) ?? '')}</AndroidManifestPlaceholders>`,
        ],
      },
      { platform: 'android', network: profile.id, topic: 'app-id', rules: appIdRules },
    ),
  );
  return { changes: [...manifest.changes, ...groups], byHand: [] };
}

/** The partial property list of a network for a stage. */
function partialList(project: MauiProject, { id }: Profile, stage: Stage): string {
  return `${platformFolder(project, 'ios')}/${pascalCase(id)}.${stage}.plist`;
}

function wireList(work: AppIdWork): StackWiring {
  const { tree, project, edition, profile, ids } = work;
  const place = profile.ios?.['app-id'];
  const path = listOf(project);
  const document = tree.text(path);
  const root = tree.read(path, readPlist)?.root;
  if (place?.place !== 'plist') return { changes: [], byHand: [] };
  const base = { platform: 'ios' as const, network: profile.id, topic: 'app-id' as const, rules: appIdRules };
  if (!document || root?.type !== 'dict') {
    const step = { platform: 'ios' as const, network: profile.id, rule: 'app-id/missing' };
    const what = `Make ${path}, a property list with a dictionary, then wire again.`;
    return {
      changes: [],
      byHand: [{ ...step, what, why: 'There is no place for the app ID.', where: path }],
    };
  }
  const values = [...new Set(ids.values())];
  if (values.length < 2) {
    const edits = setString(document.text, root, place.key, values[0] ?? '', document.lineEnd);
    return { changes: [{ ...base, path, kind: 'edit', edits }], byHand: [] };
  }
  // Values of the list for every build would be beside those of the partial lists for each.
  const existing = root.entries.find(({ key }) => key === place.key);
  const gone: Change[] = existing
    ? [{ ...base, path, kind: 'edit', edits: [removeEntry(document.text, existing)] }]
    : [];
  const lists = stages.map((stage) => ({
    ...base,
    path: partialList(project, profile, stage),
    kind: 'create' as const,
    content: [
      ...madeHead,
      `\t<key>${escapeXml(place.key)}</key>`,
      `\t<string>${escapeXml(ids.get(stage) ?? '')}</string>`,
      ...madeTail,
      '',
    ].join('\n'),
  }));
  const entries = stages.map((stage) => {
    const file = partialList(project, profile, stage).slice(
      project.root === '' ? 0 : project.root.length + 1,
    );
    return `<PartialAppManifest Include="${escapeXml(file)}" Condition="${conditionFor(edition, stage)}" />`;
  });
  const group = { kind: 'ItemGroup' as const, label: listsLabel(profile), entries };
  const fresh = lists.filter(
    ({ path: file, content }) => tree.text(file)?.text.replace(/\r\n/g, '\n') !== content,
  );
  return { changes: [...gone, ...fresh, ...groupChange(tree, project, group, base)], byHand: [] };
}

/** What wiring put beside the manifest and the property list for a network. */
export function unwireAppIds(tree: Tree, project: MauiProject, { network }: UnwireContext): Change[] {
  const base = (platform: Platform) => ({
    platform,
    network: network.id,
    topic: 'app-id' as const,
    rules: [],
  });
  const labels: [Platform, string][] = [
    ...stages.map((stage): [Platform, string] => ['android', stageLabel(network, stage)]),
    ['ios', listsLabel(network)],
  ];
  const groups = labels.flatMap(([platform, label]): Change[] => {
    const edits = groupRemoval(tree, project, label);
    return edits.length === 0 ? [] : [{ ...base(platform), path: project.path, kind: 'edit', edits }];
  });
  const lists = stages.map((stage) => partialList(project, network, stage)).filter((path) => tree.has(path));
  return [...groups, ...lists.map((path): Change => ({ ...base('ios'), path, kind: 'remove' }))];
}
