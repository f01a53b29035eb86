import type { Expression } from '../../../formats/gradle/model.js';
import { buildConstant, mentionedIn } from '../../common/gradle/build-code.js';
import { scriptOf, settingsNames } from '../../common/gradle/catalogs.js';
import {
  accessPath,
  declarationOf,
  entryOf,
  plainName,
  type Declared,
} from '../../common/gradle/declared.js';
import { scriptParts, type MissingScript, type Part } from '../../common/gradle/parts.js';
import { folderOf, joinPath } from '../../../text/paths.js';
import type { Scope } from './look-up.js';

/** The definition of a name, with the scope for its value. */
export interface Located extends Declared {
  scope: Scope;
}

const maxAliases = 10;
/** No name that is looked up is longer (characters). */
const maxName = 500;

/**
 * What scripts give a name: in the module's script, then in those of the projects above it (each with all that it takes
 * over), in the settings, and in the build's own code. `versions.minSdk` is looked for in a map called `versions`.
 * Undefined when nothing that can be read gives it a value.
 */
export function locate(name: string, scope: Scope, aliases = 0): Located | undefined {
  if (aliases > maxAliases || name.length > maxName) return undefined;
  const found =
    (scope.around && inParts(name, [{ path: scope.path, statements: scope.around }], scope, aliases)) ??
    inScripts(name, scope, aliases);
  if (found) return found;
  const constant = buildConstant(scope.tree, scope.root, name);
  return constant && { ...constant, scope: { ...scope, path: constant.path, around: constant.around } };
}

function inScripts(name: string, scope: Scope, aliases: number): Located | undefined {
  for (const script of scriptsOf(scope)) {
    const found = inParts(name, scriptParts(scope.tree, scope.root, script).parts, scope, aliases);
    if (found) return found;
  }
  return undefined;
}

/** The scripts that may declare a name for a module: its own, those of the projects above it, and the settings. */
function scriptsOf({ tree, root, module }: Scope): string[] {
  const folders = [module];
  for (let folder = module; folder !== root && folder !== '';) {
    folder = folderOf(folder);
    folders.push(folder);
  }
  const settings = settingsNames.map((file) => joinPath(root, file) ?? file).filter((path) => tree.has(path));
  return [...new Set([...folders, root].flatMap((folder) => scriptOf(tree, folder) ?? [])), ...settings];
}

function inParts(name: string, parts: readonly Part[], scope: Scope, aliases: number): Located | undefined {
  const whole = lastIn(name, parts, scope);
  if (whole) return whole;
  const dot = name.lastIndexOf('.');
  if (dot < 0) return undefined;
  const map = inParts(name.slice(0, dot), parts, scope, aliases);
  return map && entryIn(map, name.slice(dot + 1), aliases);
}

function lastIn(name: string, parts: readonly Part[], scope: Scope): Located | undefined {
  let found: Located | undefined;
  for (const { path, statements } of parts) {
    const declared = declarationOf(name, statements);
    if (declared) found = { ...declared, scope: { ...scope, path } };
  }
  return found;
}

/** An entry of a map or a list, through other names of the map. */
export function entryIn(map: Located, key: string, aliases = 0): Located | undefined {
  const value = entryOf(map.value, key);
  if (value) return { ...map, value };
  const alias = accessPath(map.value);
  const target = alias === null ? undefined : locate(plainName(alias), map.scope, aliases + 1);
  return target && entryIn(target, key, aliases + 1);
}

/** Why nothing that can be read gives a name a value. */
export function unknownName(name: string, scope: Scope): string {
  const missing = missingFor(scope)[0];
  if (missing) return `“${name}” may be set in ${missing.from}, which cannot be read: ${missing.reason}`;
  const path = mentionedIn(scope.tree, scope.root, name.split('.').at(-1) ?? name);
  if (path !== undefined && path !== scope.path) return `“${name}” is computed in ${path}`;
  return `“${name}” is not set in any file of the tree`;
}

/** The scripts that may say more about a module, and cannot be read. */
export function missingFor(scope: Scope): MissingScript[] {
  return scriptsOf(scope).flatMap((script) =>
    scriptParts(scope.tree, scope.root, script).missing.filter(({ isOptional }) => !isOptional),
  );
}

/** The name that an expression reads: `rootProject.ext.versions["a"]` is `versions.a`. */
export function nameRead(expression: Expression): string | null {
  const path = accessPath(expression);
  return path === null ? null : plainName(path);
}
