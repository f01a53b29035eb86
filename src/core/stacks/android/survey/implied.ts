import { valueAt } from '../../../text/own-values.js';
import type { Tree } from '../../../tree/tree.js';
import { pluginsOf, type AppModule } from '../../common/gradle/scripts.js';

/** What a plugin brings into a module without a word in its script. */
export interface Implied {
  types: readonly string[];
  /** Manifest placeholders, where no script sets them otherwise. */
  placeholders: Readonly<Record<string, string>>;
}

/** Build types that every application has. */
const usual = ['debug', 'release'];

const byPlugin: Readonly<Record<string, Implied>> = {
  // flutter.dev, "Flutter's build modes": the Gradle plugin adds `profile` beside debug and release, and names the
  // application class of a project that has none of its own.
  'dev.flutter.flutter-gradle-plugin': {
    types: ['profile'],
    placeholders: { applicationName: 'android.app.Application' },
  },
};

/** What a module has, whatever its script says. */
export function impliedIn(tree: Tree, { root, script }: AppModule): Implied {
  const found = pluginsOf(tree, root, script).flatMap((id) => valueAt(byPlugin, id) ?? []);
  return {
    types: [...usual, ...found.flatMap(({ types }) => types)],
    placeholders: Object.assign({}, ...found.map(({ placeholders }) => placeholders)) as Record<
      string,
      string
    >,
  };
}
