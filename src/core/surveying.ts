import type { OnProgress } from './text/progress.js';
import { platformNames } from './words/names.js';
import type { Profile } from './network/model.js';
import { recogniser } from './network/recognise.js';
import { recordedIds } from './roster/expected.js';
import type { Title } from './roster/model.js';
import { stacks } from './stacks/index.js';
import type { Stack, StackSurvey } from './stacks/stack.js';
import type { SurveyContext } from './roster/survey-context.js';
import { isWithin } from './text/paths.js';
import type { Tree } from './tree/tree.js';
import { surveyVersion, type Survey, type SurveyEdition } from './facts/model.js';
import { editionOf } from './roster/modules.js';

/** What a survey is made with. */
export interface SurveyOptions {
  /** The tree's name, for people. */
  name: string;
  profiles: readonly Profile[];
  title: { id: string; title: Title } | null;
  /** Called as work goes on: what is being read, and how much is done of how much. */
  progress?: OnProgress | undefined;
}

/** One part of a tree, with the stack that reads it. */
export interface SurveyedPart {
  stack: Stack;
  root: string;
  survey: StackSurvey;
}

export interface SurveyRun {
  survey: Survey;
  parts: SurveyedPart[];
  context: SurveyContext;
}

/** Surveys a tree with every stack that recognises some of it. */
export function runSurvey(tree: Tree, { name, profiles, title, progress }: SurveyOptions): SurveyRun {
  const context: SurveyContext = {
    profiles,
    recogniser: recogniser(profiles, title ? recordedIds(title.title, profiles) : []),
    title: title?.title ?? null,
  };
  const { recognised, passedOver } = recognise(tree);
  const total = recognised.length;
  const parts = recognised.map(({ stack, root }, done): SurveyedPart => {
    progress?.({ doing: `${stack.name} in ${root || 'the root'}`, done, total });
    return { stack, root, survey: stack.survey(tree, root, context) };
  });
  progress?.({ doing: 'comparing what was read', done: total, total });
  const survey: Survey = {
    version: surveyVersion,
    tree: name,
    title: title?.id ?? null,
    stacks: recognised.map(({ stack, root, evidence }) => ({ stack: stack.id, root, evidence })),
    passedOver,
    ...qualifyModules(parts),
    problems: [...tree.problems].sort((a, b) =>
      a.path < b.path ? -1 : a.path > b.path ? 1 : a.line - b.line || a.column - b.column,
    ),
  };
  return { survey, parts: ofTitle(parts, survey, title?.title ?? null), context };
}

/** Every part of a tree with the stack that reads it. What belongs to another part, or is an example, is none. */
function recognise(tree: Tree) {
  const found = stacks.flatMap((stack) => stack.recognise(tree).map((one) => ({ stack, ...one })));
  const owned = new Set(found.flatMap(({ parts = [] }) => parts));
  const examples = found.filter(({ passedOver }) => passedOver !== undefined);
  const recognised = found.filter(
    ({ root, passedOver }) =>
      passedOver === undefined && !owned.has(root) && !examples.some((one) => isWithin(root, one.root)),
  );
  const passedOver = examples.map(({ root, passedOver: why = '' }) => ({ root, why }));
  return { recognised, passedOver };
}

/** What the parts found, together. Where two call a module by one name, it is distinguished by the folder. */
function qualifyModules(parts: readonly SurveyedPart[]): StackSurvey {
  const holders = new Map<string, Set<string>>();
  const key = ({ platform, module }: { platform: string; module: string }) => `${platform} ${module}`;
  for (const { root, survey } of parts)
    for (const edition of survey.editions)
      holders.set(key(edition), (holders.get(key(edition)) ?? new Set()).add(root));
  const renamed = <Item extends { platform: 'android' | 'ios'; module: string }>(
    root: string,
    items: Item[],
  ) =>
    items.map((item) =>
      (holders.get(key(item))?.size ?? 0) > 1 ? { ...item, module: `${root || '.'}:${item.module}` } : item,
    );
  return {
    editions: parts.flatMap(({ root, survey }) => renamed(root, survey.editions)),
    facts: parts.flatMap(({ root, survey }) => renamed(root, survey.facts)),
    unresolved: parts.flatMap(({ root, survey }) => renamed(root, survey.unresolved)),
  };
}

/** Of several parts, each is left with the editions that are the title's own: what is wired is one of each platform. */
function ofTitle(parts: readonly SurveyedPart[], { editions }: Survey, title: Title | null): SurveyedPart[] {
  if (!title || parts.length < 2) return [...parts];
  const own = platformNames.map((platform) => editionOf(editions, title, platform));
  return parts.map((part) => ({
    ...part,
    survey: {
      ...part.survey,
      editions: part.survey.editions.filter((edition) =>
        own.some((one) => one?.platform === edition.platform && samePlace(one, edition)),
      ),
    },
  }));
}

function samePlace({ home: a }: SurveyEdition, { home: b }: SurveyEdition): boolean {
  return a.path === b.path && a.line === b.line && a.column === b.column;
}
