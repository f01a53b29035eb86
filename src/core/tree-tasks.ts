import type { Reading } from './board/model.js';
import { summaryOf, withAcceptances, type Acceptance } from './checks/accepted.js';
import type { CheckContext, CheckReport, Finding } from './checks/model.js';
import { runChecks } from './checks/run.js';
import type { Declared } from './facts/declared.js';
import type { Fact, Survey, Unresolved } from './facts/model.js';
import type { InventoryReading } from './inventory/model.js';
import type { FactOf } from './facts/model.js';
import type { Profile } from './network/model.js';
import { appsOf, type RehearsalChoice } from './rehearsal/app/app.js';
import type { App } from './rehearsal/app/model.js';
import { rehearsalFindings } from './rehearsing.js';
import { isAskedFor, unmetNeeds, type Unmet } from './trying.js';
import { planWiring, withFixes, type Plan, type PlanOptions } from './planning.js';
import { comparedWith } from './roster/compared.js';
import type { Title } from './roster/model.js';
import { editionOf } from './roster/modules.js';
import { stacks } from './stacks/index.js';
import { runSurvey, type SurveyRun } from './surveying.js';
import type { Tree } from './tree/tree.js';
import type { TallyHistory } from './tally/history.js';
import { planUnwiring } from './unwiring.js';
import { platformNames } from './words/names.js';
import type { Compared } from './words/words.js';

/** A title as the work on a tree needs it. */
export interface NamedTitle {
  id: string;
  title: Title;
}

/** What every task is given besides the tree. */
export interface TaskSetting {
  /** The tree's name, for people. */
  name: string;
  profiles: readonly Profile[];
  /** Tells one set of profiles from another. */
  profilesVersion: number;
  title: NamedTitle | null;
  /** The revision of the record that the title was read from. */
  revision: number;
  /** What networks said of the title's IDs. */
  inventories: readonly InventoryReading[];
  /** Daily numbers of the title; undefined where there are none, and for tasks that need none. */
  tally?: TallyHistory | undefined;
  /** ISO 8601. */
  now: string;
  /** How much of a long answer is listed. */
  listed: { facts: number; findings: number };
}

/** A setting with a title. */
export type TitleSetting = TaskSetting & { title: NamedTitle };

/** A tree, with what was computed about it. */
export interface TaskTree {
  tree: Tree;
  /** The survey of the tree in a setting, made once. */
  run: (setting: TaskSetting) => SurveyRun;
}

/** The parts of a plan that are kept as a wiring. */
export type PlannedWiring = Omit<Plan, 'findings' | 'remaining'>;

/** What is done with a tree. Plain data goes in and comes out, so that it can be done in another thread. */
export const treeTasks = {
  /** The identifiers that the editions of the tree bear, each behind its platform: `android org.example.app`. */
  identifiers: ({ run }: TaskTree, setting: TaskSetting): string[] => {
    const { editions } = run({ ...setting, title: null }).survey;
    return editions.flatMap(({ platform, identifiers }) =>
      Object.values(identifiers).map((identifier) => `${platform} ${identifier}`),
    );
  },

  /** The names of the variants that the editions of a title have in the tree. */
  variants: ({ run }: TaskTree, setting: TitleSetting): string[] => {
    const { editions } = run(setting).survey;
    return [...new Set(editions.flatMap(({ variants }) => variants.map(({ name }) => name)))];
  },

  survey: ({ run }: TaskTree, setting: TaskSetting): Survey =>
    listedFacts(run(setting).survey, setting.listed.facts),

  /** The findings alone, without what was planned to fix them. */
  findings: ({ run }: TaskTree, setting: TaskSetting): Finding[] => checked(run(setting), setting).findings,

  /** Checks the tree; for a title also returns the last reading of each edition, for the board. */
  check: (
    { tree, run }: TaskTree,
    setting: TaskSetting,
    { snapshot, acceptances }: { snapshot: string; acceptances: readonly Acceptance[] },
  ): { report: CheckReport; readings: Reading[] } => {
    const { survey, context } = run(setting);
    const compared = comparedWith(survey.editions, setting.title?.title ?? null, context.profiles);
    if (!hasTitle(setting)) return { report: { ...checked(run(setting), setting), compared }, readings: [] };
    const plan = planWiring(tree, planOptions(setting), run(setting));
    const findings = withAcceptances(withFixes(plan), acceptances, setting.now);
    return {
      report: { title: setting.title.id, summary: summaryOf(findings), compared, findings },
      readings: readingsOf(run(setting), setting, { snapshot, findings }),
    };
  },

  wire: (
    { tree, run }: TaskTree,
    setting: TitleSetting,
    { choice, extras }: Pick<PlanOptions, 'choice' | 'extras'>,
  ): PlannedWiring => {
    const options = planOptions(setting);
    const { survey, context } = run(setting);
    return planned(
      comparedWith(survey.editions, setting.title.title, context.profiles),
      planWiring(
        tree,
        { ...options, ...(choice ? { choice } : {}), ...(extras ? { extras } : {}) },
        run(setting),
      ),
    );
  },

  unwire: (
    { tree, run }: TaskTree,
    setting: TitleSetting,
    { network, added }: { network: Profile; added: readonly string[] },
  ): PlannedWiring =>
    planned('title', planUnwiring(tree, { ...planOptions(setting), network, added }, run(setting))),

  /** The variants as a rehearsal lives through them. */
  apps: ({ run }: TaskTree, setting: TitleSetting, choice: RehearsalChoice): App[] =>
    appsOf(checkContext(run(setting), setting), choice),

  /** What the rules say of what a rehearsal saw. */
  rehearsed: (
    { run }: TaskTree,
    setting: TitleSetting,
    { seen }: { seen: readonly FactOf<'rehearsed'>[] },
  ): Finding[] => rehearsalFindings(checkContext(run(setting), setting), seen),

  /** What the build files declare that may belong to an SDK. */
  declared: ({ tree }: TaskTree): Declared[] =>
    stacks.flatMap((stack) => stack.recognise(tree).flatMap(({ root }) => stack.declared(tree, root))),

  /** What a profile that is not in use yet recognises in the tree, and what it requires that is missing. */
  tryProfile: (
    { tree }: TaskTree,
    { name }: TaskSetting,
    { profile }: { profile: Profile },
  ): {
    stacks: { stack: string; root: string }[];
    facts: Fact[];
    unresolved: Unresolved[];
    unmet: Unmet[];
  } => {
    const { survey } = runSurvey(tree, { name, profiles: [profile], title: null });
    return {
      stacks: survey.stacks.map(({ stack, root }) => ({ stack, root })),
      facts: survey.facts.filter((fact) => fact.network === profile.id || isAskedFor(profile, fact)),
      unresolved: survey.unresolved.filter(({ network }) => network === profile.id),
      unmet: unmetNeeds(profile, survey),
    };
  },
} as const;

export type TreeTasks = typeof treeTasks;
export type TreeTask = keyof TreeTasks;
export type TaskInput<Task extends TreeTask> = Parameters<TreeTasks[Task]>[2];
export type TaskOutput<Task extends TreeTask> = ReturnType<TreeTasks[Task]>;

function hasTitle(setting: TaskSetting): setting is TitleSetting {
  return setting.title !== null;
}

function checked(run: SurveyRun, setting: TaskSetting): CheckReport {
  return runChecks(checkContext(run, setting));
}

function checkContext(
  { survey, context }: SurveyRun,
  { title, inventories, tally, now }: TaskSetting,
): CheckContext {
  return {
    survey,
    profiles: context.profiles,
    recogniser: context.recogniser,
    title: title?.title ?? null,
    titleId: title?.id ?? null,
    inventories,
    tally,
    now,
  };
}

function planOptions({
  name,
  profiles,
  title,
  revision,
  inventories,
  tally,
  now,
}: TitleSetting): PlanOptions {
  return { name, profiles, title, revision, inventories: [...inventories], tally, now };
}

function planned(compared: Compared, { edits, groups, patch, byHand }: Plan): PlannedWiring {
  return { edits, groups, patch, byHand, compared };
}

/** A survey with a limited number of facts. */
function listedFacts(survey: Survey, most: number): Survey {
  const left = survey.facts.length - most;
  if (left <= 0) return survey;
  const message = `Partial list: ${left} more facts are not listed.`;
  const [{ path } = { path: survey.tree }] = survey.facts.slice(most).map(({ place }) => place);
  return {
    ...survey,
    facts: survey.facts.slice(0, most),
    problems: [{ path, line: 1, column: 1, kind: 'not-read', message }, ...survey.problems],
  };
}

/** A report with a limited number of findings, worst first. All findings are counted. */
export function listedFindings(report: CheckReport, most: number): CheckReport {
  const leftOut = report.findings.length - most;
  return leftOut <= 0 ? report : { ...report, findings: report.findings.slice(0, most), leftOut };
}

/** What a checked tree says of each edition of the title. */
function readingsOf(
  { survey }: SurveyRun,
  { title, now, listed }: TitleSetting,
  { snapshot, findings }: { snapshot: string; findings: readonly Finding[] },
): Reading[] {
  return platformNames.flatMap((platform): Reading[] => {
    const edition = editionOf(survey.editions, title.title, platform);
    if (!edition) return [];
    const mine = <Item extends { platform: string; module: string }>(items: readonly Item[]) =>
      items.filter((item) => item.platform === platform && item.module === edition.module);
    const about = findings.filter((finding) => finding.platform === platform || finding.platform === null);
    return [
      {
        platform,
        tree: survey.tree,
        snapshot,
        readAt: now,
        edition,
        facts: mine(survey.facts).slice(0, listed.facts),
        unresolved: mine(survey.unresolved),
        findings: about.slice(0, listed.findings).map(({ fix: _, ...finding }) => finding),
        summary: summaryOf(about),
      },
    ];
  });
}
