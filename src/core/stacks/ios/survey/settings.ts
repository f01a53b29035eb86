import { valueAt } from '../../../text/own-values.js';
import type { PbxValue } from '../../../formats/pbxproj/read.js';
import { readXcconfig, type XcInclude, type XcSetting } from '../../../formats/xcconfig/read.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { applyOperator } from './operators.js';
import type { XcodeProject } from './model.js';
import type { AppTarget } from './model.js';
import type { Configuration } from './model.js';
import { conditionHolds, splitKey } from './setting-conditions.js';

export type Setting =
  | { value: string; chain: ChainStep[] }
  | { value: null; reason: string; chain: ChainStep[]; cause?: 'undefined' };

/** The build settings of one target in one configuration. */
export interface SettingsScope {
  tree: Tree;
  project: XcodeProject;
  target: AppTarget;
  own: Configuration;
  shared: Configuration | null;
}

interface Level {
  value: string;
  step: ChainStep;
}

const maxSteps = 30;

/** A setting as Xcode would resolve it, or why that cannot be determined; undefined when nothing sets it. */
export function settingOf(scope: SettingsScope, name: string): Setting | undefined {
  const levels = levelsOf(scope, name);
  return levels.length === 0 ? undefined : expand(scope, name, levels, 0);
}

/** Text with `$(NAME)` references, resolved; `chain` gets the evidence. */
export function expandText(
  scope: SettingsScope,
  text: string,
  chain: readonly ChainStep[],
  steps = 0,
): Setting {
  return substitute(scope, text, [...chain], steps, () => undefined);
}

/** The strongest level comes first: target, target's base file, project, project's base file, built in. */
function expand(scope: SettingsScope, name: string, levels: readonly Level[], steps: number): Setting {
  const [level, ...weaker] = levels;
  if (!level) return { value: '', chain: [] };
  return substitute(scope, level.value, [level.step], steps, (inner) =>
    inner === 'inherited' || inner === name ? expand(scope, name, weaker, steps + 1) : undefined,
  );
}

function substitute(
  scope: SettingsScope,
  text: string,
  chain: ChainStep[],
  steps: number,
  special: (name: string) => Setting | undefined,
): Setting {
  if (steps > maxSteps) return { value: null, reason: 'its settings refer to each other in a loop', chain };
  let value = text;
  // The innermost reference first, so that `$(A_$(B))` works; every round removes one.
  for (let rounds = 0; rounds < 200; rounds++) {
    const match = /\$\(([^()${}]*)\)|\$\{([^()${}]*)\}/.exec(value);
    if (!match) return { value, chain };
    const [name = '', ...operators] = (match[1] ?? match[2] ?? '').split(':');
    const found = special(name) ?? reference(scope, name, steps + 1);
    let inner: string;
    if (found?.value != null) {
      inner = found.value;
      chain.push(...found.chain);
    } else {
      const fallback = operators.find((operator) => operator.startsWith('default='));
      if (found && 'reason' in found) return { ...found, chain: [...chain, ...found.chain] };
      if (fallback === undefined)
        return {
          value: null,
          reason: `nothing in the tree sets $(${name})`,
          chain,
          ...(isWhole(scope) ? { cause: 'undefined' as const } : {}),
        };
      inner = fallback.slice('default='.length);
    }
    for (const operator of operators) {
      const applied = applyOperator(inner, operator);
      if (applied === undefined)
        return { value: null, reason: `the operator :${operator} is not known`, chain };
      inner = applied;
    }
    value = value.slice(0, match.index) + inner + value.slice(match.index + match[0].length);
  }
  return { value: null, reason: 'it holds too many references', chain };
}

function reference(scope: SettingsScope, name: string, steps: number): Setting | undefined {
  const levels = levelsOf(scope, name);
  if (levels.length > 0) return expand(scope, name, levels, steps);
  const builtIn: Record<string, string> = {
    TARGET_NAME: scope.target.name,
    PRODUCT_NAME: scope.target.name,
    CONFIGURATION: scope.own.name,
    SRCROOT: '',
    PROJECT_DIR: '',
    SOURCE_ROOT: '',
    PROJECT_NAME: baseOf(folderOf(scope.project.path)).replace(/\.xcodeproj$/, ''),
    PLATFORM_NAME: 'iphoneos',
    SDK_NAME: 'iphoneos',
    EFFECTIVE_PLATFORM_NAME: '-iphoneos',
  };
  const value = valueAt(builtIn, name);
  return value === undefined ? undefined : { value, chain: [] };
}

function levelsOf(scope: SettingsScope, name: string): Level[] {
  const { own, shared } = scope;
  return [
    ...fromProjectFile(scope, own, `target ${scope.target.name}, ${own.name}`, name),
    ...fromFile(scope, own.base, name),
    ...(shared ? fromProjectFile(scope, shared, `project, ${shared.name}`, name) : []),
    ...(shared ? fromFile(scope, shared.base, name) : []),
  ];
}

function fromProjectFile(
  scope: SettingsScope,
  { settings }: Configuration,
  what: string,
  name: string,
): Level[] {
  const entry = settings && strongest(settings.entries, ({ key }) => key, name, scope.own.name);
  if (!entry) return [];
  const value = plainValue(entry.value);
  const place = placeAt(scope.project.path, scope.tree.text(scope.project.path), entry);
  return [{ value, step: { what: `build setting ${entry.key} (${what})`, value, place } }];
}

/** The effective entry: of those whose conditions hold, the one with most conditions, then the last. */
function strongest<Entry>(
  entries: readonly Entry[],
  keyOf: (entry: Entry) => string,
  name: string,
  configuration: string,
): Entry | undefined {
  let found: { entry: Entry; conditions: number } | undefined;
  for (const entry of entries) {
    const key = keyOf(entry);
    if (!key.startsWith(name)) continue;
    const { name: plain, conditions } = splitKey(key);
    if (plain !== name || !conditions.every((each) => conditionHolds(each, configuration))) continue;
    if (!found || conditions.length >= found.conditions) found = { entry, conditions: conditions.length };
  }
  return found?.entry;
}

function plainValue(value: PbxValue): string {
  if (value.type === 'string') return value.value;
  return value.type === 'list' ? value.items.map(plainValue).join(' ') : '';
}

/** A setting from a base configuration file: includes are read where they are, and what comes later wins. */
function fromFile(scope: SettingsScope, path: string | null, name: string): Level[] {
  const lines = path === null ? [] : linesOf(scope.tree, path, 0);
  const own = strongest(lines, ({ setting }) => setting.key, name, scope.own.name);
  if (!own) return [];
  const { setting, path: file } = own;
  const place = placeAt(file, scope.tree.text(file), setting);
  const what = `build setting ${setting.key} (configuration file)`;
  return [{ value: setting.value, step: { what, value: setting.value, place } }];
}

interface ConfigurationLine {
  setting: XcSetting;
  path: string;
}

function linesOf(tree: Tree, path: string, depth: number): ConfigurationLine[] {
  const file = tree.has(path) ? tree.read(path, readXcconfig) : undefined;
  if (!file || depth > 10) return [];
  const items = [...file.settings, ...file.includes].sort((a, b) => a.start - b.start);
  return items.flatMap((item): ConfigurationLine[] => {
    if ('key' in item) return [{ setting: item, path }];
    const inner = joinPath(folderOf(path), item.path);
    return inner === null ? [] : linesOf(tree, inner, depth + 1);
  });
}

/** The names of all settings that begin with a prefix, at any level. */
export function settingNames({ tree, own, shared }: SettingsScope, prefix: string): string[] {
  const inProject = [own, shared].flatMap((configuration) =>
    (configuration?.settings?.entries ?? []).map(({ key }) => key),
  );
  const inFiles = [own.base, shared?.base ?? null].flatMap((path) =>
    path === null ? [] : linesOf(tree, path, 0).map(({ setting }) => setting.key),
  );
  const names = [...inProject, ...inFiles].map((key) => splitKey(key).name);
  return [...new Set(names.filter((name) => name.startsWith(prefix)))];
}

/** Files that base configurations include and that are not in the tree; those that may be missing are left out. */
export function missingIncludes(
  scope: SettingsScope,
): { path: string; include: XcInclude; chain: ChainStep[] }[] {
  const found: { path: string; include: XcInclude; chain: ChainStep[] }[] = [];
  const walk = (path: string | null, depth: number): void => {
    const file = path !== null && scope.tree.has(path) ? scope.tree.read(path, readXcconfig) : undefined;
    if (path === null || !file || depth > 10) return;
    for (const include of file.includes) {
      const inner = joinPath(folderOf(path), include.path);
      if (inner !== null && scope.tree.has(inner)) walk(inner, depth + 1);
      else if (!include.optional) {
        const place = placeAt(path, scope.tree.text(path), include);
        found.push({ path, include, chain: [{ what: 'include', value: include.path, place }] });
      }
    }
  };
  for (const base of new Set([scope.own.base, scope.shared?.base ?? null])) walk(base, 0);
  return found;
}

/** Whether every file that base configurations include was read, those that may be missing too. */
function isWhole({ tree, own, shared }: SettingsScope): boolean {
  const complete = (path: string | null, depth: number): boolean => {
    if (path === null || depth > 10) return true;
    const file = tree.has(path) ? tree.read(path, readXcconfig) : undefined;
    if (!file) return false;
    return file.includes.every((include) => {
      const inner = joinPath(folderOf(path), include.path);
      return inner !== null && complete(inner, depth + 1);
    });
  };
  return [own.base, shared?.base ?? null].every((path) => complete(path, 0));
}

/** The compilation conditions that hold for Swift. */
export function swiftConditionsOf(scope: SettingsScope): Set<string> {
  const found = settingOf(scope, 'SWIFT_ACTIVE_COMPILATION_CONDITIONS');
  const flags = settingOf(scope, 'OTHER_SWIFT_FLAGS');
  const names = (found?.value ?? '').split(/\s+/);
  for (const match of (flags?.value ?? '').matchAll(/-D\s*([A-Za-z_]\w*)/g)) names.push(match[1] ?? '');
  return new Set(names.filter((name) => name !== ''));
}

/** The names that are defined for Objective-C, and not as 0. */
export function clangDefinitionsOf(scope: SettingsScope): Set<string> {
  const found = settingOf(scope, 'GCC_PREPROCESSOR_DEFINITIONS');
  const definitions = (found?.value ?? '').match(/[A-Za-z_]\w*(?:=(?:"[^"]*"|[^\s"]*))?/g) ?? [];
  return new Set(
    definitions.flatMap((definition) => {
      const [name = '', value] = definition.split('=');
      return value === '0' ? [] : [name];
    }),
  );
}
