import { platformNames } from '../../words/names.js';
import { appendJson, removeJson, setJson } from '../../formats/json/edit.js';
import { jsonValue, nodesAt, readJson } from '../../formats/json/read.js';
import { valueAt } from '../../formats/app-config/resolve.js';
import { packageFor, profileFor } from '../../network/for-stack.js';
import type { Profile } from '../../network/model.js';
import type { Platform } from '../../words/words.js';
import { expectedIds, isEnrolled } from '../../roster/expected.js';
import type { Title } from '../../roster/model.js';
import { Draft } from '../../text/draft.js';
import type { Edit } from '../../text/edit.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../edits/model.js';
import { alsoFor, titleEditions } from '../joint-wiring.js';
import { below } from '../script-packages.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';
import type { ExpoBuild } from './builds.js';
import { pluginEntry, pluginFields } from './config-facts.js';
import { appConfigScript, sameScript, stageVariable, type PluginIds } from './config-script.js';
import type { ExpoProject } from './project.js';

const rules = [
  'app-id/missing',
  'app-id/wrong-platform',
  'app-id/differs-from-roster',
  'app-id/duplicated',
  'attribution/id-missing',
  'build/plugin-entry-missing',
  'platform/plugin-one-sided',
  'plist/key-missing',
  'stage/production-id-in-test',
  'stage/test-id-in-production',
];

/** What wiring works on: the project, its builds, and its files as they become. */
interface Work {
  tree: Tree;
  project: ExpoProject;
  builds: readonly ExpoBuild[];
  context: WireContext;
  drafts: Map<string, Draft>;
  /** The key under which `app.json` holds the configuration. */
  under: string[];
}

function workOn(tree: Tree, project: ExpoProject, builds: readonly ExpoBuild[], context: WireContext): Work {
  const drafts = new Map<string, Draft>();
  for (const path of [project.json?.path, project.eas?.path])
    if (path !== undefined) drafts.set(path, new Draft(tree.text(path)?.text ?? ''));
  const json = project.json && readJson(drafts.get(project.json.path)?.text ?? '').root;
  return {
    tree,
    project,
    builds,
    context,
    drafts,
    under: nodesAt(json ?? null, ['expo']).length > 0 ? ['expo'] : [],
  };
}

/** Puts app IDs, keys and attribution IDs into the configuration, and what tells the stages apart into the build profiles. */
export function wireConfig(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: WireContext,
  codeNeedsVariable: boolean,
): StackWiring {
  const work = workOn(tree, project, builds, context);
  const { title, profiles } = context;
  const platforms = titleEditions(context).map(({ platform }) => platform);
  const used = profiles.filter(({ id }) => platforms.some((platform) => isEnrolled(title, id, platform)));
  const byHand: ByHand[] = [];
  if (platforms.includes('ios'))
    byHand.push(
      ...wireList(
        work,
        used.filter(({ id }) => isEnrolled(title, id, 'ios')),
      ),
    );
  const plugins = wirePlugins(work, used);
  byHand.push(...plugins.byHand);
  if (codeNeedsVariable || plugins.needsVariable) byHand.push(...wireStages(work));
  return { changes: [...changesOf(work, platforms[0] ?? 'android'), ...plugins.changes], byHand };
}

/** Takes what one network has in the configuration out of it. */
export function unwireConfig(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: UnwireContext,
  codeNeedsVariable: boolean,
): Change[] {
  const work = workOn(tree, project, builds, context);
  const { network, rest, title } = context;
  const path = project.json?.path;
  const name = packageFor(network, 'expo')?.package;
  const left = context.allProfiles.filter(({ id }) => id !== network.id && isUsed(rest, id));
  if (path !== undefined) {
    if (name !== undefined) removeStatic(work, path, name);
    const needed = new Set(left.flatMap(({ ios }) => ios?.attribution?.ids ?? []));
    for (const id of network.ios?.attribution?.ids ?? [])
      if (!needed.has(id)) removeAttribution(work, path, id);
    for (const { key, value } of network.ios?.keys ?? [])
      if (value !== undefined && !left.some(({ ios }) => ios?.keys.some((one) => one.key === key)))
        edit(work, path, (text) =>
          removeJson(text, [...work.under, 'ios', 'infoPlist', key], [...work.under, 'ios']),
        );
  }
  const changes: Change[] = [];
  const entries = left.flatMap((profile) => scriptEntry(work, profile, rest) ?? []);
  const platform = titleEditions(context)[0]?.platform ?? 'android';
  if (project.script?.isOurs && name !== undefined) {
    const { path: script } = project.script;
    const standing = tree.text(script)?.text ?? '';
    const kept = entries.filter((entry) => standing.includes(`'${entry.package}'`));
    const content = appConfigScript(kept, context.revision);
    const base = { path: script, platform, network: null, topic: 'app-id' as const, rules: [] };
    if (kept.length === 0) changes.push({ ...base, kind: 'remove' });
    else if (!sameScript(standing, content)) changes.push({ ...base, kind: 'create', content });
    if (kept.length === 0 && !codeNeedsVariable) removeStages(work);
  } else if (!project.script && left.length === 0 && title !== rest && !codeNeedsVariable) removeStages(work);
  return [...changesOf(work, platform), ...changes];
}

function isUsed(title: Title, network: string): boolean {
  return platformNames.some((platform) => isEnrolled(title, network, platform));
}

function edit({ drafts }: Work, path: string, make: (text: string) => Edit[]): void {
  const draft = drafts.get(path);
  draft?.apply(make(draft.text));
}

function changesOf({ drafts, context }: Work, platform: Platform): Change[] {
  return [...drafts].flatMap(([path, { edits }]): Change[] => {
    const base = {
      path,
      platform,
      also: alsoFor(context, platform),
      network: null,
      topic: 'app-id' as const,
    };
    return edits.length === 0 ? [] : [{ ...base, rules, kind: 'edit', edits }];
  });
}

/** The attribution list, then the keys of the property list that have a value of their own. */
function wireList(work: Work, given: readonly Profile[]): ByHand[] {
  const { builds, project, under } = work;
  const way = [...under, 'ios', 'infoPlist'];
  const path = project.json?.path;
  const holds = (build: ExpoBuild, key: string) =>
    valueAt(build.config, ['ios', 'infoPlist', key]) !== undefined;
  const lacking = given.map((profile) => {
    const { ios } = profileFor(profile, 'expo');
    return {
      profile,
      ids: (ios?.attribution?.ids ?? []).filter((id) =>
        builds.some((build) => !attributionIn(build).has(id)),
      ),
      keys: (ios?.keys ?? []).filter(
        ({ key, value }) => value !== undefined && builds.some((build) => !holds(build, key)),
      ),
    };
  });
  if (path === undefined)
    return lacking.flatMap(({ profile, ids, keys }): ByHand[] => {
      const what = [...keys.map(({ key }) => key), ...ids].join(', ');
      if (what === '') return [];
      return [
        {
          platform: 'ios',
          network: profile.id,
          rule: keys.length > 0 ? 'plist/key-missing' : 'attribution/id-missing',
          what: `Add to ios.infoPlist: ${what}.`,
          why: 'The configuration is a script, which is not rewritten.',
          where: project.script?.path ?? project.path,
        },
      ];
    });
  for (const id of new Set(lacking.flatMap(({ ids }) => ids)))
    edit(work, path, (text) => appendJson(text, [...way, 'SKAdNetworkItems'], { SKAdNetworkIdentifier: id }));
  for (const { key, value } of lacking.flatMap(({ keys }) => keys))
    edit(work, path, (text) => setJson(text, [...way, key], value));
  return [];
}

function attributionIn({ config }: ExpoBuild): Set<string> {
  const items = valueAt(config, ['ios', 'infoPlist', 'SKAdNetworkItems']);
  const ids = (items?.is === 'list' ? items.items : []).flatMap((item) => {
    const id = valueAt(item, ['SKAdNetworkIdentifier']);
    return id?.is === 'text' ? [id.value.toLowerCase()] : [];
  });
  return new Set(ids);
}

function removeAttribution(work: Work, path: string, id: string): void {
  const way = [...work.under, 'ios', 'infoPlist', 'SKAdNetworkItems'];
  edit(work, path, (text) => {
    const items = nodesAt(readJson(text).root, way)[0]?.children ?? [];
    const at = items.findIndex((item) => JSON.stringify(jsonValue(item)).includes(`"${id}"`));
    return at < 0 ? [] : removeJson(text, [...way, String(at)], [...work.under, 'ios']);
  });
}

/** The entry that a network's plugin gets, with the IDs of a title. */
function scriptEntry({ context }: Work, profile: Profile, title: Title): PluginIds | undefined {
  const fields = pluginFields(profile);
  const name = packageFor(profile, 'expo')?.package;
  if (!fields || name === undefined) return undefined;
  const held = platformNames.flatMap((platform) => {
    const field = fields[platform];
    const ids = expectedIds(title, [profile], platform).filter(({ kind }) => kind === 'app');
    const of = (stage: 'test' | 'production') => ids.find((one) => one.stage === stage)?.id;
    const [test, production] = [of('test'), of('production')];
    const built = titleEditions(context).some((edition) => edition.platform === platform);
    if (field === undefined || !built || (test === undefined && production === undefined)) return [];
    const both = {
      ...(test === undefined ? {} : { test }),
      ...(production === undefined ? {} : { production }),
    };
    return [{ name: field, platform, ids: both }];
  });
  return { package: name, fields: held };
}

function wirePlugins(work: Work, used: readonly Profile[]): StackWiring & { needsVariable: boolean } {
  const { project, builds, context } = work;
  const byHand: ByHand[] = [];
  const entries: PluginIds[] = [];
  const stages = new Set(builds.map(({ variant }) => variant.stage));
  if (stages.has(null)) return { changes: [], byHand, needsVariable: false };
  for (const profile of used) {
    const entry = scriptEntry(work, profile, context.title);
    if (!entry || isRight(work, entry)) {
      if (entry && entry.fields.length > 0 && project.script?.isOurs && !isStatic(work, entry.package))
        entries.push(entry);
      continue;
    }
    const path = project.json?.path;
    const apart = entry.fields.some(({ ids }) => ids.test !== ids.production) && stages.size > 1;
    if (project.script && !project.script.isOurs)
      byHand.push(scriptStep(profile, entry, project.script.path));
    else if (path === undefined) byHand.push(scriptStep(profile, entry, project.path));
    else if (apart) {
      removeStatic(work, path, entry.package);
      entries.push(entry);
    } else writeStatic(work, path, entry, stages.has('test') ? 'test' : 'production');
  }
  const kept = others(work, entries, used);
  if (entries.length === 0) return { changes: [], byHand, needsVariable: false };
  const script = project.script?.path ?? below(project.root, 'app.config.js');
  const content = appConfigScript([...kept, ...entries], context.revision);
  const standing = work.tree.text(script)?.text;
  const same = standing !== undefined && sameScript(standing, content);
  const platform = titleEditions(context)[0]?.platform ?? 'android';
  const also = alsoFor(context, platform);
  const change: Change = {
    path: script,
    platform,
    also,
    network: null,
    topic: 'app-id',
    rules,
    kind: 'create',
    content,
  };
  return { changes: same ? [] : [change], byHand, needsVariable: true };
}

/** The entries of networks that are not wired now, and stand in the script. */
function others(
  { tree, project, context, ...work }: Work,
  entries: readonly PluginIds[],
  used: readonly Profile[],
): PluginIds[] {
  const standing = project.script?.isOurs ? (tree.text(project.script.path)?.text ?? '') : '';
  return context.allProfiles.flatMap((profile) => {
    if (used.includes(profile) || !isUsed(context.title, profile.id)) return [];
    const entry = scriptEntry({ tree, project, context, ...work }, profile, context.title);
    const there = entry && standing.includes(`'${entry.package}'`);
    return there && !entries.some((one) => one.package === entry.package) ? [entry] : [];
  });
}

/** Whether every build sees the entry with the IDs of its own stage. */
function isRight({ builds }: Work, { package: name, fields }: PluginIds): boolean {
  return builds.every(({ config, variant }) => {
    const found = pluginEntry(config, name);
    if (!found) return false;
    return fields.every(({ name: field, ids }) => {
      const held = valueAt(found.options, [field]);
      return held?.is === 'text' && held.value === (variant.stage && ids[variant.stage]);
    });
  });
}

function isStatic({ project, drafts, under }: Work, name: string): boolean {
  const path = project.json?.path;
  return path !== undefined && staticAt(drafts.get(path)?.text ?? '', under, name) >= 0;
}

function staticAt(text: string, under: readonly string[], name: string): number {
  const [list] = nodesAt(readJson(text).root, [...under, 'plugins']);
  return (list?.children ?? []).findIndex((item) => {
    const value = jsonValue(item);
    return value === name || (Array.isArray(value) && value[0] === name);
  });
}

function removeStatic(work: Work, path: string, name: string): void {
  edit(work, path, (text) => {
    const at = staticAt(text, work.under, name);
    return at < 0 ? [] : removeJson(text, [...work.under, 'plugins', String(at)], work.under);
  });
}

function writeStatic(
  work: Work,
  path: string,
  { package: name, fields }: PluginIds,
  stage: 'test' | 'production',
): void {
  const options = Object.fromEntries(
    fields.flatMap(({ name: field, ids }) => {
      const id = ids[stage] ?? ids.production ?? ids.test;
      return id === undefined ? [] : [[field, id] as const];
    }),
  );
  const way = [...work.under, 'plugins'];
  edit(work, path, (text) => {
    const at = staticAt(text, work.under, name);
    const value = fields.length > 0 ? [name, options] : name;
    if (at < 0) return appendJson(text, way, value);
    const item = [...way, String(at)];
    const isPlain = nodesAt(readJson(text).root, [...item, '1'])[0]?.type !== 'object';
    if (isPlain) return setJson(text, item, value);
    const draft = new Draft(text);
    for (const [field, id] of Object.entries(options))
      draft.apply(setJson(draft.text, [...item, '1', field], id));
    return draft.edits;
  });
}

function scriptStep({ id, name }: Profile, { package: plugin, fields }: PluginIds, where: string): ByHand {
  const options = fields
    .map(({ name: field, ids }) => `${field}: test ? '${ids.test ?? ''}' : '${ids.production ?? ''}'`)
    .join(', ');
  return {
    platform: null,
    network: id,
    rule: 'build/plugin-entry-missing',
    what: `Add to plugins: ['${plugin}', { ${options} }], where test is ${stageVariable} being anything but production.`,
    why: `The plugin of ${name} writes the app IDs into the native projects; a script of your own is not rewritten.`,
    where,
  };
}

/** Builds of the production stage are told so; those of the test stage are told nothing. */
function wireStages(work: Work): ByHand[] {
  const { builds, project } = work;
  const path = project.eas?.path;
  if (path === undefined || !project.eas?.profiles.length)
    return [
      {
        platform: null,
        network: null,
        rule: 'app-id/missing',
        what: 'Write an eas.json with a build profile for each stage, then wire again.',
        why: 'Without build profiles nothing tells a build which stage it is of.',
        where: below(project.root, 'eas.json'),
      },
    ];
  for (const { variant, variable } of builds) {
    const way = ['build', variant.name, 'env', stageVariable];
    const held = variable(stageVariable);
    if (variant.stage === 'production' && held !== 'production')
      edit(work, path, (text) => setJson(text, way, 'production'));
    if (variant.stage === 'test' && held === 'production')
      edit(work, path, (text) => setJson(text, way, 'test'));
  }
  return [];
}

function removeStages(work: Work): void {
  const path = work.project.eas?.path;
  if (path === undefined) return;
  for (const { variant } of work.builds)
    edit(work, path, (text) =>
      removeJson(text, ['build', variant.name, 'env', stageVariable], ['build', variant.name]),
    );
}
