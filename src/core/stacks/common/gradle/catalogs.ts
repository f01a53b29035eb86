import { readGradle } from '../../../formats/gradle/read.js';
import type { Statement } from '../../../formats/gradle/model.js';
import { blockBody, callsIn, literal } from '../../../formats/gradle/query.js';
import { readVersionCatalog, type VersionCatalog } from '../../../formats/version-catalog/read.js';
import { joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';

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
