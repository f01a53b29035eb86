import { folderOf } from '../../text/paths.js';
import type { Recognition } from '../stack.js';
import { projectPaths, readProject } from './survey/project.js';
import type { Tree } from '../../tree/tree.js';

/** The folders with Xcode projects that have an application target. */
export function recogniseIos(tree: Tree): Recognition[] {
  const projects = projectPaths(tree).flatMap((path) => readProject(tree, path) ?? []);
  const withApps = projects.filter(({ targets, elsewhere }) => targets.length + elsewhere.length > 0);
  return [...new Set(withApps.map(({ folder }) => folder))].map((root) => {
    const here = withApps.filter(({ folder }) => folder === root);
    const others = here.flatMap(({ elsewhere }) =>
      elsewhere.map(({ name, platforms }) => `${name} is built for ${platforms.join(' and ')}, not for iOS`),
    );
    const evidence = here.flatMap(({ path, targets }) =>
      targets.length === 0
        ? []
        : [`${folderOf(path)} has the application target ${targets.map(({ name }) => name).join(', ')}`],
    );
    return evidence.length === 0
      ? { root, evidence: others, passedOver: others.join('; ') }
      : { root, evidence: [...evidence, ...others.map((other) => `${other}: it is skipped`)] };
  });
}
