import type { Profile } from '../network/model.js';
import { recogniser } from '../network/recognise.js';
import type { Title } from '../roster/model.js';
import { stacks } from '../stacks/index.js';
import type { Stack, StackSurvey, SurveyContext } from '../stacks/stack.js';
import type { Tree } from '../tree/tree.js';
import type { Survey } from './model.js';

/** What a survey is made with. */
export interface SurveyOptions {
  /** The tree's name, for people. */
  name: string;
  profiles: readonly Profile[];
  title: { id: string; title: Title } | null;
  /** Called as work goes on: what is being read, and how much is done of how much. */
  progress?: (step: { doing: string; done: number; total: number }) => void;
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
  const context: SurveyContext = { profiles, recogniser: recogniser(profiles), title: title?.title ?? null };
  const recognised = stacks.flatMap((stack) => stack.recognise(tree).map((found) => ({ stack, ...found })));
  const total = recognised.length;
  const parts = recognised.map(({ stack, root }, done): SurveyedPart => {
    progress?.({ doing: `${stack.name} in ${root || 'the root'}`, done, total });
    return { stack, root, survey: stack.survey(tree, root, context) };
  });
  progress?.({ doing: 'done', done: total, total });
  const survey: Survey = {
    tree: name,
    title: title?.id ?? null,
    stacks: recognised.map(({ stack, root, evidence }) => ({ stack: stack.id, root, evidence })),
    editions: parts.flatMap((part) => part.survey.editions),
    facts: parts.flatMap((part) => part.survey.facts),
    unresolved: parts.flatMap((part) => part.survey.unresolved),
    problems: [...tree.problems].sort((a, b) =>
      a.path < b.path ? -1 : a.path > b.path ? 1 : a.line - b.line || a.column - b.column,
    ),
  };
  return { survey, parts, context };
}
