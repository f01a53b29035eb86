import { appendToBlock, blockAt } from '../../../formats/gradle/edit.js';
import { argument, callsIn, pathOf } from '../../../formats/gradle/query.js';
import { indentAt } from '../../../formats/xml/edit.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { catalogOf, scriptOf, statementsOf } from '../../common/gradle/catalogs.js';
import { pluginsOf } from '../../common/gradle/scripts.js';
import { catalogEntry } from './catalog.js';
import type { AndroidWireContext } from './context.js';

const base = {
  platform: 'android' as const,
  topic: 'plugin' as const,
  rules: ['build/plugin-missing'],
};

/** Gradle plugins that enrolled networks need, applied in the module in the form that its others have. */
export function wirePlugins(context: AndroidWireContext): StackWiring {
  const { tree, model, title, profiles } = context;
  const { root, script } = model.module;
  const there = pluginsOf(tree, root, script);
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'android'))) {
    const plugin = profile.android?.plugin;
    if (!plugin || there.includes(plugin.id)) continue;
    const mine = pluginChanges(context, profile, plugin) ?? appliedChanges(context, profile, plugin);
    if (mine) changes.push(...mine);
    else
      byHand.push({
        platform: 'android',
        network: profile.id,
        rule: 'build/plugin-missing',
        what: `Put ${plugin.id}:${plugin.version} on the build’s class path and apply the plugin ${plugin.id} in this module.`,
        why: `${profile.name}: ${plugin.why} The scripts have no block to add it to.`,
        where: script,
      });
  }
  return { changes, byHand };
}

function pluginChanges(
  { tree, model }: AndroidWireContext,
  { id: network }: Profile,
  { id, version }: NonNullable<NonNullable<Profile['android']>['plugin']>,
): Change[] | undefined {
  const { root, script } = model.module;
  const document = tree.text(script);
  const block = blockAt(statementsOf(tree, script), ['plugins']);
  if (!document || !block) return undefined;
  const top = scriptOf(tree, root);
  const shared =
    top === undefined || top === script ? undefined : blockAt(statementsOf(tree, top), ['plugins']);
  const catalog = usesAliases(block) ? catalogOf(tree, root) : undefined;
  const alias = network;
  const changes: Change[] = [];
  const named = (path: string, withVersion: boolean) => {
    if (catalog) return `alias(libs.plugins.${alias.replace(/[-_]/g, '.')})`;
    if (path.endsWith('.kts')) return `id("${id}")${withVersion ? ` version "${version}"` : ''}`;
    return `id '${id}'${withVersion ? ` version '${version}'` : ''}`;
  };
  if (catalog) {
    const entry = catalogEntry(
      tree,
      catalog,
      'plugins',
      `${alias} = { id = "${id}", version = "${version}" }`,
    );
    if (!entry) return undefined;
    changes.push({ ...base, network, path: catalog.path, kind: 'edit', edits: [entry] });
  }
  if (shared && top !== undefined) {
    const text = tree.text(top);
    if (!text) return undefined;
    const line = `${named(top, true)} apply false`;
    changes.push({
      ...base,
      network,
      path: top,
      kind: 'edit',
      edits: [appendToBlock(text.text, shared, line, text.lineEnd)],
    });
  }
  const line = named(script, !shared);
  changes.push({
    ...base,
    network,
    path: script,
    kind: 'edit',
    edits: [appendToBlock(document.text, block, line, document.lineEnd)],
  });
  return changes;
}

/** The artifact by which Gradle finds a plugin on the class path of a build. Source: Gradle, "Plugin Marker Artifacts". */
export function markerArtifact(id: string): string {
  return `${id}:${id}.gradle.plugin`;
}

/** The older way: the plugin on the class path of the root script, and applied by name after the module's others. */
function appliedChanges(
  { tree, model }: AndroidWireContext,
  { id: network }: Profile,
  { id, version }: NonNullable<NonNullable<Profile['android']>['plugin']>,
): Change[] | undefined {
  const { root, script } = model.module;
  const top = scriptOf(tree, root);
  const classpath =
    top === undefined ? undefined : blockAt(statementsOf(tree, top), ['buildscript', 'dependencies']);
  const last = callsIn(statementsOf(tree, script))
    .filter(
      ({ path, call, conditional }) => path === 'apply' && !conditional && argument(call.args, 'plugin'),
    )
    .at(-1)?.call;
  const document = tree.text(script);
  const above = top === undefined ? undefined : tree.text(top);
  if (!classpath || !last || !document || !above || top === undefined) return undefined;
  const artifact = `${markerArtifact(id)}:${version}`;
  const line = top.endsWith('.kts') ? `classpath("${artifact}")` : `classpath '${artifact}'`;
  const apply = script.endsWith('.kts') ? `apply(plugin = "${id}")` : `apply plugin: '${id}'`;
  const { text, lineEnd } = document;
  const edit = { start: last.end, end: last.end, text: `${lineEnd}${indentAt(text, last.start)}${apply}` };
  return [
    {
      ...base,
      network,
      path: top,
      kind: 'edit',
      edits: [appendToBlock(above.text, classpath, line, above.lineEnd)],
    },
    { ...base, network, path: script, kind: 'edit', edits: [edit] },
  ];
}

function usesAliases(block: NonNullable<ReturnType<typeof blockAt>>): boolean {
  return callsIn(block.body ?? []).some(({ path, call }) => {
    const given = call.args[0]?.value;
    return path === 'alias' && given !== undefined && (pathOf(given)?.startsWith('libs.plugins.') ?? false);
  });
}
