import { ruleNamed } from './checks/rules/index.js';
import { runChecks } from './checks/run.js';
import type { CheckContext, Finding } from './checks/model.js';
import type { Title } from './roster/model.js';
import { neededBy } from './roster/needed.js';
import type { StackWiring } from './stacks/stack.js';
import { runSurvey, type SurveyOptions, type SurveyRun } from './surveying.js';
import { unifiedPatch } from './text/patch.js';
import type { Tree } from './tree/tree.js';
import { chosen, groupOf, narrowed } from './wiring/choose.js';
import {
  noExtras,
  topics,
  type ByHand,
  type Change,
  type FileEdit,
  type Wiring,
  type WiringChoice,
  type WiringExtras,
  type WiringGroup,
} from './edits/model.js';
import { mergeChanges, treeWith, type Outcome } from './wiring/outcomes.js';
import { brokenSteps, harmfulGroups, newProblems, refusedSteps, type NewProblem } from './wiring/readable.js';
import { groupBy } from './text/group-by.js';

/** What a wiring is planned with. */
export interface PlanOptions extends SurveyOptions {
  title: { id: string; title: Title };
  inventories?: CheckContext['inventories'];
  tally?: CheckContext['tally'];
  now?: string;
  /** The revision of the record that the title was read from. */
  revision?: number;
  choice?: Partial<WiringChoice>;
  extras?: WiringExtras;
}

export interface Plan extends Wiring {
  /** The findings before, and those that the edits leave. */
  findings: Finding[];
  remaining: Finding[];
}

/**
 * Plans the edits that make a tree agree with a title. The edits are tried on a copy, which is surveyed and
 * checked again: a rule counts as fixed by an edit only when its finding is gone.
 */
export function planWiring(
  tree: Tree,
  options: PlanOptions,
  run: SurveyRun = runSurvey(tree, options),
): Plan {
  const { title } = options.title;
  const choice = options.choice ?? {};
  const needed = run.context.profiles.map((profile) => neededBy(title, profile));
  const profiles = chosen(needed, choice.networks);
  const parts = run.parts.map(({ stack, root, survey }) =>
    stack.wire(tree, root, {
      ...run.context,
      profiles,
      allProfiles: needed,
      title,
      survey,
      extras: options.extras ?? noExtras,
      revision: options.revision,
    }),
  );
  const findings = check(run, options);
  const broken = new Map<string, ByHand>();
  const trial = (changes: readonly Change[]) => {
    const { outcomes, after, dropped } = readably(tree, changes, run, options);
    for (const step of brokenSteps(dropped)) broken.set(step.what, step);
    return { outcomes, remaining: after ? check(after, options) : findings };
  };
  const all = parts.flatMap(({ changes }) => changes);
  const { outcomes, remaining } = narrowed(all, choice, findings, trial);
  const told = { changes: [], byHand: [...broken.values()] };
  return finish(tree, { titleId: options.title.id, outcomes, findings, remaining, parts: [...parts, told] });
}

/**
 * Changes tried on a copy of a tree. Whatever would give a file a problem that it does not have is dropped, with its
 * whole group: an edit that cannot be read again is a fault of ours, and must never reach a tree.
 */
export function readably(
  tree: Tree,
  changes: readonly Change[],
  { survey: { problems } }: SurveyRun,
  options: SurveyOptions,
): { outcomes: Outcome[]; after: SurveyRun | undefined; dropped: NewProblem[] } {
  const attempt = (some: readonly Change[]) => {
    const outcomes = mergeChanges(tree, some);
    if (outcomes.length === 0) return { outcomes, after: undefined, fresh: [] };
    const after = runSurvey(treeWith(tree, outcomes), { ...options, progress: undefined });
    const changed = new Set(outcomes.map(({ path }) => path));
    const fresh = newProblems(problems, after.survey.problems).filter(({ path }) => changed.has(path));
    return { outcomes, after, fresh };
  };
  const dropped: NewProblem[] = [];
  let left = changes;
  for (;;) {
    const { outcomes, after, fresh } = attempt(left);
    if (fresh.length === 0) return { outcomes, after, dropped };
    dropped.push(...fresh);
    const paths = new Set(fresh.map(({ path }) => path));
    const harmful = harmfulGroups(left, paths, (group) => attempt(group).fresh.length > 0);
    left = left.filter((change) => !harmful.has(groupOf(change)));
  }
}

/** Edits, groups and patch of a wiring that was tried. */
export function finish(
  tree: Tree,
  given: {
    titleId: string;
    outcomes: readonly Outcome[];
    findings: Finding[];
    remaining: Finding[];
    parts: readonly StackWiring[];
  },
): Plan {
  const { titleId, findings, remaining, parts } = given;
  const outcomes = given.outcomes.filter(({ before, after, source }) => source || before !== after);
  const left = new Set(remaining.map(({ fingerprint }) => fingerprint));
  const mended = findings.filter(({ fingerprint }) => !left.has(fingerprint));
  return {
    edits: outcomes.map((outcome) => fileEdit(tree, outcome, mended)),
    groups: groupsOf(tree, outcomes, mended),
    patch: unifiedPatch(outcomes.filter(({ source }) => !source)),
    byHand: steps(
      [
        ...parts.flatMap(({ byHand }) => byHand),
        ...refusedSteps(given.outcomes.flatMap(({ refused }) => refused)),
      ].map((step) => forTitle(step, titleId)),
      remaining,
    ),
    findings,
    remaining,
  };
}

/** A step whose commands name the title: stacks write `{title}` for it. */
function forTitle(step: ByHand, titleId: string): ByHand {
  const named = (text: string) => text.replaceAll('{title}', titleId);
  return { ...step, what: named(step.what), where: step.where === null ? null : named(step.where) };
}

/** The findings of a surveyed tree, compared with a title. */
export function check(
  { survey, context }: SurveyRun,
  { title, profiles, inventories = [], tally, now = '' }: PlanOptions,
): Finding[] {
  return runChecks({
    survey,
    profiles,
    recogniser: context.recogniser,
    title: title.title,
    titleId: title.id,
    inventories,
    tally,
    now,
  }).findings;
}

/** Of the rules that changes may fix, those that they did. */
function mendedRules(changes: readonly Change[], mended: readonly Finding[]): string[] {
  const rules = new Set<string>();
  for (const finding of mended) {
    const mends = changes.some(
      ({ rules: may, platform, also = [], network }) =>
        may.includes(finding.rule) &&
        (finding.platform === null || [platform, ...also].includes(finding.platform)) &&
        (network === null || finding.network === null || network === finding.network),
    );
    if (mends) rules.add(finding.rule);
  }
  return [...rules].sort();
}

function fileEdit(
  tree: Tree,
  { path, before, after, changes, edits, source }: Outcome,
  mended: readonly Finding[],
): FileEdit {
  const file = tree.file(path);
  return {
    path,
    rules: mendedRules(changes, mended),
    networks: [...new Set(changes.flatMap(({ network }) => network ?? []))].sort(),
    platforms: [...new Set(changes.flatMap(({ platform, also = [] }) => [platform, ...also]))].sort(),
    before: file?.hash ?? null,
    edits,
    content: before === null ? after : null,
    source: source ?? null,
    remove: after === null && source === undefined,
    adds: [...new Set(changes.flatMap(({ adds }) => adds ?? []))].sort(),
  };
}

function groupsOf(tree: Tree, outcomes: readonly Outcome[], mended: readonly Finding[]): WiringGroup[] {
  const changes = outcomes.flatMap(({ changes }) => changes);
  return [...groupBy(changes, groupOf)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([id, changes]): WiringGroup[] => {
      const [first] = changes;
      if (!first) return [];
      const { platform, network, topic } = first;
      const own = mergeChanges(tree, changes);
      return [
        {
          id,
          platform,
          network,
          topic,
          label: topics[topic],
          rules: mendedRules(changes, mended),
          paths: own.map(({ path }) => path),
          patch: unifiedPatch(own.filter(({ source }) => !source)),
        },
      ];
    });
}

/** What is left to a person: what the stacks said, then every finding that no edit fixes. */
function steps(said: readonly ByHand[], remaining: readonly Finding[]): ByHand[] {
  const spoken = new Set(said.map(({ rule, network, platform }) => `${rule} ${network} ${platform}`));
  const fromFindings = remaining
    .filter(
      ({ severity, rule, network, platform }) =>
        severity !== 'note' &&
        !spoken.has(`${rule} ${network} ${platform}`) &&
        !spoken.has(`${rule} ${network} null`),
    )
    .map(({ rule, platform, network, message, mend, place }) => ({
      platform,
      network,
      rule,
      what: mend,
      why: message,
      where: place && `${place.path}:${place.line}`,
    }));
  return [...said, ...fromFindings];
}

/** Findings with the edits that would fix each; what wiring leaves to a person says what that person does. */
export function withFixes({ findings, edits, remaining, byHand }: Plan): Finding[] {
  const left = new Map(remaining.map((finding) => [finding.fingerprint, finding]));
  return findings.map((finding) => {
    const after = left.get(finding.fingerprint);
    if (after) {
      const steps = byHand.filter(
        ({ rule, platform, network }) =>
          rule === finding.rule && platform === finding.platform && network === finding.network,
      );
      const step = steps.find(({ what }) => what === after.mend) ?? steps[0];
      return step ? { ...finding, mend: step.what } : finding;
    }
    const meant = edits.filter(
      ({ rules, platforms, networks }) =>
        rules.includes(finding.rule) &&
        (finding.platform === null || platforms.includes(finding.platform)) &&
        (finding.network === null || networks.length === 0 || networks.includes(finding.network)),
    );
    // It may go with what is done in its file for another rule. Where no edit meets it, another finding took its place.
    const there = edits.filter(({ path }) => path === finding.place?.path);
    const mine = meant.length > 0 ? meant : there;
    if (mine.length === 0) return finding;
    return {
      ...finding,
      mend: ruleNamed(finding.rule)?.meta.byWiring ?? finding.mend,
      fix: {
        edits: mine.flatMap(({ path, edits: own }) => own.map((edit) => ({ path, ...edit }))),
        content: mine.flatMap(({ path, content }) => (content === null ? [] : [{ path, text: content }])),
      },
    };
  });
}
