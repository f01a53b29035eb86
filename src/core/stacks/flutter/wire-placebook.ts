import { placebookContents, needsPlacebook, placebookProfiles } from '../../placebook/contents.js';
import { dartPlacebook, type SharedBooks } from '../../placebook/dart.js';
import { placebookMark, samePlacebook } from '../../placebook/model.js';
import { editionOf } from '../../survey/modules.js';
import type { SurveyEdition } from '../../survey/model.js';
import type { Tree } from '../../tree/tree.js';
import { baseOf } from '../../tree/paths.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { placebookRules } from '../../wiring/steps.js';
import type { StackWiring, WireContext } from '../stack.js';
import { below, dartFiles, type FlutterProject } from './project.js';
import { flavourOf, modeOf, type Mode } from './terms.js';

const topic = 'placebook' as const;
const constants: Record<Mode, string> = {
  debug: 'kDebugMode',
  profile: 'kProfileMode',
  release: 'kReleaseMode',
};

/** The placebook in Dart: one file for both platforms and stages. */
export function wirePlacebook(tree: Tree, project: FlutterProject, context: WireContext): StackWiring {
  const { title } = context;
  const editions = titleEditions(context);
  const standing = standingPlacebook(tree, project.root);
  const texts = standing ? [standing.text] : [];
  const profiles = placebookProfiles(context.allProfiles, context.profiles, texts);
  const needed = editions.filter(({ platform }) => needsPlacebook(title, profiles, platform));
  if (needed.length === 0) return { changes: [], byHand: [] };
  // The native parts say which variants lack a stage, each for its own platform.
  if (editions.some(({ variants }) => variants.some(({ stage }) => !stage)))
    return { changes: [], byHand: [] };
  const testCondition = stageCondition(editions);
  if (testCondition === undefined) return { changes: [], byHand: [modesStep(project)] };
  const books: SharedBooks = Object.fromEntries(
    editions.map(({ platform }) => [
      platform,
      {
        test: placebookContents(title, profiles, platform, 'test'),
        production: placebookContents(title, profiles, platform, 'production'),
      },
    ]),
  );
  const content = dartPlacebook(books, { title: title.name, revision: context.revision, testCondition });
  if (standing && samePlacebook(standing.text, content)) return { changes: [], byHand: [] };
  const path = standing?.path ?? below(project.root, 'lib/ads/placebook.dart');
  const platform = needed[0]?.platform ?? 'android';
  const change: Change = { path, platform, network: null, topic, rules: placebookRules, content };
  return { changes: [change], byHand: [] };
}

/** The editions of the title that the project builds. */
export function titleEditions({ title, survey }: WireContext): SurveyEdition[] {
  return (['android', 'ios'] as const).flatMap(
    (platform) => editionOf(survey.editions, title, platform) ?? [],
  );
}

/** The placebook that stands in the Dart of a project. */
export function standingPlacebook(tree: Tree, root: string): { path: string; text: string } | undefined {
  return dartFiles(tree, root)
    .filter((path) => baseOf(path) === 'placebook.dart')
    .map((path) => ({ path, text: tree.text(path)?.text ?? '' }))
    .find(({ text }) => text.slice(0, 400).includes(placebookMark));
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

function modesStep({ path }: FlutterProject): ByHand {
  return {
    platform: null,
    network: null,
    rule: 'unit-id/not-in-build',
    what: 'Give the variants of both platforms stages that modes or flavours keep apart, then wire again.',
    why: 'One Dart file serves both platforms; it can pick the stage only by the mode or the flavour of the build.',
    where: path,
  };
}
