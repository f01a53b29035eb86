import { dart } from '../../../languages/dart/index.js';
import type { SurveyEdition } from '../../../facts/model.js';
import type { Tree } from '../../../tree/tree.js';
import {
  placebookAmong,
  titleEditions,
  wireSharedPlacebook,
  type ExistingPlacebook,
} from '../../common/joint-wiring.js';
import type { StackWiring, WireContext } from '../../stack.js';
import { below, dartFiles, type FlutterProject } from '../survey/project.js';
import { flavourOf, modeOf, type Mode } from '../survey/terms.js';

const constants: Record<Mode, string> = {
  debug: 'kDebugMode',
  profile: 'kProfileMode',
  release: 'kReleaseMode',
};

/** The placebook in Dart: one file for both platforms and stages. */
export function wirePlacebook(tree: Tree, project: FlutterProject, context: WireContext): StackWiring {
  return wireSharedPlacebook(context, {
    existing: existingPlacebook(tree, project.root),
    path: below(project.root, 'lib/ads/placebook.dart'),
    testCondition: stageCondition(titleEditions(context)),
    language: dart,
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give the variants of both platforms stages that modes or flavours keep apart, then wire again.',
      why: 'One Dart file serves both platforms; it can pick the stage only by the mode or the flavour of the build.',
      where: project.path,
    },
  });
}

/** The placebook that is in the Dart of a project. */
export function existingPlacebook(tree: Tree, root: string): ExistingPlacebook | undefined {
  return placebookAmong(tree, dartFiles(tree, root), 'placebook.dart');
}

/**
 * The constant expression that holds in the builds of the test stage: by mode where modes keep the stages apart,
 * else by flavour, else by both. Undefined where a variant is built in no mode of Flutter's, or the platforms
 * disagree.
 */
export function stageCondition(editions: readonly SurveyEdition[]): string | undefined {
  const builds = editions.flatMap((edition) =>
    edition.variants.map((variant) => ({
      mode: modeOf(variant),
      flavour: flavourOf(edition, variant),
      stage: variant.stage,
    })),
  );
  const flavourTerm = (flavour: string) => `String.fromEnvironment('FLUTTER_APP_FLAVOR') == '${flavour}'`;
  const ways: ((build: (typeof builds)[number]) => string | undefined)[] = [
    ({ mode }) => (mode === undefined ? undefined : constants[mode]),
    ({ flavour }) => flavourTerm(flavour),
    ({ mode, flavour }) =>
      mode === undefined ? undefined : `(${constants[mode]} && ${flavourTerm(flavour)})`,
  ];
  for (const way of ways) {
    const stages = new Map<string, string | null>();
    const clean = builds.every((build) => {
      const term = way(build);
      if (term === undefined) return false;
      const known = stages.get(term);
      stages.set(term, build.stage);
      return known === undefined || known === build.stage;
    });
    if (!clean) continue;
    const of = (stage: string) => [...stages].flatMap(([term, held]) => (held === stage ? [term] : []));
    const [test, production] = [of('test'), of('production')];
    if (production.length === 1 && /^k\w+Mode$/.test(production[0] ?? '')) return `!${production[0]}`;
    return test.length === 0 ? 'false' : test.join(' || ');
  }
  return undefined;
}
