import { platformNames } from '../core/words/names.js';
import { summaryOf } from '../core/checks/accepted.js';
import type { CheckReport, Finding } from '../core/checks/model.js';
import type { WiringChoice, WiringExtras } from '../core/edits/model.js';
import type { FactOf, Survey } from '../core/facts/model.js';
import type { RehearsalChoice } from '../core/rehearsal/app/app.js';
import type { App } from '../core/rehearsal/app/model.js';
import { heldIds } from '../core/roster/validate.js';
import type { OnProgress } from '../core/text/progress.js';
import { choiceProblems, variantProblems } from '../core/wiring/choice-problems.js';
import {
  listedFindings,
  type NamedTitle,
  type PlannedWiring,
  type TaskInput,
  type TaskOutput,
  type TreeTask,
} from '../core/tree-tasks.js';
import type { ServiceContext } from './context.js';
import type { HistoryWork } from './tally/history-work.js';
import { refuse, ServiceError } from './errors.js';

/** What a task on a snapshot is about. */
interface About {
  snapshot: string;
  title: NamedTitle | null;
  signal?: AbortSignal | undefined;
  progress?: OnProgress | undefined;
}

/** A request about a snapshot: for a title, or for the title whose identifiers it has. */
export interface AskedOfSnapshot {
  snapshot: string;
  title: string | null;
  signal?: AbortSignal | undefined;
  progress?: OnProgress | undefined;
}

/** Surveys, checks and wirings of snapshots; remembers each edition's last reading for the board. */
export class TreeWork {
  constructor(
    private readonly context: ServiceContext,
    private readonly history: HistoryWork,
  ) {}

  async survey(asked: AskedOfSnapshot): Promise<Survey> {
    return this.run('survey', await this.about(asked), undefined);
  }

  /** What a snapshot says by itself, whatever titles there are. */
  openSurvey(snapshot: string, signal?: AbortSignal): Promise<Survey> {
    return this.run('survey', { snapshot, title: null, signal }, undefined);
  }

  /** Checks a snapshot; with an earlier one to compare with, only what is new since is reported. */
  async check(asked: AskedOfSnapshot, against: string | null = null): Promise<CheckReport> {
    const about = await this.about(asked);
    const { findings: most } = this.context.settings;
    const report = { ...(await this.checkWhole(about)), snapshot: asked.snapshot };
    if (against === null) return listedFindings(report, most);
    const earlier = this.context.trees.snapshotId(against);
    const before: Finding[] = await this.run('findings', { ...about, snapshot: earlier }, undefined);
    const known = new Set(before.map(({ fingerprint }) => fingerprint));
    const findings = report.findings.filter(({ fingerprint }) => !known.has(fingerprint));
    const stayed = report.findings.length - findings.length;
    const fresh = { ...report, summary: summaryOf(findings), findings };
    return listedFindings({ ...fresh, against: { snapshot: earlier, known: stayed } }, most);
  }

  private async checkWhole(about: About): Promise<CheckReport> {
    const { snapshot, title } = about;
    const { trees, events } = this.context;
    const acceptances = title ? this.context.accepted.of(title.id) : [];
    const { report, readings } = await this.run('check', about, { snapshot, acceptances });
    if (!title || readings.length === 0) return report;
    // A folder that is linked is the same tree, whether the service read it or a client sent it.
    const linked = trees.linkedAs(title.id, snapshot);
    const of = linked ? { tree: linked.path, snapshot: linked.snapshot } : {};
    const kept = readings.filter((reading) => trees.saveReading(title.id, snapshot, { ...reading, ...of }));
    if (kept.length > 0) events.tell({ kind: 'reading', title: title.id });
    return report;
  }

  /**
   * The edits that make a snapshot agree with a title.
   * @throws ServiceError for rules, parts, networks or variants in the choice that do not exist
   */
  async wire(
    asked: AskedOfSnapshot,
    { choice, extras }: { choice: WiringChoice; extras: WiringExtras },
  ): Promise<{ title: string; wiring: PlannedWiring }> {
    const about = await this.aboutTitle(asked);
    const { profiles } = this.context;
    refuse(choiceProblems(choice));
    const named = choice.groups.map((id) => id.split('/')[1] ?? '').filter((network) => network !== 'all');
    for (const network of [...choice.networks, ...named]) profiles.get(network);
    if (choice.variants.length > 0)
      refuse(variantProblems(choice, await this.run('variants', about, undefined)));
    return { title: about.title.id, wiring: await this.run('wire', about, { choice, extras }) };
  }

  /** The edits that take a network out. */
  async unwire(
    asked: AskedOfSnapshot,
    network: string,
    added: readonly string[],
  ): Promise<{ title: string; wiring: PlannedWiring }> {
    const about = await this.aboutTitle(asked);
    const { profile } = this.context.profiles.get(network);
    return { title: about.title.id, wiring: await this.run('unwire', about, { network: profile, added }) };
  }

  /** The variants of a title in a snapshot, as a rehearsal lives through them. */
  async appsToRehearse(
    asked: AskedOfSnapshot,
    choice: RehearsalChoice,
  ): Promise<{ title: string; apps: App[] }> {
    const about = await this.aboutTitle(asked);
    return { title: about.title.id, apps: await this.run('apps', about, choice) };
  }

  /** What the rules say of what a rehearsal saw. */
  async rehearsalFindings(asked: AskedOfSnapshot, seen: readonly FactOf<'rehearsed'>[]): Promise<Finding[]> {
    return this.run('rehearsed', await this.aboutTitle(asked), { seen });
  }

  /** Does a task on a snapshot, for a title or for none. */
  run<Task extends TreeTask>(
    task: Task,
    { snapshot, title, signal, progress }: About,
    input: TaskInput<Task>,
  ): Promise<TaskOutput<Task>> {
    const { trees, profiles, roster, inventories, runner, settings } = this.context;
    const setting = {
      name: trees.nameOf(snapshot),
      profiles: profiles.profiles(),
      profilesVersion: profiles.version,
      title,
      revision: roster.revision(),
      inventories: title ? inventories.about(heldIds(title.title).map(({ id }) => id)) : [],
      // Wiring and rehearsing change nothing of what was earned.
      tally: task === 'check' && title ? this.history.of(title.id) : undefined,
      now: this.context.now().toISOString(),
      listed: { facts: settings.facts, findings: settings.findings },
    };
    return runner.run(snapshot, { task, setting, input }, { signal, progress });
  }

  /** The subject of a task: the named title, otherwise the only one whose identifiers the snapshot has. */
  private async about({ title, ...asked }: AskedOfSnapshot): Promise<About> {
    if (title !== null) return { ...asked, title: this.title(title) };
    const borne = await this.run('identifiers', { ...asked, title: null }, undefined);
    return { ...asked, title: this.titleBearing(new Set(borne)) };
  }

  private async aboutTitle(asked: AskedOfSnapshot): Promise<About & { title: NamedTitle }> {
    const { title, ...about } = await this.about(asked);
    if (title) return { ...about, title };
    throw new ServiceError('invalid', 'No title in the roster has the identifiers of this tree.', {
      fix: 'Name the title: --title TITLE.',
    });
  }

  private title(id: string): NamedTitle {
    return { id, title: this.context.roster.get(id).title };
  }

  private titleBearing(identifiers: ReadonlySet<string>): NamedTitle | null {
    const matching = this.context.roster.identifiers().flatMap(({ id, editions }) => {
      const bears = platformNames.some(
        (platform) => editions[platform] && identifiers.has(`${platform} ${editions[platform].identifier}`),
      );
      return bears ? [id] : [];
    });
    return matching.length === 1 && matching[0] !== undefined ? this.title(matching[0]) : null;
  }
}
