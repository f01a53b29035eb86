import type { Recognition } from '../stack.js';
import { appModules } from '../common/gradle/scripts.js';
import type { Tree } from '../../tree/tree.js';

/** The folders of Gradle builds with modules that build an application. */
export function recogniseAndroid(tree: Tree): Recognition[] {
  const modules = appModules(tree);
  return [...new Set(modules.map(({ root }) => root))].map((root) => ({
    root,
    evidence: modules.flatMap((module) => {
      if (module.root !== root) return [];
      return [`${module.script} applies the Android application plugin (module ${module.folder || '.'})`];
    }),
  }));
}
