import { grammarsOf, languageNamed } from './languages/index.js';
import { lastingReaderOf } from './code/lasting-readers.js';
import { runSurvey, type SurveyRun } from './surveying.js';
import { withoutSyntax, type Grammars, type GrammarName } from './syntax/grammars.js';
import type { OnProgress } from './text/progress.js';
import type { Readings } from './tree/readings.js';
import { Tree, type CostlyFile, type ReadingWatch, type SkippedFile, type TreeFile } from './tree/tree.js';
import { treeTasks, type TaskInput, type TaskOutput, type TaskSetting, type TreeTask } from './tree-tasks.js';

/** A tree as it is put on the bench. */
export interface TreeContents {
  files: readonly TreeFile[];
  folders: readonly string[];
  skipped: readonly SkippedFile[];
}

/** How a tree is read. */
export interface HowToRead {
  /** Files whose reading took too long before. */
  costly: ReadonlyMap<string, CostlyFile>;
  /** Whether source files are parsed. They are not where the time for the whole tree was used up. */
  parses: boolean;
}

/** What is asked of a tree. */
export interface Asked<Task extends TreeTask> {
  task: Task;
  setting: TaskSetting;
  input: TaskInput<Task>;
}

/**
 * Does tasks on one tree at a time. It keeps the tree and its surveys, because a tree is asked several things in a row.
 */
export class Workbench {
  #snapshot: string | null = null;
  #tree: Tree | null = null;
  #parses = true;
  /** The surveys of the tree, by their setting. */
  #runs = new Map<string, SurveyRun>();

  constructor(
    private readonly grammars: Grammars,
    private readonly readings: Readings,
    private readonly watch?: ReadingWatch,
  ) {}

  holds(snapshot: string): boolean {
    return this.#snapshot === snapshot;
  }

  /** Lays a tree on the bench. Another one that lay there is cleared away: two large ones need not be held at once. */
  lay(snapshot: string, { files, folders, skipped }: TreeContents, { costly, parses }: HowToRead): void {
    this.#runs = new Map();
    this.readings.beginTree();
    this.#snapshot = snapshot;
    this.#parses = parses;
    this.#tree = new Tree(files, {
      syntax: parses ? this.grammars : withoutSyntax,
      folders,
      skipped,
      readings: this.readings,
      costly,
      watch: this.watch,
    });
  }

  /** Whether a task needs no grammar: it writes no source, and what the source files say is known. */
  isLight({ task, setting }: Pick<Asked<TreeTask>, 'task' | 'setting'>): boolean {
    return !writes(task, setting) && this.unread(this.held()).size === 0;
  }

  /**
   * Does a task on the tree that is on the bench.
   * @throws ParserBrokenError when the parsers broke down; nothing more can be read in this thread then
   */
  async run<Task extends TreeTask>(
    { task, setting, input }: Asked<Task>,
    progress?: OnProgress,
  ): Promise<TaskOutput<Task>> {
    const tree = this.held();
    if (this.#parses) await this.grammars.load(this.unread(tree));
    const run = (asked: TaskSetting) => this.survey(tree, asked, progress);
    if (this.#parses && writes(task, setting)) {
      const { parts } = run(setting);
      const written = parts.flatMap(({ stack }) =>
        stack.writes.flatMap((name) => languageNamed(name).dialects.map(({ syntax }) => syntax.grammar)),
      );
      await this.grammars.load([...grammarsOf(tree.paths), ...written]);
    }
    const perform = treeTasks[task] as (
      on: { tree: Tree; run: typeof run },
      setting: TaskSetting,
      input: TaskInput<Task>,
    ) => TaskOutput<Task>;
    return perform({ tree, run }, setting, input);
  }

  private held(): Tree {
    if (!this.#tree) throw new Error('There is no tree on the bench.');
    return this.#tree;
  }

  private survey(tree: Tree, setting: TaskSetting, progress?: OnProgress): SurveyRun {
    const { name, profiles, profilesVersion, title, revision } = setting;
    const key = JSON.stringify([name, profilesVersion, title?.id ?? null, title ? revision : null]);
    const known = this.#runs.get(key);
    if (known) return known;
    const run = runSurvey(tree, { name, profiles, title, progress });
    // Readings with and without a title are requested in turn.
    if (this.#runs.size > 1) this.#runs.clear();
    this.#runs.set(key, run);
    return run;
  }

  /** The languages of files without a cached reading. */
  private unread(tree: Tree): Set<GrammarName> {
    const paths = tree.paths.filter((path) => {
      const [reader, file] = [lastingReaderOf(path), tree.file(path)];
      return reader === undefined || !file || !this.readings.has(reader, file);
    });
    return grammarsOf(paths);
  }
}

/** Whether a task may write source files: its plan is tried on a copy, which is read again. */
function writes(task: TreeTask, { title }: TaskSetting): boolean {
  return task === 'wire' || task === 'unwire' || (task === 'check' && title !== null);
}
