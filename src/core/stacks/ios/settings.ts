import { entryOf, type PbxValue } from '../../formats/pbxproj/read.js';
import { readXcconfig } from '../../formats/xcconfig/read.js';
import type { ChainStep } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import { folderOf, joinPath } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { AppTarget, Configuration, XcodeProject } from './project.js';

export type Setting =
  { value: string; chain: ChainStep[] } | { value: null; reason: string; chain: ChainStep[] };

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

/** A setting as Xcode would resolve it, or why that cannot be told; undefined when nothing sets it. */
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
  if (steps > maxSteps) return { value: null, reason: 'its settings refer to each other in a circle', chain };
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
      if (found && 'reason' in found)
        return { value: null, reason: found.reason, chain: [...chain, ...found.chain] };
      if (fallback === undefined)
        return { value: null, reason: `nothing in the tree sets $(${name})`, chain };
      inner = fallback.slice('default='.length);
    }
    for (const operator of operators) inner = applyOperator(inner, operator);
    value = value.slice(0, match.index) + inner + value.slice(match.index + match[0].length);
  }
  return { value: null, reason: 'it holds too many references', chain };
}

function applyOperator(value: string, operator: string): string {
  switch (operator) {
    case 'lower':
      return value.toLowerCase();
    case 'upper':
      return value.toUpperCase();
    case 'rfc1034identifier':
      return value.replace(/[^A-Za-z0-9.-]/g, '-');
    case 'c99extidentifier':
    case 'identifier':
      return value.replace(/[^A-Za-z0-9_]/g, '_');
    default:
      return value;
  }
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
  };
  const value = builtIn[name];
  return value === undefined ? undefined : { value, chain: [] };
}

function levelsOf(scope: SettingsScope, name: string): Level[] {
  const { own, shared } = scope;
  return [
    ...fromProjectFile(scope, own, `target ${scope.target.name}, ${own.name}`, name),
    ...fromFile(scope, own.base, name, 0),
    ...(shared ? fromProjectFile(scope, shared, `project, ${shared.name}`, name) : []),
    ...(shared ? fromFile(scope, shared.base, name, 0) : []),
  ];
}

function fromProjectFile(
  scope: SettingsScope,
  { settings }: Configuration,
  what: string,
  name: string,
): Level[] {
  const entry = settings && entryOf(settings, name);
  if (!entry) return [];
  const value = plainValue(entry.value);
  const place = placeAt(scope.project.path, scope.tree.text(scope.project.path), entry);
  return [{ value, step: { what: `build setting ${name} (${what})`, value, place } }];
}

function plainValue(value: PbxValue): string {
  if (value.type === 'string') return value.value;
  return value.type === 'list' ? value.items.map(plainValue).join(' ') : '';
}

/** A setting from a base configuration file; what it includes is weaker than what follows, as in Xcode. */
function fromFile(scope: SettingsScope, path: string | null, name: string, depth: number): Level[] {
  if (path === null || depth > 10) return [];
  const file = scope.tree.has(path) ? scope.tree.read(path, readXcconfig) : undefined;
  if (!file) return [];
  const own = file.settings.findLast(({ key }) => key === name);
  if (own) {
    const place = placeAt(path, scope.tree.text(path), own);
    return [
      {
        value: own.value,
        step: { what: `build setting ${name} (configuration file)`, value: own.value, place },
      },
    ];
  }
  for (const include of [...file.includes].reverse()) {
    const found = fromFile(scope, joinPath(folderOf(path), include.path), name, depth + 1);
    if (found.length > 0) return found;
  }
  return [];
}

/** The compilation conditions that hold for Swift. */
export function swiftConditionsOf(scope: SettingsScope): Set<string> {
  const found = settingOf(scope, 'SWIFT_ACTIVE_COMPILATION_CONDITIONS');
  const flags = settingOf(scope, 'OTHER_SWIFT_FLAGS');
  const names = (found?.value ?? '').split(/\s+/);
  for (const match of (flags?.value ?? '').matchAll(/-D\s*([A-Za-z_]\w*)/g)) names.push(match[1] ?? '');
  return new Set(names.filter((name) => name !== ''));
}
