import { callsIn, literal } from '../../../formats/gradle/query.js';
import type { Effective } from '../../../facts/effective.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import type { Span } from '../../../text/problem.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { evaluate } from './evaluate.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { fromResolved, moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { blockParts, callsOf, scriptParts, type MissingScript } from '../../common/gradle/parts.js';
import type { Profile } from '../../../network/model.js';
import { hasProjectRepositories, repositoriesModeOf, repositoriesOf, sameAddress } from './repositories.js';
import { namedPlugins } from '../../common/gradle/scripts.js';
import { pluginLines, type NamedPlugin } from '../../common/gradle/plugins.js';
import { scriptOf, settingsNames } from '../../common/gradle/catalogs.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** What the build itself needs for an SDK: repositories, plugins, the Kotlin version, scripts that are pulled in. */
export function buildFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const kotlin = kotlinVersion(tree, model);
  const found = kotlin
    ? fromResolved(model, variant, 'kotlin', 'the Kotlin version', kotlin)
    : { facts: [], unresolved: [] };
  found.unresolved.push(...openParts(tree, model, variant, context));
  found.facts.push(
    ...repositoryFacts(tree, model, variant, context),
    ...pluginFacts(tree, model, variant, context),
  );
  return found;
}

/** What of a build reading cannot see: scripts, flavours under a condition, filters of variants. */
function openParts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Unresolved[] {
  const open = (
    path: string,
    span: Span,
    given: Pick<Unresolved, 'what' | 'reason' | 'cause'>,
    step: Omit<ChainStep, 'place'>,
  ): Unresolved => {
    const place = placeAt(path, tree.text(path), span);
    return {
      kind: 'build-plugin',
      network: null,
      platform: 'android',
      module: moduleName(model),
      variants: [variant.name],
      ...given,
      place,
      chain: [{ ...step, place }],
    };
  };
  const head = ({ start }: Pick<Span, 'start'>) => ({ start, end: start + 2 });
  return [
    ...model.missing.map((script) => {
      const [kind, by] = script.source === null ? ['script', 'apply from'] : ['plugin', 'plugin'];
      const what = `what the ${kind} ${script.from} adds to the build`;
      const cause = mayAddSdk(tree, script, profiles) ? { cause: 'unread-script' as const } : {};
      const given = { what, reason: script.reason, ...cause };
      return open(script.path, script.statement, given, { what: by, value: script.from });
    }),
    ...model.openFlavours.map(({ path, statement }) =>
      open(
        path,
        head(statement),
        { what: 'which flavours are built', reason: 'some are added under a condition' },
        { what: 'condition', value: null },
      ),
    ),
    ...model.openFilters
      .filter((one) => one.variant === variant.name)
      .map(({ filter }) =>
        open(
          filter.path,
          head(filter),
          {
            what: 'whether this variant is built',
            reason: 'a filter decides it by something that is only known during the build',
          },
          { what: 'variant filter', value: null },
        ),
      ),
  ];
}

/** Whether a script that is not read may bring a network's SDK; the source of a plugin class tells. */
function mayAddSdk(tree: Tree, { isOptional, source }: MissingScript, profiles: readonly Profile[]): boolean {
  if (isOptional) return false;
  const text = source === null ? undefined : tree.text(source)?.text;
  if (text === undefined) return true;
  const groups = profiles
    .flatMap(({ android }) => android?.dependencies ?? [])
    .map(({ coordinate }) => coordinate);
  return groups.some((coordinate) => text.includes(coordinate.split(':')[0] ?? coordinate));
}

/**
 * The repositories that networks' SDKs come from. Gradle's mode decides which of them count: with
 * FAIL_ON_PROJECT_REPOS those of projects stop the build, with PREFER_SETTINGS they are skipped, and
 * else a project that names any skips those of the settings.
 */
function repositoryFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Fact[] {
  const { root, folder } = model.module;
  const mode = repositoriesModeOf(tree, root);
  const own = hasProjectRepositories(tree, root, folder);
  return repositoriesOf(tree, root, folder).flatMap(({ name, place, where }) => {
    const isIgnored = where === 'settings' ? mode === 'PREFER_PROJECT' && own : mode === 'PREFER_SETTINGS';
    const isForbidden = where !== 'settings' && mode === 'FAIL_ON_PROJECT_REPOS';
    const effective: Effective = isForbidden
      ? { reason: 'repository-forbidden' }
      : isIgnored
        ? { reason: 'repository-ignored' }
        : true;
    return profiles
      .filter(({ android }) => android?.repositories.some(({ url }) => sameAddress(url, name)))
      .map(({ id }): Fact => ({
        kind: 'repository',
        network: id,
        platform: 'android',
        module: moduleName(model),
        variants: [variant.name],
        value: name,
        effective,
        scope: where === 'settings' ? 'settings' : 'project',
        place,
        chain: [{ what: 'repository', value: name, place }],
      }));
  });
}

/** Plugins that profiles require, as the module applies them. */
function pluginFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Fact[] {
  const { root, script } = model.module;
  return namedPlugins(tree, root, script).flatMap((plugin) =>
    profiles
      .filter(({ android }) => plugin.applied && android?.plugin?.id === plugin.id)
      .map(({ id }): Fact => {
        const place = placeAt(plugin.script, tree.text(plugin.script), plugin);
        const version = versionOf(tree, model, plugin)?.value ?? '';
        const chain = [{ what: 'plugin', value: plugin.id, place }];
        return {
          kind: 'build-plugin',
          network: id,
          platform: 'android',
          module: moduleName(model),
          variants: [variant.name],
          name: plugin.id,
          value: version,
          effective: true,
          place,
          chain,
        };
      }),
  );
}

const kotlinPlugin = /^(org\.jetbrains\.kotlin\.android|kotlin-android)$/;

/**
 * The version of the Kotlin plugin of a module: beside the plugin, in the root script, in the settings, or on
 * the class path of `buildscript`. Undefined when the module applies no Kotlin plugin.
 */
function kotlinVersion(tree: Tree, model: ModuleModel): Resolved | undefined {
  const { root, script } = model.module;
  const applied = namedPlugins(tree, root, script).find(({ id, applied: on }) => on && kotlinPlugin.test(id));
  if (!applied) return undefined;
  const rootScript = scriptOf(tree, root);
  const settings = settingsNames
    .map((name) => (root ? `${root}/${name}` : name))
    .filter((path) => tree.has(path));
  const managed = settings.flatMap((path) =>
    blockParts(blockParts(scriptParts(tree, root, path).parts, 'pluginManagement'), 'plugins').flatMap(
      ({ statements, path: at }) => pluginLines(tree, root, statements, at),
    ),
  );
  const inSettings = settings.flatMap((path) => namedPlugins(tree, root, path));
  const candidates = [
    applied,
    ...(rootScript === undefined || rootScript === script ? [] : namedPlugins(tree, root, rootScript)),
    ...inSettings,
    ...managed,
  ].filter(({ id }) => /^(org\.jetbrains\.)?kotlin[.-]/.test(id));
  const versions = candidates.flatMap((plugin) => versionOf(tree, model, plugin) ?? []);
  if (versions[0]) return versions[0];
  const classpath = fromClasspath(tree, model, [rootScript, script]);
  if (classpath) return classpath;
  const place = placeAt(applied.script, tree.text(applied.script), applied);
  const chain = [{ what: 'plugin', value: applied.id, place }];
  return { value: null, reason: 'no script in the tree gives the plugin a version', chain };
}

function versionOf(tree: Tree, model: ModuleModel, plugin: NamedPlugin): Resolved | undefined {
  const { version, script } = plugin;
  if (version === undefined) return undefined;
  const place = placeAt(script, tree.text(script), plugin);
  if (typeof version === 'string')
    return { value: version, chain: [{ what: `plugin ${plugin.id}`, value: version, place }] };
  return evaluate(version, { ...model.scope, path: script });
}

/** `buildscript { dependencies { classpath("org.jetbrains.kotlin:kotlin-gradle-plugin:…") } }`. */
function fromClasspath(
  tree: Tree,
  model: ModuleModel,
  scripts: readonly (string | undefined)[],
): Resolved | undefined {
  for (const script of new Set(scripts)) {
    const parts = scriptParts(tree, model.module.root, script).parts;
    const body = blockParts(blockParts(parts, 'buildscript'), 'dependencies');
    for (const { path, call, script: at } of callsOf(body, callsIn)) {
      const value = path === 'classpath' ? call.args[0]?.value : undefined;
      if (value?.type !== 'string' || !/^org\.jetbrains\.kotlin:kotlin-gradle-plugin\b/.test(value.raw))
        continue;
      const resolved = evaluate(value, { ...model.scope, path: at });
      const place = placeAt(at, tree.text(at), value);
      const chain = [{ what: 'class path', value: literal(value) ?? value.raw, place }];
      if (resolved.value === null) return resolved;
      const version = resolved.value.split(':')[2];
      if (version !== undefined) return { value: version, chain: resolved.chain };
      return { value: null, reason: 'the class path names the plugin without a version', chain };
    }
  }
  return undefined;
}
