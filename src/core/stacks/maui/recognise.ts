import type { Recognition } from '../stack.js';
import { mauiAt, mauiRoots, type MauiProject } from './survey/project.js';
import type { Tree } from '../../tree/tree.js';

/** The folders with a project file that builds an application with .NET MAUI. */
export function recogniseMaui(tree: Tree): Recognition[] {
  return mauiRoots(tree).flatMap((root) => {
    const project = mauiAt(tree, root);
    return project ? [recognition(project)] : [];
  });
}

function recognition({ root, path, frameworks, configurations }: MauiProject): Recognition {
  const built = Object.values(frameworks).join(' and ');
  const evidence = [
    `${path} builds an application with MAUI for ${built}`,
    `its configurations are ${configurations.join(', ')}`,
  ];
  return { root, evidence };
}
