import { platformNames } from '../../../words/names.js';
import { appendJson, removeJson, setJson } from '../../../formats/json/edit.js';
import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import { configValueAt } from '../../../formats/app-config/resolve.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import { expectedIds } from '../../../roster/expected.js';
import type { Title } from '../../../roster/model.js';
import { Draft } from '../../../text/draft.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { alsoFor, titleEditions } from '../../common/joint-wiring.js';
import { below } from '../../common/script-packages/packages.js';
import type { StackWiring } from '../../stack.js';
import { pluginEntry, pluginFields } from '../survey/config-facts.js';
import { appConfigScript, sameScript, stageVariable, type PluginIds } from '../survey/config-script.js';
import { isUsed, edit, rules, type Work } from './config-work.js';

/** The entry that a network's plugin gets, with the IDs of a title. */
export function scriptEntry({ context }: Work, profile: Profile, title: Title): PluginIds | undefined {
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

/** Gives the plugins of networks the app IDs: in `app.json`, or in a script where the stages differ. */
export function wirePlugins(work: Work, used: readonly Profile[]): StackWiring & { needsVariable: boolean } {
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
  const existing = work.tree.text(script)?.text;
  const same = existing !== undefined && sameScript(existing, content);
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

/** Entries that the script already has for networks that are not part of this wiring. */
function others(
  { tree, project, context, ...work }: Work,
  entries: readonly PluginIds[],
  used: readonly Profile[],
): PluginIds[] {
  const existing = project.script?.isOurs ? (tree.text(project.script.path)?.text ?? '') : '';
  return context.allProfiles.flatMap((profile) => {
    if (used.includes(profile) || !isUsed(context.title, profile.id)) return [];
    const entry = scriptEntry({ tree, project, context, ...work }, profile, context.title);
    const there = entry && existing.includes(`'${entry.package}'`);
    return there && !entries.some((one) => one.package === entry.package) ? [entry] : [];
  });
}

/** Whether every build sees the entry with the IDs of its own stage. */
function isRight({ builds }: Work, { package: name, fields }: PluginIds): boolean {
  return builds.every(({ config, variant }) => {
    const found = pluginEntry(config, name);
    if (!found) return false;
    return fields.every(({ name: field, ids }) => {
      const held = configValueAt(found.options, [field]);
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

/** Removes the entry of a plugin from `app.json`. */
export function removeStatic(work: Work, path: string, name: string): void {
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
