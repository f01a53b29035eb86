import { noExtras } from '../../src/core/edits/model.js';
import { planWiring, withFixes } from '../../src/core/planning.js';
import { describe, expect, it } from 'vitest';
import { runChecks } from '../../src/core/checks/run.js';
import type { CheckContext, Finding, Rule } from '../../src/core/checks/model.js';
import type { InventoryReading } from '../../src/core/inventory/model.js';
import { recogniser } from '../../src/core/network/recognise.js';
import type { Title } from '../../src/core/roster/model.js';
import { runSurvey } from '../../src/core/surveying.js';
import type { Tree } from '../../src/core/tree/tree.js';
import type { Profile } from '../../src/core/network/model.js';
import { kelp, profiles as shipped, treeOf } from './trees.js';

export interface RuleCase {
  name: string;
  files: Record<string, string> | Tree;
  /** The title that the tree is compared with; null for none. */
  title?: Title | null;
  /** What was read of the networks' lists. */
  inventories?: readonly InventoryReading[];
  /** The profiles; those that ship when it is left out. */
  profiles?: readonly Profile[];
}

export interface FaultyCase extends RuleCase {
  /** One entry per finding, in order: what must hold of it. */
  findings: Partial<Finding>[];
  /** What somebody does who follows the advice, where wiring does not do it: the findings are gone then. */
  byHand?: HandWork;
}

/** Work by hand: edits of files, files to take away, another title, other lists. */
export interface HandWork extends Partial<Pick<RuleCase, 'title' | 'inventories' | 'profiles'>> {
  /** In a file, what becomes of a text; of a new file there is no text before. */
  edits?: readonly (readonly [path: string, before: string, after: string])[];
  removes?: readonly string[];
}

/** The files after work by hand; a text that is not there is an error of the case. */
export function worked(
  files: Record<string, string>,
  { edits = [], removes = [] }: HandWork,
): Record<string, string> {
  const after = new Map(Object.entries(files));
  for (const path of removes) if (!after.delete(path)) throw new Error(`There is no ${path}.`);
  for (const [path, before, to] of edits) {
    const text = after.get(path) ?? '';
    if (!text.includes(before) || (before === '' && text !== ''))
      throw new Error(`${JSON.stringify(before)} is not in ${path}:\n${text}`);
    after.set(path, before === '' ? to : text.replaceAll(before, () => to));
  }
  return Object.fromEntries(after);
}

const asTree = (files: Record<string, string> | Tree): Tree =>
  'paths' in files && typeof files.read === 'function'
    ? (files as Tree)
    : treeOf(files as Record<string, string>);

/** All findings of a tree. */
export function findingsOf(
  files: Record<string, string> | Tree,
  title: Title | null = kelp(),
  only?: Rule,
  {
    inventories = [],
    now = '2026-06-01T12:00:00Z',
    profiles = shipped,
  }: Partial<Pick<CheckContext, 'inventories' | 'now' | 'profiles'>> = {},
): Finding[] {
  const tree = asTree(files);
  const named = title ? { id: 'kelp', title } : null;
  const { survey } = runSurvey(tree, { name: 'kelp', profiles, title: named });
  const context = {
    survey,
    profiles,
    recogniser: recogniser(profiles),
    title,
    titleId: title ? 'kelp' : null,
    inventories,
    now,
  };
  return runChecks(context, only ? [only] : undefined).findings;
}

/** Runs one rule over trees where it must be silent and trees where it must speak. */
export function ruleCases(rule: Rule, { clean, faulty }: { clean: RuleCase[]; faulty: FaultyCase[] }): void {
  describe(rule.meta.id, () => {
    const names = [...clean, ...faulty].map(({ name }) => name);
    it('has cases of both kinds, none twice', () => {
      expect(clean.length).toBeGreaterThan(0);
      expect(faulty.length).toBeGreaterThan(0);
      expect(new Set(names).size).toBe(names.length);
      const contents = [...clean, ...faulty].map(({ files, title, inventories, profiles }) =>
        JSON.stringify([files, title, inventories, profiles]),
      );
      expect(new Set(contents).size).toBe(contents.length);
    });
    it.each(clean)('is silent: $name', ({ files, title = kelp(), inventories = [], profiles = shipped }) => {
      expect(findingsOf(files, title, rule, { inventories, profiles })).toEqual([]);
    });
    it('gives advice that helps, to wire or to do something by hand', () => {
      expect(faulty.some((one) => helps(rule, one))).toBe(true);
    });
    it.each(faulty)(
      'speaks: $name',
      ({ files, title = kelp(), inventories = [], profiles = shipped, findings }) => {
        const found = findingsOf(files, title, rule, { inventories, profiles });
        expect(found).toHaveLength(findings.length);
        for (const [index, wanted] of findings.entries())
          expect(found[index]).toMatchObject({ rule: rule.meta.id, severity: rule.meta.severity, ...wanted });
        if (title) advisesWhatHelps(files, title, rule.meta.id, { inventories, profiles });
      },
    );
  });
}

/** Whether following the advice makes a finding go: what a case says is done by hand, or what wiring does. */
function helps(
  rule: Rule,
  { files, title = kelp(), inventories = [], profiles = shipped, byHand }: FaultyCase,
): boolean {
  if (byHand) {
    const after = { inventories, profiles, ...byHand };
    const left = findingsOf(
      worked(files as Record<string, string>, byHand),
      byHand.title ?? title,
      rule,
      after,
    );
    expect(left.map(({ message }) => message)).toEqual([]);
    return true;
  }
  if (!title) return false;
  const now = '2026-06-01T12:00:00Z';
  const options = { name: 'kelp', title: { id: 'kelp', title }, now, inventories, profiles };
  const tree = asTree(files);
  const all = { ...noExtras, callSites: true, levels: true };
  const { findings, remaining } = planWiring(tree, { ...options, extras: all });
  const mine = findings.filter((one) => one.rule === rule.meta.id);
  return mine.some(({ fingerprint }) => !remaining.some((one) => one.fingerprint === fingerprint));
}

/** Advice that names a command is followed: wiring with what it asks for leaves no such finding at that place. */
function advisesWhatHelps(
  files: Record<string, string> | Tree,
  title: Title,
  rule: string,
  given: Pick<CheckContext, 'inventories' | 'profiles'>,
): void {
  const tree = asTree(files);
  const options = { name: 'kelp', title: { id: 'kelp', title }, now: '2026-06-01T12:00:00Z', ...given };
  const extras = { callSites: { callSites: true }, levels: { levels: true } };
  const plain = planWiring(tree, options);
  for (const finding of withFixes(plain).filter((one) => one.rule === rule)) {
    const isLeft = plain.remaining.some(({ fingerprint }) => fingerprint === finding.fingerprint);
    if (finding.fix) expect([finding.mend, isLeft]).toEqual([finding.mend, false]);
    const asked = /--call-sites/.test(finding.mend)
      ? extras.callSites
      : /--raise-sdk/.test(finding.mend)
        ? extras.levels
        : undefined;
    if (!asked) continue;
    const { remaining } = planWiring(tree, { ...options, extras: { ...noExtras, ...asked } });
    const left = remaining.filter(({ fingerprint }) => fingerprint === finding.fingerprint);
    expect([finding.mend, left.map(({ message }) => message)]).toEqual([finding.mend, []]);
  }
}
