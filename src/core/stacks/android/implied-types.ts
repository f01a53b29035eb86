import type { Tree } from '../../tree/tree.js';
import { pluginsOf, type AppModule } from './scripts.js';

/** Build types that every application has. */
const usual = ['debug', 'release'];

/** Build types that plugins add without a word in the script. */
const added: Readonly<Record<string, readonly string[]>> = {
  // flutter.dev, "Flutter's build modes": the Gradle plugin adds `profile` beside debug and release.
  'dev.flutter.flutter-gradle-plugin': ['profile'],
};

/** The build types that a module has, whatever its script says. */
export function impliedTypes(tree: Tree, { root, script }: AppModule): string[] {
  return [...usual, ...pluginsOf(tree, root, script).flatMap((id) => added[id] ?? [])];
}
