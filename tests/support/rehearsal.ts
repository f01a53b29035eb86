import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import type { CheckContext, Finding, Rule } from '../../src/core/checks/model.js';
import type { FactOf } from '../../src/core/facts/model.js';
import type { TraceEvent } from '../../src/core/facts/trace.js';
import { recogniser } from '../../src/core/network/recognise.js';
import { samplesOf } from '../../src/core/network/samples.js';
import { appsOf } from '../../src/core/rehearsal/app/app.js';
import type { App } from '../../src/core/rehearsal/app/model.js';
import type { Answer, Question } from '../../src/core/rehearsal/device/questions.js';
import { rehearse } from '../../src/core/rehearsal/device/rehearse.js';
import { outcomes } from '../../src/core/rehearsal/outcome.js';
import type { Scenario } from '../../src/core/rehearsal/scenario/model.js';
import { readScenario } from '../../src/core/rehearsal/scenario/read.js';
import { rehearsalFindings } from '../../src/core/rehearsing.js';
import { runSurvey } from '../../src/core/surveying.js';
import { kelp, profiles as shipped, root, treeOf } from './trees.js';
import { worked, type FaultyCase, type RuleCase } from './rules.js';

/** A shipped scenario, with some of it changed. */
export function scenarioNamed(name: string, changes: Partial<Scenario> = {}): Scenario {
  const { scenario, problems } = readScenario(readFileSync(join(root, 'scenarios', `${name}.yaml`), 'utf8'));
  if (!scenario) throw new Error(JSON.stringify(problems));
  return { ...scenario, ...changes };
}

/** A network that has an ad for every request: a test ad for its samples. */
export const generous = (question: Question): Answer => {
  if (question.asks === 'event') return { is: 'noted' };
  const unit = shipped.find(({ id }) => id === question.network)?.ids.unit;
  const test = unit !== undefined && samplesOf(unit).some(({ id }) => id === question.unit);
  return { is: 'filled', ad: `${question.network}-${question.at}`, test };
};

export interface RehearsalSetting {
  scenario?: string;
  changes?: Partial<Scenario>;
  seed?: number;
  answer?: (question: Question) => Answer;
}

export interface Rehearsed {
  app: App;
  trace: readonly TraceEvent[];
  facts: FactOf<'rehearsed'>[];
}

/** What a check of a small tree goes by. */
export function contextOf({
  files,
  title = kelp(),
  inventories = [],
  profiles = shipped,
}: Pick<RuleCase, 'files' | 'title' | 'inventories' | 'profiles'>): CheckContext {
  const tree = treeOf(files as Record<string, string>);
  const named = title ? { id: 'kelp', title } : null;
  const { survey } = runSurvey(tree, { name: 'kelp', profiles, title: named });
  return {
    survey,
    profiles,
    recogniser: recogniser(profiles),
    title,
    titleId: 'kelp',
    inventories,
    now: '2026-06-01T12:00:00Z',
  };
}

/** Rehearses every variant of what a context is about. */
export function rehearseAll(
  context: CheckContext,
  { scenario = 'first-session', changes, seed = 1, answer = generous }: RehearsalSetting = {},
): Rehearsed[] {
  const wanted = scenarioNamed(scenario, changes);
  return appsOf(context).map((app) => {
    const { trace } = rehearse({ app, scenario: wanted, seed }, answer);
    return { app, trace, facts: outcomes(app, wanted, trace) };
  });
}

/** What the rules say of a rehearsal of a small tree. */
export function rehearsalFindingsOf(one: RuleCase & RehearsalSetting): Finding[] {
  const context = contextOf(one);
  return rehearsalFindings(
    context,
    rehearseAll(context, one).flatMap(({ facts }) => facts),
  );
}

/** Rehearses trees where a rule must be silent, and trees where it must speak; the advice must help. */
export function rehearsalCases(
  rule: Rule,
  { clean, faulty }: { clean: (RuleCase & RehearsalSetting)[]; faulty: (FaultyCase & RehearsalSetting)[] },
): void {
  const mine = (one: RuleCase & RehearsalSetting) =>
    rehearsalFindingsOf(one).filter((finding) => finding.rule === rule.meta.id);
  describe(rule.meta.id, () => {
    it.each(clean)('is silent: $name', (one) => {
      expect(mine(one).map(({ message }) => message)).toEqual([]);
    });
    it.each(faulty)('speaks: $name', (one) => {
      const found = mine(one);
      expect(found.map(({ message }) => message)).toHaveLength(one.findings.length);
      for (const [index, wanted] of one.findings.entries())
        expect(found[index]).toMatchObject({ severity: rule.meta.severity, ...wanted });
    });
    it('gives advice that helps', () => {
      const [first] = faulty.filter(({ byHand }) => byHand);
      expect(first).toBeDefined();
      if (!first?.byHand) return;
      const files = worked(first.files as Record<string, string>, first.byHand);
      expect(mine({ ...first, ...first.byHand, files }).map(({ message }) => message)).toEqual([]);
    });
  });
}
