import { appendJson, removeJson, setJson } from '../../../formats/json/edit.js';
import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import { plainConfig } from '../../../formats/app-config/plain.js';
import { configValueAt } from '../../../formats/app-config/resolve.js';
import { additions, entryOf, holdsPlain, type PlainValue } from '../../../formats/plist/plain.js';
import { packageFor, profileFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Tree } from '../../../tree/tree.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { valuesOf, type Key } from '../../common/plist/keys.js';
import { isMade, keyMark, mergedMark } from '../../common/plist/marks.js';
import { partsAlone } from '../../common/plist/taken-out.js';
import { titleEditions } from '../../common/joint-wiring.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring, UnwireContext, WireContext } from '../../stack.js';
import type { ExpoBuild } from '../survey/builds.js';
import { appConfigScript, sameScript, stageVariable } from '../survey/config-script.js';
import type { ExpoProject } from '../../common/script-packages/expo-project.js';
import { configWorkOf, changesOf, isUsed, edit, type Work } from './config-work.js';
import { wirePlugins, removeStatic, scriptEntry } from './plugins.js';

/** Puts app IDs, keys and attribution IDs into the configuration, and what tells the stages apart into the build profiles. */
export function wireConfig(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: WireContext,
  codeNeedsVariable: boolean,
): StackWiring {
  const work = configWorkOf(tree, project, builds, context);
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
  const work = configWorkOf(tree, project, builds, context);
  const { network, rest, title } = context;
  const path = project.json?.path;
  const name = packageFor(network, 'expo')?.package;
  const left = context.allProfiles.filter(({ id }) => id !== network.id && isUsed(rest, id));
  if (path !== undefined) {
    if (name !== undefined) removeStatic(work, path, name);
    const needed = new Set(left.flatMap(({ ios }) => ios?.attribution?.ids ?? []));
    for (const id of network.ios?.attribution?.ids ?? [])
      if (!needed.has(id)) removeAttribution(work, path, id);
    for (const key of network.ios?.keys ?? []) removeKey(work, path, key, context);
  }
  const changes: Change[] = [];
  const entries = left.flatMap((profile) => scriptEntry(work, profile, rest) ?? []);
  const platform = titleEditions(context)[0]?.platform ?? 'android';
  if (project.script?.isOurs && name !== undefined) {
    const { path: script } = project.script;
    const existing = tree.text(script)?.text ?? '';
    const kept = entries.filter((entry) => existing.includes(`'${entry.package}'`));
    const content = appConfigScript(kept, context.revision);
    const base = { path: script, platform, network: null, topic: 'app-id' as const, rules: [] };
    if (kept.length === 0) changes.push({ ...base, kind: 'remove' });
    else if (!sameScript(existing, content)) changes.push({ ...base, kind: 'create', content });
    if (kept.length === 0 && !codeNeedsVariable) removeStages(work);
  } else if (!project.script && left.length === 0 && title !== rest && !codeNeedsVariable) removeStages(work);
  return [...changesOf(work, platform), ...changes];
}

/** Takes a key out of the configuration where wiring made it and no other network needs it, else what is the network's own in it. */
function removeKey(work: Work, path: string, { key, value: mine }: Key, context: UnwireContext): void {
  const { added, allProfiles, network, rest } = context;
  if (mine === undefined) return;
  const way = [...work.under, 'ios', 'infoPlist', key];
  const left = allProfiles.filter(({ id }) => id !== network.id && isUsed(rest, id));
  const others = valuesOf(left, key);
  if (added.has(keyMark(key)) && others.length === 0) {
    edit(work, path, (text) => removeJson(text, way, [...work.under, 'ios']));
    return;
  }
  const [held] = nodesAt(readJson(work.drafts.get(path)?.text ?? '').root, way);
  if (!held) return;
  const share = { mine, others, isMade: (at: string[], item?: PlainValue) => isMade(added, key, at, item) };
  for (const { way: below, at } of partsAlone(jsonValue(held) as PlainValue, share)) {
    const part = [...way, ...below, ...(at === undefined ? [] : [String(at)])];
    edit(work, path, (text) => removeJson(text, part, way));
  }
}

/** The attribution list, then the keys of the property list that have a value of their own. */
function wireList(work: Work, given: readonly Profile[]): ByHand[] {
  const { builds, project, under } = work;
  const way = [...under, 'ios', 'infoPlist'];
  const path = project.json?.path;
  const holds = ({ config }: ExpoBuild, { key, value }: Key) => {
    const held = configValueAt(config, ['ios', 'infoPlist', key]);
    if (held === undefined || value === undefined || typeof value !== 'object') return held !== undefined;
    const plain = plainConfig(held);
    return plain === undefined || holdsPlain(plain, value);
  };
  const lacking = given.map((profile) => {
    const { ios } = profileFor(profile, 'expo');
    return {
      profile,
      ids: (ios?.attribution?.ids ?? []).filter((id) =>
        builds.some((build) => !attributionIn(build).has(id)),
      ),
      keys: (ios?.keys ?? []).filter(
        (key) => key.value !== undefined && builds.some((build) => !holds(build, key)),
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
  for (const { key, value } of lacking.flatMap(({ keys }) => keys)) {
    const { root } = readJson(work.drafts.get(path)?.text ?? '');
    const held = nodesAt(root, [...way, key])[0];
    if (value === undefined) continue;
    for (const { way: below, item } of held ? additions(jsonValue(held) as PlainValue, value) : []) {
      const at = [...way, key, ...below];
      const given = item ?? below.reduce<PlainValue | undefined>(entryOf, value);
      edit(work, path, (text) =>
        item === undefined ? setJson(text, at, given) : appendJson(text, at, item),
      );
      work.adds.push(mergedMark(key, { way: below, ...(item === undefined ? {} : { item }) }));
    }
    if (held) continue;
    edit(work, path, (text) => setJson(text, [...way, key], value));
    work.adds.push(keyMark(key));
  }
  return [];
}

function attributionIn({ config }: ExpoBuild): Set<string> {
  const items = configValueAt(config, ['ios', 'infoPlist', 'SKAdNetworkItems']);
  const ids = (items?.is === 'list' ? items.items : []).flatMap((item) => {
    const id = configValueAt(item, ['SKAdNetworkIdentifier']);
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

/**
 * Sets the stage of builds of the production stage. A build of the test stage needs it only where it would take over
 * production from another profile. Profiles come after those that they take over from, so one pass is enough.
 */
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
  const written = new Map<string, 'test' | 'production'>();
  for (const build of [...builds].sort((a, b) => a.parents.length - b.parents.length)) {
    const { name, stage } = build.variant;
    const isProduction = stageAfter(build, project, written) === 'production';
    if (stage === null || (stage === 'production') === isProduction) continue;
    written.set(name, stage);
    edit(work, path, (text) => setJson(text, ['build', name, 'env', stageVariable], stage));
  }
  return [];
}

/** The stage that a build would be told with what was written so far. */
function stageAfter(
  { variant, parents, variable }: ExpoBuild,
  { eas }: ExpoProject,
  written: ReadonlyMap<string, string>,
): string | null | undefined {
  const nearest = [variant.name, ...parents].find(
    (name) =>
      written.has(name) ||
      (eas?.profiles ?? []).some((one) => one.name === name && one.ownVariables.includes(stageVariable)),
  );
  return (nearest === undefined ? undefined : written.get(nearest)) ?? variable(stageVariable);
}

function removeStages(work: Work): void {
  const path = work.project.eas?.path;
  if (path === undefined) return;
  for (const { variant } of work.builds)
    edit(work, path, (text) =>
      removeJson(text, ['build', variant.name, 'env', stageVariable], ['build', variant.name]),
    );
}
