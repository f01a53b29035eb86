import { platformNames } from '../core/words/names.js';
import type { Reading } from '../core/board/model.js';
import { summaryOf, withAcceptances } from '../core/checks/accepted.js';
import { runChecks } from '../core/checks/run.js';
import type { CheckReport } from '../core/checks/model.js';
import { languagesOf } from '../core/code/languages/index.js';
import type { Profile } from '../core/network/model.js';
import type { Title } from '../core/roster/model.js';
import { heldIds } from '../core/roster/validate.js';
import { editionOf } from '../core/roster/modules.js';
import { runSurvey, type SurveyOptions, type SurveyRun } from '../core/surveying.js';
import type { Tree } from '../core/tree/tree.js';
import { planWiring, withFixes, type Plan, type PlanOptions } from '../core/planning.js';
import { planUnwiring } from '../core/unwiring.js';
import type { ServiceContext } from './context.js';
import { ServiceError } from './errors.js';

/** A title as the work on a tree needs it. */
export interface NamedTitle {
  id: string;
  title: Title;
}

/** Whether two lists hold the very same things. */
function areSame(one: readonly unknown[], other: readonly unknown[]): boolean {
  return one.length === other.length && one.every((item, at) => item === other[at]);
}

/** A snapshot with what it says. */
interface Surveyed {
  name: string;
  tree: Tree;
  run: SurveyRun;
}

/** Surveys, checks and wirings of snapshots; remembers each edition's last reading for the board. */
export class TreeWork {
  /** What was surveyed last: commands and pages ask several things of one snapshot in a row. */
  #last: { keys: string[]; profiles: readonly Profile[]; surveyed: Surveyed } | null = null;

  constructor(private readonly context: ServiceContext) {}

  async survey(
    snapshot: string,
    titleId: string | null,
    progress?: SurveyOptions['progress'],
  ): Promise<SurveyRun> {
    return (await this.surveyed(snapshot, titleId, progress)).run;
  }

  /** A snapshot with what it says; without a title the one is looked for whose identifiers it bears. */
  private async surveyed(
    snapshot: string,
    titleId: string | null,
    progress?: SurveyOptions['progress'],
  ): Promise<Surveyed> {
    const revision = this.context.roster.revision();
    const keyOf = (title: string | null) => JSON.stringify([snapshot, title, revision]);
    const profiles = this.profiles();
    const last = this.#last;
    if (last?.keys.includes(keyOf(titleId)) && areSame(last.profiles, profiles)) return last.surveyed;
    // Two large trees need not be held at once.
    this.#last = null;
    const surveyed = await this.surveyAnew(snapshot, titleId, profiles, progress);
    // With its title found it is what it would be with its title named.
    this.#last = { keys: [keyOf(titleId), keyOf(surveyed.run.survey.title)], profiles, surveyed };
    return surveyed;
  }

  private async surveyAnew(
    snapshot: string,
    titleId: string | null,
    profiles: readonly Profile[],
    progress?: SurveyOptions['progress'],
  ): Promise<Surveyed> {
    const { name, tree } = await this.context.trees.tree(snapshot);
    const named = titleId === null ? null : this.title(titleId);
    const survey = (title: NamedTitle | null, progress?: SurveyOptions['progress']) =>
      runSurvey(tree, { name, profiles, title, progress });
    const run = survey(named, progress);
    const title = named ? null : this.titleByIdentifiers(run);
    return { name, tree, run: title ? survey(title) : run };
  }

  /** What a snapshot says by itself, whatever titles there are. */
  async openSurvey(snapshot: string): Promise<SurveyRun['survey']> {
    const { name, tree } = await this.context.trees.tree(snapshot);
    const profiles = this.profiles();
    return runSurvey(tree, { name, profiles, title: null }).survey;
  }

  /** Checks a snapshot; with an earlier one to compare with, only what is new since is reported. */
  async check(snapshot: string, titleId: string | null, against: string | null = null): Promise<CheckReport> {
    const report = { ...(await this.checkWhole(snapshot, titleId)), snapshot };
    if (against === null) return report;
    const earlier = this.context.trees.snapshotId(against);
    const before = await this.findings(earlier, report.title);
    const known = new Set(before.map(({ fingerprint }) => fingerprint));
    const findings = report.findings.filter(({ fingerprint }) => !known.has(fingerprint));
    const stayed = report.findings.length - findings.length;
    return {
      ...report,
      summary: summaryOf(findings),
      findings,
      against: { snapshot: earlier, known: stayed },
    };
  }

  /** The findings of a snapshot, without remembering them as the last reading. */
  private async findings(snapshot: string, titleId: string | null): Promise<CheckReport['findings']> {
    if (titleId !== null) return (await this.plan(snapshot, this.title(titleId))).findings;
    const { survey, context } = await this.survey(snapshot, null);
    const empty = { title: null, titleId: null, inventories: [], now: this.context.now().toISOString() };
    return runChecks({ survey, profiles: context.profiles, recogniser: context.recogniser, ...empty })
      .findings;
  }

  private async checkWhole(snapshot: string, titleId: string | null): Promise<CheckReport> {
    const { name, tree, run } = await this.surveyed(snapshot, titleId);
    const title = run.survey.title === null ? null : this.title(run.survey.title);
    if (!title) {
      const { survey, context } = run;
      return runChecks({
        survey,
        profiles: context.profiles,
        recogniser: context.recogniser,
        title: null,
        titleId: null,
        inventories: [],
        now: this.context.now().toISOString(),
      });
    }
    const options = this.optionsFor(name, title);
    await this.loadToWire(tree, run);
    const plan = planWiring(tree, options, run);
    const findings = withAcceptances(
      withFixes(plan),
      this.context.trees.acceptances(title.id),
      this.context.now().toISOString(),
    );
    const report = { title: title.id, summary: summaryOf(findings), findings };
    this.remember(snapshot, title, run, report);
    return report;
  }

  async plan(
    snapshot: string,
    title: NamedTitle,
    { choice, extras }: Pick<PlanOptions, 'choice' | 'extras'> = {},
  ): Promise<Plan> {
    for (const network of choice?.networks ?? []) this.context.profiles.get(network);
    const { tree, run, options } = await this.planned(snapshot, title);
    const all = { ...options, ...(choice ? { choice } : {}), ...(extras ? { extras } : {}) };
    return planWiring(tree, all, run);
  }

  /** The edits that take a network out. */
  async unwire(
    snapshot: string,
    title: NamedTitle,
    network: string,
    added: readonly string[],
  ): Promise<Plan> {
    const { profile } = this.context.profiles.get(network);
    const { tree, run, options } = await this.planned(snapshot, title);
    const all = { ...options, network: profile, added };
    return planUnwiring(tree, all, run);
  }

  private async planned(snapshot: string, title: NamedTitle): Promise<Surveyed & { options: PlanOptions }> {
    const surveyed = await this.surveyed(snapshot, title.id);
    await this.loadToWire(surveyed.tree, surveyed.run);
    return { ...surveyed, options: this.optionsFor(surveyed.name, title) };
  }

  /** Loads the grammars of all files that a wiring may change or write: it is tried on a copy, which is read again. */
  private async loadToWire({ paths }: Tree, { parts }: SurveyRun): Promise<void> {
    await this.context.grammars.load([...languagesOf(paths), ...parts.flatMap(({ stack }) => stack.writes)]);
  }

  private optionsFor(name: string, title: NamedTitle): PlanOptions {
    return {
      name,
      profiles: this.profiles(),
      title,
      revision: this.context.roster.revision(),
      inventories: this.context.inventories.about(heldIds(title.title).map(({ id }) => id)),
      now: this.context.now().toISOString(),
    };
  }

  /** The title to wire: the one that is named, else the only one whose identifiers the tree bears. */
  async wireTitle(snapshot: string, titleId: string | null): Promise<NamedTitle> {
    if (titleId !== null) return this.title(titleId);
    const found = (await this.survey(snapshot, null)).survey.title;
    if (found !== null) return this.title(found);
    throw new ServiceError('invalid', 'No title in the roster bears the identifiers of this tree.', {
      fix: 'Name the title: --title TITLE.',
    });
  }

  private profiles() {
    return this.context.profiles.profiles();
  }

  private title(id: string): NamedTitle {
    return { id, title: this.context.roster.get(id).title };
  }

  private titleByIdentifiers({ survey }: SurveyRun): NamedTitle | null {
    const seen = new Set(
      survey.editions.flatMap(({ platform, identifiers }) =>
        Object.values(identifiers).map((identifier) => `${platform} ${identifier}`),
      ),
    );
    const matching = this.context.roster.identifiers().flatMap(({ id, editions }) => {
      const bears = platformNames.some(
        (platform) => editions[platform] && seen.has(`${platform} ${editions[platform].identifier}`),
      );
      return bears ? [id] : [];
    });
    return matching.length === 1 && matching[0] !== undefined ? this.title(matching[0]) : null;
  }

  private remember(
    snapshot: string,
    { id, title }: NamedTitle,
    { survey }: SurveyRun,
    { findings }: CheckReport,
  ): void {
    for (const platform of platformNames) {
      const edition = editionOf(survey.editions, title, platform);
      if (!edition) continue;
      const mine = <Item extends { platform: string; module: string }>(items: readonly Item[]) =>
        items.filter((item) => item.platform === platform && item.module === edition.module);
      const about = findings.filter((finding) => finding.platform === platform || finding.platform === null);
      const reading: Reading = {
        platform,
        tree: survey.tree,
        snapshot,
        readAt: this.context.now().toISOString(),
        edition,
        facts: mine(survey.facts),
        unresolved: mine(survey.unresolved),
        findings: about.map(({ fix: _, ...finding }) => finding),
        summary: summaryOf(about),
      };
      this.context.trees.saveReading(id, reading);
    }
    this.context.events.tell({ kind: 'reading', title: id });
  }
}
