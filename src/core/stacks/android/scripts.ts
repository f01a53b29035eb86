import { readGradle, type Statement } from '../../formats/gradle/read.js';
import { blockBody, callsIn, literal, pathOf } from '../../formats/gradle/query.js';
import { readVersionCatalog, type VersionCatalog } from '../../formats/version-catalog/read.js';
import { baseOf, folderOf } from '../../tree/paths.js';
import type { Tree } from '../../tree/tree.js';

export const scriptNames = ['build.gradle.kts', 'build.gradle'];
export const settingsNames = ['settings.gradle.kts', 'settings.gradle'];

/** The build script of a folder; undefined when it has none. */
export function scriptOf(tree: Tree, folder: string): string | undefined {
  return scriptNames.map((name) => (folder ? `${folder}/${name}` : name)).find((path) => tree.has(path));
}

export function statementsOf(tree: Tree, path: string | undefined): Statement[] {
  return (path && tree.read(path, readGradle)?.statements) || [];
}

/** The version catalogue of a Gradle root, in its usual place. */
export function catalogOf(tree: Tree, root: string): { path: string; catalog: VersionCatalog } | undefined {
  const path = root ? `${root}/gradle/libs.versions.toml` : 'gradle/libs.versions.toml';
  const catalog = tree.has(path) ? tree.read(path, readVersionCatalog) : undefined;
  return catalog && { path, catalog };
}

/** The IDs of the plugins that a script applies, catalogue aliases resolved. */
export function pluginsOf(tree: Tree, root: string, path: string): string[] {
  const statements = statementsOf(tree, path);
  const catalog = catalogOf(tree, root)?.catalog;
  const declared = callsIn(blockBody(statements, 'plugins')).flatMap(({ call }) => {
    let inner = call;
    let applied = true;
    while (inner.callee.type === 'member' && inner.callee.object.type === 'call') {
      if (inner.callee.name === 'apply' && pathOf(inner.args[0]?.value ?? inner.callee) === 'false')
        applied = false;
      inner = inner.callee.object;
    }
    const name = pathOf(inner.callee);
    const value = inner.args[0]?.value;
    if (!applied || !value) return [];
    if (name === 'id') return [literal(value) ?? ''];
    if (name === 'kotlin') return [`org.jetbrains.kotlin.${literal(value) ?? ''}`];
    const alias = name === 'alias' ? pathOf(value)?.replace(/^\w+\.plugins\./, '') : undefined;
    const found = catalog?.plugins.find((plugin) => plugin.alias === alias);
    return found ? [found.name] : [];
  });
  const applied = callsIn(statements).flatMap(({ path: name, call }) => {
    const plugin = name === 'apply' ? call.args.find((arg) => arg.name === 'plugin')?.value : undefined;
    const text = literal(plugin);
    return text === undefined ? [] : [text];
  });
  return [...declared, ...applied];
}

/** A Gradle module that builds an application. */
export interface AppModule {
  root: string;
  folder: string;
  script: string;
}

/** Every application module of a tree, each with the Gradle root that it belongs to. */
export function appModules(tree: Tree): AppModule[] {
  const roots = tree.paths.filter((path) => settingsNames.includes(baseOf(path))).map(folderOf);
  const scripts = tree.paths.filter((path) => scriptNames.includes(baseOf(path)));
  return scripts.flatMap((script) => {
    const folder = folderOf(script);
    const above = roots.filter((root) => root === '' || folder === root || folder.startsWith(`${root}/`));
    const root = above.sort((a, b) => b.length - a.length)[0] ?? folder;
    return pluginsOf(tree, root, script).includes('com.android.application')
      ? [{ root, folder, script }]
      : [];
  });
}
