import type { Settings } from '../../api/settings.js';
import { lastingReaders } from '../../core/code/lasting-readers.js';
import {
  recordTasks,
  type RecordInput,
  type RecordOutput,
  type RecordTask,
} from '../../core/record-tasks.js';
import { Grammars } from '../../core/syntax/grammars.js';
import { Readings } from '../../core/tree/readings.js';
import type { TaskOutput, TreeTask } from '../../core/tree-tasks.js';
import { Workbench, type Asked } from '../../core/workbench.js';
import { readGrammar } from '../../worker/grammar-files.js';
import type { Log } from '../log.js';
import type { StoredReadings } from '../store/reading-shelf.js';
import type { TreeStore } from '../store/tree-store.js';
import { WorkerPool, type TaskOptions } from './worker-pool.js';

/** The size (bytes) of files whose readings are cached in memory. */
const maxKept = 48 * 1024 * 1024;

export interface TaskRunnerOptions {
  trees: TreeStore;
  /** Where readings are kept from one run to the next, if they are. */
  shelf: StoredReadings | undefined;
  settings: Settings;
  log: Log;
  /** For one command only: what needs no parsing is done here, which is faster than starting a worker for it. */
  brief: boolean;
}

/** Does tasks on snapshots, and on large parts of the record. */
export class TaskRunner {
  readonly #pool: WorkerPool;
  /** For tasks that need no parsing; null where others would have to wait for them. */
  readonly #bench: Workbench | null;

  constructor(private readonly options: TaskRunnerOptions) {
    const { trees, shelf, settings, log, brief } = options;
    const source = {
      contents: (snapshot: string) => trees.contents(snapshot),
      kept: (files: readonly { hash: string }[]) => shelf?.of(files.map(({ hash }) => hash)) ?? [],
      keep: (reading: Parameters<StoredReadings['keepBytes']>[0]) => shelf?.keepBytes(reading),
    };
    this.#pool = new WorkerPool(source, settings, log);
    const readings = new Readings(maxKept, shelf && { names: lastingReaders, shelf });
    this.#bench = brief ? new Workbench(new Grammars(readGrammar), readings) : null;
  }

  run<Task extends TreeTask>(
    snapshot: string,
    asked: Asked<Task>,
    options: TaskOptions = {},
  ): Promise<TaskOutput<Task>> {
    const bench = this.#bench;
    if (!bench) return this.#pool.run(snapshot, asked, options);
    if (!bench.holds(snapshot))
      bench.lay(snapshot, this.options.trees.contents(snapshot), { costly: new Map(), parses: true });
    return bench.isLight(asked)
      ? bench.run(asked, options.progress)
      : this.#pool.run(snapshot, asked, options);
  }

  /** Does a task on the record: a large one in a worker thread, so that others need not wait for it. */
  record<Task extends RecordTask>(
    record: Task,
    input: RecordInput<Task>,
    { isLarge, ...options }: TaskOptions & { isLarge: boolean },
  ): Promise<RecordOutput<Task>> {
    if (isLarge && !this.options.brief) return this.#pool.record({ record, input }, options);
    const perform = recordTasks[record] as (input: RecordInput<Task>) => RecordOutput<Task>;
    return Promise.resolve(perform(input));
  }

  /** What the worker thread of the last task needed after it, in bytes; 0 before the first. */
  get memory(): number {
    return this.#pool.memory;
  }

  async close(): Promise<void> {
    await this.#pool.close();
    this.options.shelf?.flush();
  }
}
