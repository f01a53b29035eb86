import { blockBody, callsIn, literal } from '../../formats/gradle/query.js';
import type { Place } from '../../survey/model.js';
import { placeAt } from '../../survey/place.js';
import type { Tree } from '../../tree/tree.js';
import { scriptOf, settingsNames, statementsOf } from './scripts.js';

/** A repository that a script of the build names. */
export interface Repository {
  name: string;
  place: Place;
}

/** Where a build may keep its repositories, block by block. */
export const repositoryBlocks = [
  ['dependencyResolutionManagement', 'repositories'],
  ['allprojects', 'repositories'],
  ['repositories'],
];

/** The scripts of a Gradle root that may name repositories for all modules. */
export function repositoryScripts(tree: Tree, root: string): string[] {
  const settings = settingsNames.map((name) => (root ? `${root}/${name}` : name));
  return [...settings.filter((path) => tree.has(path)), scriptOf(tree, root)].flatMap((path) => path ?? []);
}

/** The addresses of the `maven` repositories of a build, in whichever form: `maven("…")`, `maven { url … }`. */
export function repositoriesOf(tree: Tree, root: string): Repository[] {
  return repositoryScripts(tree, root).flatMap((script) =>
    repositoryBlocks.flatMap((way) => {
      const body = way.reduce((statements, name) => blockBody(statements, name), statementsOf(tree, script));
      return callsIn(body)
        .filter(({ path }) => path === 'maven')
        .flatMap(({ call }): Repository[] => {
          const text = tree.text(script)?.text.slice(call.start, call.end) ?? '';
          const url = literal(call.args[0]?.value) ?? /["'](https?:\/\/[^"'\s]{1,300})["']/.exec(text)?.[1];
          return url === undefined ? [] : [{ name: url, place: placeAt(script, tree.text(script), call) }];
        });
    }),
  );
}

/** Whether two addresses are the same; a slash at the end does not count. */
export function sameAddress(a: string, b: string): boolean {
  return a.replace(/\/+$/, '') === b.replace(/\/+$/, '');
}
