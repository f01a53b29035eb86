import { readGradle } from '../../../formats/gradle/read.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Span } from '../../../text/problem.js';
import { blockBody, callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import { readVersionCatalog, type VersionCatalog } from '../../../formats/version-catalog/read.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { pathIn } from './paths.js';
import { scriptParts } from './parts.js';

export const scriptNames = ['build.gradle.kts', 'build.gradle'];
export const settingsNames = ['settings.gradle.kts', 'settings.gradle'];

/** The build script of a folder; undefined when it has none. */
export function scriptOf(tree: Tree, folder: string): string | undefined {
  return scriptNames.map((name) => (folder ? `${folder}/${name}` : name)).find((path) => tree.has(path));
}

export function statementsOf(tree: Tree, path: string | undefined): Statement[] {
  return (path && tree.read(path, readGradle)?.statements) || [];
}

/** A version catalogue under the name by which scripts call it. */
export interface NamedCatalog {
  name: string;
  path: string;
  catalog: VersionCatalog;
}

/** The version catalogues of a Gradle root: `libs` in its usual place, and those that its settings name. */
export function catalogsOf(tree: Tree, root: string): NamedCatalog[] {
  return tree.once(`gradle catalogues of ${root}`, () => {
    const settings = settingsNames.map((name) => below(root, name)).filter((path) => tree.has(path));
    const declared = settings.flatMap((path) => {
      const management = blockBody(statementsOf(tree, path), 'dependencyResolutionManagement');
      return callsIn(blockBody(management, 'versionCatalogs')).flatMap(({ path: way, call }) => {
        const name = way === 'create' || way === 'register' ? literal(call.args[0]?.value) : way;
        const from = callsIn(call.body ?? []).find(({ path: inner }) => inner === 'from')?.call.args[0]
          ?.value;
        const file = from?.type === 'call' ? literal(from.args[0]?.value) : undefined;
        const at = file === undefined ? null : joinPath(root, file.replace(/^\$\{?rootDir\}?\//, ''));
        return name !== undefined && at !== null ? [{ name, path: at }] : [];
      });
    });
    const usual = { name: 'libs', path: below(root, 'gradle/libs.versions.toml') };
    return [...declared, ...(declared.some(({ name }) => name === 'libs') ? [] : [usual])].flatMap(
      ({ name, path }) => {
        const catalog = tree.has(path) ? tree.read(path, readVersionCatalog) : undefined;
        return catalog ? [{ name, path, catalog }] : [];
      },
    );
  });
}

/** The catalogue that scripts call `libs`. */
export function catalogOf(tree: Tree, root: string): NamedCatalog | undefined {
  return catalogsOf(tree, root).find(({ name }) => name === 'libs');
}

function below(root: string, path: string): string {
  return root ? `${root}/${path}` : path;
}

/** A plugin that a script names: its ID, the version beside it, and whether the script applies it. */
export interface NamedPlugin extends Span {
  id: string;
  version: Expression | string | undefined;
  applied: boolean;
  script: string;
}

/** The plugins that a script names in `plugins { }` or applies, catalogue aliases resolved. */
export function namedPlugins(tree: Tree, root: string, path: string): NamedPlugin[] {
  return tree.once(`gradle plugins of ${path} in ${root}`, () => {
    const parts = scriptParts(tree, root, path).parts;
    return parts.flatMap(({ path: script, statements }) => [
      ...pluginLines(tree, root, blockBody(statements, 'plugins'), script),
      ...callsIn(statements).flatMap(({ path: name, call }): NamedPlugin[] => {
        const plugin =
          name === 'apply' || name === 'project.apply'
            ? call.args.find((arg) => arg.name === 'plugin')?.value
            : name === 'plugins.apply' || name === 'pluginManager.apply'
              ? call.args[0]?.value
              : undefined;
        const id = literal(plugin);
        const { start, end } = call;
        return id === undefined ? [] : [{ id, version: undefined, applied: true, script, start, end }];
      }),
    ]);
  });
}

/** The lines of a `plugins { }` block, wherever it is. */
export function pluginLines(
  tree: Tree,
  root: string,
  body: readonly Statement[],
  script: string,
): NamedPlugin[] {
  return body.flatMap((statement): NamedPlugin[] => {
    if (statement.type !== 'expression' || statement.value.type !== 'call') return [];
    const call = statement.value;
    let inner = call;
    let applied = true;
    let version: NamedPlugin['version'];
    while (inner.callee.type === 'member' && inner.callee.object.type === 'call') {
      const value = inner.args[0]?.value;
      if (inner.callee.name === 'apply' && value && pathOf(value) === 'false') applied = false;
      if (inner.callee.name === 'version') version = value;
      inner = inner.callee.object;
    }
    const name = pathOf(inner.callee);
    const value = inner.args[0]?.value;
    const base = { applied, script, start: call.start, end: call.end };
    if (!value) return [];
    if (name === 'id') return [{ ...base, id: literal(value) ?? '', version }];
    if (name === 'kotlin') return [{ ...base, id: `org.jetbrains.kotlin.${literal(value) ?? ''}`, version }];
    const alias = name === 'alias' ? /^(\w+)\.plugins\.(.+)$/.exec(pathOf(value) ?? '') : null;
    const catalog = catalogsOf(tree, root).find((candidate) => candidate.name === alias?.[1])?.catalog;
    const found = catalog?.plugins.find((plugin) => plugin.alias === alias?.[2]);
    return found ? [{ ...base, id: found.name, version: found.version }] : [];
  });
}

/** The IDs of the plugins that a script applies. */
export function pluginsOf(tree: Tree, root: string, path: string): string[] {
  return namedPlugins(tree, root, path).flatMap(({ id, applied }) => (applied ? [id] : []));
}

/** A Gradle module that builds an application. */
export interface AppModule {
  root: string;
  folder: string;
  script: string;
}

/** Every application module of a tree, each with the Gradle root that it belongs to. */
export function appModules(tree: Tree): AppModule[] {
  return tree.once('android application modules', () => findModules(tree));
}

function findModules(tree: Tree): AppModule[] {
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

/** Where the modules of a Gradle root lie: `include(":a:b")` in `a/b`, unless the settings move one. */
export function moduleFolders(tree: Tree, root: string): Map<string, string> {
  return tree.once(`gradle modules of ${root}`, () => {
    const folders = new Map<string, string>();
    for (const settings of settingsNames.map((name) => below(root, name))) {
      for (const { statements } of scriptParts(tree, root, tree.has(settings) ? settings : undefined).parts) {
        for (const { path, call } of callsIn(statements)) {
          if (path !== 'include') continue;
          for (const name of call.args.flatMap(({ value }) => literalsIn(value))) {
            const plain = name.replace(/^:/, '');
            folders.set(`:${plain}`, joinPath(root, plain.replace(/:/g, '/')) ?? plain);
          }
        }
        for (const statement of statements) {
          if (statement.type !== 'assign' || statement.target.type !== 'member') continue;
          const { object, name } = statement.target;
          const module = object.type === 'call' ? literal(object.args[0]?.value) : undefined;
          const folder = pathIn(statement.value, { root, project: root, statements });
          if (name === 'projectDir' && module !== undefined && folder !== undefined)
            folders.set(`:${module.replace(/^:/, '')}`, folder);
        }
      }
    }
    return folders;
  });
}

function literalsIn(expression: Expression): string[] {
  const plain = literal(expression) ?? (expression.type === 'string' ? expression.raw : undefined);
  if (plain !== undefined) return [plain];
  if (expression.type === 'call') return expression.args.flatMap(({ value }) => literalsIn(value));
  if (expression.type === 'list') return expression.items.flatMap(({ value }) => literalsIn(value));
  return [];
}
