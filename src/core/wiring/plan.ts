import { runChecks } from '../checks/run.js';
import type { CheckContext, Finding } from '../checks/model.js';
import type { Title } from '../roster/model.js';
import { runSurvey, type SurveyOptions, type SurveyRun } from '../survey/run.js';
import { editBetween, applyEdits, sortEdits, EditOverlapError, type Edit } from '../text/edit.js';
import { encodeText, textDocument } from '../text/document.js';
import { unifiedPatch } from '../text/patch.js';
import { Tree } from '../tree/tree.js';
import type { ByHand, Change, FileEdit, Wiring } from './model.js';

/** What a wiring is planned with. */
export interface PlanOptions extends SurveyOptions {
  title: { id: string; title: Title };
  inventories?: CheckContext['inventories'];
  now?: string;
}

export interface Plan extends Wiring {
  /** The findings before, and those that the edits leave. */
  findings: Finding[];
  remaining: Finding[];
}

/** One file as wiring would leave it. */
interface Outcome {
  path: string;
  before: string | null;
  after: string;
  changes: Change[];
  edits: Edit[];
}

/**
 * Plans the edits that make a tree agree with a title. The edits are tried on a copy, which is surveyed and
 * checked again: a rule counts as mended by an edit only when its finding is gone.
 */
export function planWiring(
  tree: Tree,
  options: PlanOptions,
  run: SurveyRun = runSurvey(tree, options),
): Plan {
  const { title } = options.title;
  const parts = run.parts.map(({ stack, root, survey }) =>
    stack.wire(tree, root, { ...run.context, title, survey }),
  );
  const outcomes = mergeChanges(
    tree,
    parts.flatMap(({ changes }) => changes),
  );
  const findings = check(run, options);
  const remaining =
    outcomes.length === 0
      ? findings
      : check(runSurvey(wired(tree, outcomes), { ...options, progress: undefined }), options);
  const left = new Set(remaining.map(({ fingerprint }) => fingerprint));
  const mended = findings.filter(({ fingerprint }) => !left.has(fingerprint));
  const edits = outcomes.map((outcome) => fileEdit(tree, outcome, mended));
  return {
    edits,
    patch: unifiedPatch(outcomes),
    byHand: steps(
      parts.flatMap(({ byHand }) => byHand),
      remaining,
    ),
    findings,
    remaining,
  };
}

function check(
  { survey, context }: SurveyRun,
  { title, profiles, inventories = [], now = '' }: PlanOptions,
): Finding[] {
  return runChecks({
    survey,
    profiles,
    recogniser: context.recogniser,
    title: title.title,
    titleId: title.id,
    inventories,
    now,
  }).findings;
}

/** Puts the changes of each file together. Equal edits count once; an overlap is an error that names both. */
function mergeChanges(tree: Tree, changes: readonly Change[]): Outcome[] {
  const byPath = new Map<string, Change[]>();
  for (const change of changes) byPath.set(change.path, [...(byPath.get(change.path) ?? []), change]);
  return [...byPath]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([path, mine]): Outcome[] => {
      const document = tree.text(path);
      const content = mine.find((change) => change.content !== undefined)?.content;
      const before = document?.text ?? null;
      const edits = before === null ? [] : uniqueEdits(mine.flatMap((change) => change.edits ?? []));
      if (
        content !== undefined &&
        mine.some((change) => change.content !== undefined && change.content !== content)
      ) {
        throw new Error(`Two parts of the wiring want to write ${path} differently.`);
      }
      const owned = content !== undefined && document ? content.replace(/\n/g, document.lineEnd) : content;
      const whole = owned !== undefined && before !== null ? editBetween(before, owned) : undefined;
      const all = owned === undefined ? edits : whole ? [whole] : [];
      let after: string;
      try {
        after = before === null ? (owned ?? '') : applyEdits(before, all);
      } catch (error) {
        if (error instanceof EditOverlapError)
          throw new Error(`In ${path}: ${error.message}`, { cause: error });
        throw error;
      }
      return after === before ? [] : [{ path, before, after, changes: mine, edits: sortEdits(all) }];
    });
}

function uniqueEdits(edits: readonly Edit[]): Edit[] {
  const seen = new Set<string>();
  return edits.filter((edit) => {
    const key = JSON.stringify([edit.start, edit.end, edit.text]);
    return seen.has(key) ? false : seen.add(key);
  });
}

/** The tree as it would be with the edits applied. */
function wired(tree: Tree, outcomes: readonly Outcome[]): Tree {
  const changed = new Map(outcomes.map(({ path, after }) => [path, after]));
  const kept = tree.paths.filter((path) => !changed.has(path)).flatMap((path) => tree.file(path) ?? []);
  const fresh = [...changed].map(([path, text]) => ({
    path,
    hash: '',
    bytes: encodeText(text, tree.text(path) ?? textDocument('')),
  }));
  return new Tree([...kept, ...fresh], tree.folders, tree.skipped);
}

function fileEdit(
  tree: Tree,
  { path, before, after, changes, edits }: Outcome,
  mended: readonly Finding[],
): FileEdit {
  const rules = new Set<string>();
  for (const finding of mended) {
    const mends = changes.some(
      ({ rules: may, platform, network }) =>
        may.includes(finding.rule) &&
        platform === finding.platform &&
        (network === null || finding.network === null || network === finding.network),
    );
    if (mends) rules.add(finding.rule);
  }
  return {
    path,
    rules: [...rules].sort(),
    networks: [...new Set(changes.flatMap(({ network }) => network ?? []))].sort(),
    platforms: [...new Set(changes.map(({ platform }) => platform))].sort(),
    before: before === null ? null : (tree.file(path)?.hash ?? null),
    edits,
    content: before === null ? after : null,
  };
}

/** What is left to a person: what the stacks said, then every finding that no edit mends. */
function steps(said: readonly ByHand[], remaining: readonly Finding[]): ByHand[] {
  const spoken = new Set(said.map(({ rule, network, platform }) => `${rule} ${network} ${platform}`));
  const fromFindings = remaining
    .filter(
      ({ severity, rule, network, platform }) =>
        severity !== 'note' && !spoken.has(`${rule} ${network} ${platform}`),
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

/** Findings with the edits that would mend each. */
export function withFixes({ findings, edits, remaining }: Plan): Finding[] {
  const left = new Set(remaining.map(({ fingerprint }) => fingerprint));
  return findings.map((finding) => {
    if (left.has(finding.fingerprint)) return finding;
    const mine = edits.filter(
      ({ rules, platforms, networks }) =>
        rules.includes(finding.rule) &&
        (finding.platform === null || platforms.includes(finding.platform)) &&
        (finding.network === null || networks.length === 0 || networks.includes(finding.network)),
    );
    if (mine.length === 0) return finding;
    return {
      ...finding,
      fix: {
        edits: mine.flatMap(({ path, edits: own }) => own.map((edit) => ({ path, ...edit }))),
        content: mine.flatMap(({ path, content }) => (content === null ? [] : [{ path, text: content }])),
      },
    };
  });
}
