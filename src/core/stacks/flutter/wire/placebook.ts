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
import { homeFor } from '../../common/own-packages.js';
import { packagesOf } from './packages-beside.js';
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
    path: placebookPath(tree, project, context),
    testCondition: stageCondition(titleEditions(context)),
    language: dart,
    withoutCondition: {
      platform: null,
      network: null,
      rule: 'unit-id/not-in-build',
      what: 'Give the variants of both platforms stages that modes or flavours keep apart, then wire again.',
      why: 'One Dart file serves both platforms; it can choose the stage only by the mode or the flavour of the build.',
      where: project.path,
    },
  });
}

/** Where the placebook is, or will be: in the package that all code that asks for ads can import. */
export function placebookPath(tree: Tree, project: FlutterProject, { survey }: WireContext): string {
  const calling = survey.facts.flatMap(({ kind, place }) =>
    kind === 'call' || kind === 'unit-id' || kind === 'placement-use' ? [place.path] : [],
  );
  const home = homeFor(packagesOf(tree, project), calling) ?? project;
  return existingPlacebook(tree, project.root)?.path ?? below(home.root, 'lib/ads/placebook.dart');
}

/** The placebook that is in the Dart of a project. */
export function existingPlacebook(tree: Tree, root: string): ExistingPlacebook | undefined {
  return placebookAmong(tree, dartFiles(tree, root), 'placebook.dart');
}

/** One way to tell builds apart: what names a build, and how code says that it is not that one. */
interface Way {
  of: (build: { mode: Mode | undefined; flavour: string }) => string | undefined;
  isNot: (term: string) => string;
}

const flavourName = "String.fromEnvironment('FLUTTER_APP_FLAVOR')";
const ways: readonly Way[] = [
  {
    of: ({ mode }) => mode && constants[mode],
    isNot: (term) => `!${term}`,
  },
  {
    of: ({ flavour }) => `'${flavour}'`,
    isNot: (term) => `${flavourName} != ${term}`,
  },
  {
    of: ({ mode, flavour }) => mode && `${constants[mode]} && ${flavourName} == '${flavour}'`,
    isNot: (term) => `!(${term})`,
  },
];

/**
 * The constant expression that holds in the builds of the test stage: by mode where modes keep the stages apart,
 * else by flavour, else by both. A build that no variant names, such as one without a flavour, is of the test stage.
 * Undefined where a variant is built in no mode of Flutter's, or the platforms disagree.
 */
export function stageCondition(editions: readonly SurveyEdition[]): string | undefined {
  const builds = editions.flatMap((edition) =>
    edition.variants.map((variant) => ({
      mode: modeOf(variant),
      flavour: flavourOf(edition, variant),
      stage: variant.stage,
    })),
  );
  if (builds.every(({ stage }) => stage !== 'production')) return 'true';
  if (builds.every(({ stage }) => stage === 'production')) return 'false';
  for (const way of ways) {
    const stages = new Map<string, string | null>();
    const clean = builds.every((build) => {
      const term = way.of(build);
      if (term === undefined) return false;
      const known = stages.get(term);
      stages.set(term, build.stage);
      return known === undefined || known === build.stage;
    });
    if (!clean) continue;
    const production = [...stages].flatMap(([term, stage]) => (stage === 'production' ? [term] : []));
    return production.map(way.isNot).join(' && ');
  }
  return undefined;
}
