import { folderOf } from '../../text/paths.js';
import type { Recognition } from '../stack.js';
import { projectPaths, readProject } from './survey/project.js';
import type { Tree } from '../../tree/tree.js';

/** The folders with Xcode projects that have an application target. */
export function recogniseIos(tree: Tree): Recognition[] {
  const projects = projectPaths(tree).flatMap((path) => readProject(tree, path) ?? []);
  const withApps = projects.filter(({ targets }) => targets.length > 0);
  return [...new Set(withApps.map(({ folder }) => folder))].map((root) => ({
    root,
    evidence: withApps.flatMap(({ folder, path, targets }) => {
      if (folder !== root) return [];
      return [`${folderOf(path)} has the application target ${targets.map(({ name }) => name).join(', ')}`];
    }),
  }));
}
