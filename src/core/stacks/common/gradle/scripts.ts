import type { Expression } from '../../../formats/gradle/model.js';
import { callsIn, literal } from '../../../formats/gradle/query.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { scriptNames, settingsNames } from './catalogs.js';
import { pathIn } from './paths.js';
import { scriptParts } from './parts.js';
import { pluginsIn, type NamedPlugin } from './plugins.js';

/** The plugins that a script applies or names, with those that it takes over from other scripts. */
export function namedPlugins(tree: Tree, root: string, path: string): NamedPlugin[] {
  return tree.once(`gradle plugins of ${path} in ${root}`, () => {
    const { parts, classes } = scriptParts(tree, root, path);
    return [
      ...parts.flatMap(({ path: script, statements }) => pluginsIn(tree, root, statements, script)),
      ...classes.flatMap(({ applies }) => applies),
    ];
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
    for (const settings of settingsNames.map((name) => joinPath(root, name) ?? name)) {
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
