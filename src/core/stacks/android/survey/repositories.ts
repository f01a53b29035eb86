import { blockBody, callsIn, literal, pathOf, settingIn } from '../../../formats/gradle/query.js';
import type { Expression, Statement } from '../../../formats/gradle/model.js';
import type { Place } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { evaluate } from './evaluate.js';
import { blockParts, scriptParts, type Part } from '../../common/gradle/parts.js';
import { scriptOf, settingsNames, statementsOf } from '../../common/gradle/catalogs.js';

/** A repository that a script of the build names. */
interface Repository {
  name: string;
  place: Place;
  /** In the settings for all modules, in the root script for all, or in the module's own script. */
  where: 'settings' | 'all' | 'module';
}

/** How Gradle weighs the repositories of the settings against those of projects. */
export type RepositoriesMode = 'PREFER_PROJECT' | 'PREFER_SETTINGS' | 'FAIL_ON_PROJECT_REPOS';

/** Where a build may keep its repositories, block by block. */
export const repositoryBlocks = [
  ['dependencyResolutionManagement', 'repositories'],
  ['allprojects', 'repositories'],
  ['repositories'],
];

/** The scripts of a Gradle root that may name repositories for all modules. */
export function repositoryScripts(tree: Tree, root: string): string[] {
  return [...settingsScripts(tree, root), scriptOf(tree, root)].flatMap((path) => path ?? []);
}

function settingsScripts(tree: Tree, root: string): string[] {
  return settingsNames.map((name) => (root ? `${root}/${name}` : name)).filter((path) => tree.has(path));
}

/** The addresses of the `maven` repositories that dependencies of a module may come from, wherever they are named. */
export function repositoriesOf(tree: Tree, root: string, module: string = root): Repository[] {
  const rootScript = scriptOf(tree, root);
  const settings = settingsScripts(tree, root).flatMap((path) => scriptParts(tree, root, path).parts);
  const forAll = scriptParts(tree, root, rootScript).parts;
  const own = scriptParts(tree, root, scriptOf(tree, module)).parts;
  const inside = (parts: readonly Part[], way: readonly string[]) =>
    way.reduce<Part[]>((found, name) => blockParts(found, name), [...parts]);
  const from = (parts: readonly Part[], where: Repository['where']): Repository[] =>
    parts.flatMap(({ path, statements }) =>
      mavenCalls(statements).flatMap((call): Repository[] => {
        const url = urlOf(tree, root, path, call);
        return url === undefined ? [] : [{ name: url, place: placeAt(path, tree.text(path), call), where }];
      }),
    );
  return [
    ...from(inside(settings, ['dependencyResolutionManagement', 'repositories']), 'settings'),
    ...from(inside(forAll, ['allprojects', 'repositories']), 'all'),
    ...from(inside(forAll, ['subprojects', 'repositories']), 'all'),
    ...from(inside(own, ['repositories']), 'module'),
  ];
}

/** Whether a module's build, or the root script for all modules, names any repository at all. */
export function hasProjectRepositories(tree: Tree, root: string, module: string): boolean {
  const forAll = scriptParts(tree, root, scriptOf(tree, root)).parts;
  const own = scriptParts(tree, root, scriptOf(tree, module)).parts;
  const blocks = [
    ...blockParts(blockParts(forAll, 'allprojects'), 'repositories'),
    ...blockParts(blockParts(forAll, 'subprojects'), 'repositories'),
    ...blockParts(own, 'repositories'),
  ];
  return blocks.some(({ statements }) => statements.length > 0);
}

/** Gradle's rule for repositories of projects, from the settings; the default of Gradle when they say nothing. */
export function repositoriesModeOf(tree: Tree, root: string): RepositoriesMode {
  for (const path of settingsScripts(tree, root)) {
    const body = blockBody(statementsOf(tree, path), 'dependencyResolutionManagement');
    const call = callsIn(body).find(({ path: name }) => name === 'repositoriesMode.set')?.call.args[0]?.value;
    const value = call ?? settingIn(body, ['repositoriesMode'])?.value;
    const name = value && pathOf(value)?.split('.').at(-1);
    if (name === 'FAIL_ON_PROJECT_REPOS' || name === 'PREFER_SETTINGS' || name === 'PREFER_PROJECT')
      return name;
  }
  return 'PREFER_PROJECT';
}

type Call = Expression & { type: 'call' };

/** The `maven` calls of a repositories block, those inside `exclusiveContent { forRepository { } }` included. */
function mavenCalls(statements: readonly Statement[]): Call[] {
  return callsIn(statements).flatMap(({ path, call }): Call[] => {
    if (path === 'maven') return [call];
    return path === 'exclusiveContent' || path === 'forRepository' ? mavenCalls(call.body ?? []) : [];
  });
}

/** The address in `maven("…")`, `maven(url = …)`, `maven { url = uri("…") }`, `maven { url "…" }`, `setUrl("…")`. */
function urlOf(tree: Tree, root: string, script: string, call: Call): string | undefined {
  const given = call.args.find(({ name }) => name === undefined || name === 'url')?.value;
  let value = given ?? settingIn(call.body ?? [], ['url', 'setUrl'])?.value;
  if (value?.type === 'call' && /(^|\.)uri$/.test(pathOf(value.callee) ?? '')) value = value.args[0]?.value;
  if (!value) return undefined;
  return literal(value) ?? evaluate(value, { tree, root, path: script, module: root }).value ?? undefined;
}

/** Whether two addresses are the same; a slash at the end does not count. */
export function sameAddress(a: string, b: string): boolean {
  return a.replace(/\/+$/, '') === b.replace(/\/+$/, '');
}
