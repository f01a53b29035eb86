import { callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import { readGradle } from '../../../formats/gradle/read.js';
import type { Statement } from '../../../formats/gradle/model.js';
import { isWithin, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { declarationOf, type Declared } from './declared.js';

const maxFiles = 400;

/** The folders whose code a build compiles before its scripts: `buildSrc`, and builds that its settings include. */
export function buildCodeFolders(tree: Tree, root: string): string[] {
  return tree.once(`gradle build code of ${root}`, () => {
    const settings = ['settings.gradle.kts', 'settings.gradle'].map((name) => joinPath(root, name) ?? name);
    const included = settings
      .filter((path) => tree.has(path))
      .flatMap((path) => includedBuilds(tree.read(path, readGradle)?.statements ?? []));
    return ['buildSrc', ...included].flatMap((folder) => joinPath(root, folder) ?? []);
  });
}

function includedBuilds(statements: readonly Statement[]): string[] {
  return callsIn(statements).flatMap(({ path, call }) => {
    if (path === 'includeBuild') return literal(call.args[0]?.value) ?? [];
    return path === 'pluginManagement' ? includedBuilds(call.body ?? []) : [];
  });
}

/** The source files of a build's own code. */
function buildCode(tree: Tree, root: string): string[] {
  return tree.once(`gradle build code files of ${root}`, () => {
    const folders = buildCodeFolders(tree, root);
    return tree.paths
      .filter((path) => /\.(kt|java|groovy|gradle|kts)$/.test(path) && /(^|\/)src\/main\//.test(path))
      .filter((path) => folders.some((folder) => isWithin(path, folder)))
      .slice(0, maxFiles);
  });
}

/** A constant of the build's own code with the file that declares it, and what is declared beside it. */
export interface BuildConstant extends Declared {
  path: string;
  around: readonly Statement[];
}

/** `Versions.minSdk`: a constant of an object or a class in the build's own code. */
export function buildConstant(tree: Tree, root: string, name: string): BuildConstant | undefined {
  const parts = name.split('.');
  if (parts.length < 2) return undefined;
  for (const path of buildCode(tree, root)) {
    const text = tree.text(path)?.text ?? '';
    if (!text.includes(parts[0] ?? '')) continue;
    // Kotlin, Java and Groovy declare constants as scripts declare names.
    let around: readonly Statement[] | undefined = tree.read(path, readGradle)?.statements;
    for (const part of parts.slice(0, -1)) around = around && bodyOf(part, around);
    const found = around && declarationOf(parts.at(-1) ?? '', around);
    if (found && around) return { ...found, path, around };
  }
  return undefined;
}

/** The file of the build's own code that uses a name, when there is one. */
export function mentionedIn(tree: Tree, root: string, name: string): string | undefined {
  if (!/^\w+$/.test(name)) return undefined;
  const word = new RegExp(`\\b${name}\\b`);
  return buildCode(tree, root).find((path) => word.test(tree.text(path)?.text ?? ''));
}

/** What is in `object Name { … }`, `class Name { … }`, modifiers before it or not. */
function bodyOf(name: string, statements: readonly Statement[]): readonly Statement[] | undefined {
  for (const statement of statements) {
    if (statement.type !== 'expression') continue;
    let call = statement.value;
    while (
      call.type === 'call' &&
      /^(\w+)$/.test(pathOf(call.callee) ?? '') &&
      pathOf(call.callee) !== name
    ) {
      const inner = call.args[0]?.value;
      if (!inner) break;
      call = inner;
    }
    if (call.type === 'call' && pathOf(call.callee) === name && call.body) return call.body;
  }
  return undefined;
}

/** The script that is a plugin of the build's own code: `acme.app` is `acme.app.gradle.kts` or `acme/app.gradle`. */
export function pluginScript(tree: Tree, root: string, id: string): string | undefined {
  return buildCode(tree, root).find((path) => {
    const name = /(?:^|\/)src\/main\/(?:kotlin|groovy|java)\/(.+)\.gradle(\.kts)?$/.exec(path)?.[1];
    return name !== undefined && name.replace(/\//g, '.') === id;
  });
}

/** The class that is a plugin of the build's own code, as `gradlePlugin { plugins { … } }` registers it. */
export function pluginClass(tree: Tree, root: string, id: string): string | undefined {
  for (const folder of buildCodeFolders(tree, root)) {
    const scripts = tree.paths.filter(
      (path) => isWithin(path, folder) && /(^|\/)build\.gradle(\.kts)?$/.test(path),
    );
    for (const script of scripts) {
      const text = tree.text(script)?.text ?? '';
      if (!text.includes(id)) continue;
      const name = registeredClass(tree.read(script, readGradle)?.statements ?? [], id, 0)
        ?.split('.')
        .at(-1);
      const file =
        name && buildCode(tree, root).find((path) => path.replace(/\.\w+$/, '').endsWith(`/${name}`));
      if (file) return file;
    }
  }
  return undefined;
}

function registeredClass(statements: readonly Statement[], id: string, depth: number): string | undefined {
  const values = new Map<string, string>();
  for (const statement of statements) {
    if (statement.type === 'assign') {
      const value = literal(statement.value);
      if (value !== undefined) values.set(pathOf(statement.target) ?? '', value);
    } else if (statement.type === 'expression' && statement.value.type === 'call' && depth < 6) {
      const found = registeredClass(statement.value.body ?? [], id, depth + 1);
      if (found !== undefined) return found;
      const value = literal(statement.value.args[0]?.value);
      if (value !== undefined) values.set(pathOf(statement.value.callee) ?? '', value);
    }
  }
  return values.get('id') === id ? values.get('implementationClass') : undefined;
}
