import type { Edit } from '../../text/edit.js';
import type { LanguageName } from '../../languages/index.js';
import type { PlacebookWriter, SharedBookOptions } from '../../languages/language.js';
import { platformNames } from '../../words/names.js';
import { needsPlacebook, placebookContents, placebookProfiles } from '../../placebook/contents.js';
import { placebookMark, isSameGeneratedText } from '../../languages/common/placebook.js';
import type { SharedBooks } from '../../languages/common/platforms.js';
import type { Platform } from '../../words/words.js';
import { isEnrolled } from '../../roster/expected.js';
import type { SurveyEdition } from '../../facts/model.js';
import { editionOf } from '../../roster/modules.js';
import { compareVersions, floorOf } from '../../text/versions.js';
import { baseOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { ByHand, Change } from '../../edits/model.js';
import { placebookRules } from './by-hand-steps.js';
import { callSiteChanges, type CallSiteContext } from './call-sites.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';

// The wiring that all stacks share which build both platforms from one source.

/** The editions of the title that a tree builds, Android first. */
export function titleEditions({ title, survey }: Pick<WireContext, 'title' | 'survey'>): SurveyEdition[] {
  return platformNames.flatMap((platform) => editionOf(survey.editions, title, platform) ?? []);
}

/** Whether any of the networks to wire is used on a platform that the tree builds. */
export function isAnyEnrolled(context: WireContext): boolean {
  return titleEditions(context).some(({ platform }) =>
    context.profiles.some(({ id }) => isEnrolled(context.title, id, platform)),
  );
}

/** The platform under which a change for both is listed: the first on which the title uses the network. */
export function platformOf({ title, survey }: WireContext, network: string): Platform | undefined {
  return platformNames.find(
    (platform) =>
      isEnrolled(title, network, platform) &&
      survey.editions.some((edition) => edition.platform === platform),
  );
}

/** The change that takes a network's package out of a manifest that serves both platforms. */
export function packageRemoval(context: UnwireContext, path: string, edits: Edit[]): Change {
  const { id } = context.network;
  const platform = platformOf(context, id) ?? 'android';
  return { path, platform, network: id, topic: 'dependency', rules: [], kind: 'edit', edits };
}

/** The other platforms of the title that a tree builds, which a change of shared code is for as well. */
export function alsoFor(context: WireContext, platform: Platform): Platform[] {
  return titleEditions(context).flatMap((edition) =>
    edition.platform === platform ? [] : [edition.platform],
  );
}

/** Whether a range begins below a version, so that what is wired might not be what is built. */
export function beginsBelow(range: string, wanted: string): boolean {
  const floor = floorOf(range);
  return floor !== undefined && !/[<>]/.test(range) && compareVersions(floor, wanted) < 0;
}

/** A placebook that is in a tree. */
export interface ExistingPlacebook {
  path: string;
  text: string;
}

/** The placebook of one of the names among source files. */
export function placebookAmong(
  tree: Tree,
  paths: readonly string[],
  name: string,
): ExistingPlacebook | undefined {
  return paths
    .filter((path) => baseOf(path) === name)
    .map((path) => ({ path, text: tree.text(path)?.text ?? '' }))
    .find(({ text }) => text.slice(0, 400).includes(placebookMark));
}

/** How a stack writes its one placebook. */
interface SharedPlacebook {
  existing: ExistingPlacebook | undefined;
  /** Where it goes if there is none yet. */
  path: string;
  /** What holds in the builds of the test stage; undefined where the code cannot tell the stages apart. */
  testCondition: string | undefined;
  language: { placebook: Extract<PlacebookWriter, { scope: 'all' }> };
  /** What the language needs to know besides. */
  more?: Pick<SharedBookOptions, 'symbols' | 'namespace'>;
  /** What is left to a person where the code cannot tell the stages apart. */
  withoutCondition: ByHand;
}

/** The placebook of a stack: one file for both platforms and stages. */
export function wireSharedPlacebook(
  context: WireContext,
  { existing, path, testCondition, language, more, withoutCondition }: SharedPlacebook,
): StackWiring {
  const { title } = context;
  const editions = titleEditions(context);
  const texts = existing ? [existing.text] : [];
  const profiles = placebookProfiles(context.allProfiles, context.profiles, texts);
  const needed = editions.filter(({ platform }) => needsPlacebook(title, profiles, platform));
  // The native parts say which variants lack a stage, each for its own platform.
  const open = editions.some(({ variants }) => variants.some(({ stage }) => !stage));
  if (needed.length === 0 || open) return { changes: [], byHand: [] };
  if (testCondition === undefined) return { changes: [], byHand: [withoutCondition] };
  const books: SharedBooks = Object.fromEntries(
    editions.map(({ platform }) => [
      platform,
      {
        test: placebookContents(title, profiles, platform, 'test'),
        production: placebookContents(title, profiles, platform, 'production'),
      },
    ]),
  );
  const options = { title: title.name, revision: context.revision, testCondition, ...more };
  const [content = ''] = language.placebook.write(books, options);
  if (existing && isSameGeneratedText(existing.text, content)) return { changes: [], byHand: [] };
  const [first, ...others] = needed.map(({ platform }) => platform);
  const change: Change = {
    path: existing?.path ?? path,
    platform: first ?? 'android',
    also: others,
    network: null,
    topic: 'placebook',
    rules: placebookRules,
    kind: 'create',
    content,
  };
  return { changes: [change], byHand: [] };
}

/** The placebook without a network; none where nothing is left for it to say. */
export function unwireSharedPlacebook(
  context: UnwireContext,
  existing: ExistingPlacebook | undefined,
  wire: (context: WireContext) => StackWiring,
): Change[] {
  if (!existing) return [];
  const left = placebookProfiles(context.allProfiles, [], [existing.text]);
  const needed = titleEditions(context).some(({ platform }) => needsPlacebook(context.rest, left, platform));
  if (needed) return wire({ ...context, title: context.rest, profiles: [] }).changes;
  const { path } = existing;
  return [{ path, platform: 'android', network: null, topic: 'placebook', rules: [], kind: 'remove' }];
}

/** Where the start-up calls go that no code makes yet. */
export function startSteps(
  context: WireContext,
  {
    language,
    at,
    where,
    say,
  }: {
    language: LanguageName;
    at: string;
    where: string;
    say: (example: string) => string;
  },
): ByHand[] {
  const { title, survey, profiles } = context;
  const editions = titleEditions(context);
  return profiles.flatMap(({ id, name, code }): ByHand[] => {
    const start = code[language]?.start;
    const used = editions.some(({ platform }) => isEnrolled(title, id, platform));
    const called = survey.facts.some(
      (fact) => fact.kind === 'call' && fact.network === id && fact.action === 'start',
    );
    if (!start || start.in !== at || !used || called) return [];
    return [
      {
        platform: null,
        network: id,
        rule: 'code/never-started',
        what: say(start.example),
        why: `${start.why} (${name})`,
        where,
      },
    ];
  });
}

/**
 * IDs in code that both platforms compile, replaced by references to the placebook on request. One place
 * is a fact of both platforms, and is replaced once.
 */
export function sharedCallSites(
  tree: Tree,
  context: WireContext,
  how: Pick<CallSiteContext, 'languages' | 'packageName' | 'bookPath' | 'moduleFor' | 'canRefer'>,
): Change[] {
  const { title, profiles, survey, extras } = context;
  if (!extras.callSites) return [];
  return titleEditions(context).flatMap(({ platform, module }) =>
    callSiteChanges({ tree, platform, module, facts: survey.facts, title, profiles, ...how }),
  );
}
