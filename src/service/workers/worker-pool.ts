import { dirname, join } from 'node:path';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { MessageChannel, receiveMessageOnPort, type MessagePort } from 'node:worker_threads';
import type { Piscina } from 'piscina';
import type { Settings } from '../../api/settings.js';
import type { RecordOutput, RecordTask } from '../../core/record-tasks.js';
import type { OnProgress } from '../../core/text/progress.js';
import type { TaskOutput, TreeTask } from '../../core/tree-tasks.js';
import type { Asked, TreeContents } from '../../core/workbench.js';
import type {
  KeptReading,
  SentTree,
  Watched,
  WorkerAnswer,
  WorkerMessage,
  WorkerRecordTask,
  WorkerSettings,
  WorkerTask,
} from '../../worker/messages.js';
import { ReadingCell } from '../../worker/reading-cell.js';
import { ServiceError } from '../errors.js';
import type { Log } from '../log.js';
import { CostlyFiles } from './costly-files.js';

/** How often (milliseconds) the watchdog checks what a worker is reading. */
const watchEvery = 50;
/** Tasks that wait beyond this many are refused. */
const maxWaiting = 200;

/** What the pool asks of whoever has the trees. */
export interface TreeSource {
  contents(snapshot: string): TreeContents;
  /** Readings of files that are kept from one run to the next. */
  kept(files: TreeContents['files']): readonly KeptReading[];
  keep(reading: KeptReading): void;
}

export interface TaskOptions {
  /** Ends the task; the promise is rejected with its reason. */
  signal?: AbortSignal | undefined;
  progress?: OnProgress | undefined;
}

/** Why a worker was ended. */
type End = 'file' | 'time' | 'caller' | 'closing';

/** Does tasks in worker threads, which are watched: one that reads a file for too long is ended and replaced. */
export class WorkerPool {
  #pool: Promise<Piscina> | undefined;
  readonly #costly = new CostlyFiles();
  readonly #closing = new AbortController();
  #memory = 0;

  constructor(
    private readonly source: TreeSource,
    private readonly settings: Settings,
    private readonly log: Log,
  ) {}

  /**
   * Does a task on a snapshot. Files that cost too much are left out, and reported with the tree's problems.
   * @throws ServiceError too-costly when the task takes too long even so, or needs too much memory
   */
  async run<Task extends TreeTask>(
    snapshot: string,
    asked: Asked<Task>,
    options: TaskOptions = {},
  ): Promise<TaskOutput<Task>> {
    const deadline = performance.now() + this.settings.treeTime * 1_000;
    let parses = true;
    let tree: SentTree | undefined;
    for (;;) {
      const time = parses ? deadline : deadline + this.settings.treeTime * 1_000;
      // A partly read tree is not reused as a complete one later.
      const name = parses ? snapshot : `${snapshot} in part`;
      const task = { ...asked, snapshot: name, ...(tree ? { tree } : {}) };
      const done = await this.attempt<WorkerAnswer<Task>>(task, time, options);
      if ('answer' in done && 'output' in done.answer) return done.answer.output;
      if ('ended' in done && done.ended === 'time') {
        if (!parses) throw tooCostly(`It took more than ${2 * this.settings.treeTime} seconds.`);
        parses = false;
      }
      tree = this.sent(snapshot, parses);
    }
  }

  /**
   * Does a task on the record.
   * @throws ServiceError too-costly when it takes too long, or needs too much memory
   */
  async record<Task extends RecordTask>(
    task: WorkerRecordTask<Task>,
    options: TaskOptions = {},
  ): Promise<RecordOutput<Task>> {
    const { treeTime } = this.settings;
    const done = await this.attempt<RecordOutput<Task>>(task, performance.now() + treeTime * 1_000, options);
    if ('answer' in done) return done.answer;
    throw tooCostly(`It took more than ${treeTime} seconds.`);
  }

  /** What the worker of the last task needed after it, in bytes; 0 before the first. */
  get memory(): number {
    return this.#memory;
  }

  async close(): Promise<void> {
    this.#closing.abort();
    await (await this.#pool)?.destroy();
  }

  private async attempt<Answer>(
    task: WorkerTask | WorkerRecordTask,
    deadline: number,
    { signal, progress }: TaskOptions,
  ): Promise<{ answer: Answer } | { ended: End }> {
    const pool = await this.pool();
    if (this.#closing.signal.aborted) throw stopping();
    if (pool.queueSize >= maxWaiting) throw busy();
    signal?.throwIfAborted();
    const { port1: ours, port2: theirs } = new MessageChannel();
    const cell = new ReadingCell();
    const ender = new AbortController();
    let ended: End | undefined;
    const end = (why: End): void => {
      ended ??= why;
      ender.abort();
    };
    const hear = (message: WorkerMessage): void => {
      if (message.says === 'progress') progress?.(message.step);
      else if (message.says === 'read') this.source.keep(message.kept);
      else if (message.says === 'memory') this.#memory = message.bytes;
      else end('file');
    };
    const byCaller = (): void => end('caller');
    const byClosing = (): void => end('closing');
    signal?.addEventListener('abort', byCaller);
    this.#closing.signal.addEventListener('abort', byClosing);
    ours.on('message', hear);
    const unwatch = this.watch(cell, deadline, end);
    try {
      const watched: Watched = { port: theirs, cell: cell.memory };
      const given = { signal: ender.signal, transferList: [theirs] };
      return { answer: (await pool.run({ ...task, ...watched }, given)) as Answer };
    } catch (error) {
      return { ended: this.whyEnded(ended, cell, signal, error) };
    } finally {
      unwatch();
      signal?.removeEventListener('abort', byCaller);
      this.#closing.signal.removeEventListener('abort', byClosing);
      drain(ours, hear);
      ours.close();
    }
  }

  /** Why a task came to no answer; throws what is for the caller to know. */
  private whyEnded(
    ended: End | undefined,
    cell: ReadingCell,
    signal: AbortSignal | undefined,
    error: unknown,
  ): End {
    if (ended === 'caller') throw signal?.reason;
    if (ended === 'closing') throw stopping();
    if (ended === 'time') return 'time';
    const ofMemory = error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY';
    if (ended === undefined && !ofMemory) throw error;
    if (ofMemory && cell.reading === undefined)
      throw tooCostly(`It took more memory than ${this.settings.workerMemory} MB.`);
    const how = this.#costly.note(cell.hash, performance.now());
    this.log.warn(
      { hash: cell.hash, how },
      'A file takes too long or too much memory to read; its worker was replaced.',
    );
    return 'file';
  }

  /** Ends a worker that reads one file for too long, or works for too long. Returns what stops the watch. */
  private watch(cell: ReadingCell, deadline: number, end: (why: End) => void): () => void {
    let reading: number | undefined;
    let since = 0;
    const timer = setInterval(() => {
      const now = performance.now();
      if (cell.reading !== reading) {
        reading = cell.reading;
        since = now;
      }
      if (reading !== undefined && now - since > this.settings.fileTime * 1_000) end('file');
      else if (now > deadline) end('time');
    }, watchEvery);
    return () => clearInterval(timer);
  }

  private sent(snapshot: string, parses: boolean): SentTree {
    const contents = this.source.contents(snapshot);
    return {
      ...contents,
      costly: this.#costly.among(contents.files, performance.now()),
      parses,
      kept: this.source.kept(contents.files),
    };
  }

  private pool(): Promise<Piscina> {
    this.#pool ??= this.open();
    return this.#pool;
  }

  private async open(): Promise<Piscina> {
    const { Piscina } = await import('piscina');
    const { workers, workerMemory, fileLength, parserMemory } = this.settings;
    const workerData: WorkerSettings = { limits: { maxLength: fileLength, maxMemory: parserMemory } };
    return new Piscina({
      filename: workerFile(),
      // One that was ended is replaced at once: what waits behind its task has no other worker.
      minThreads: 1,
      maxThreads: workers,
      // A worker caches what it read: the next task on the same tree needs it.
      idleTimeout: Infinity,
      recordTiming: false,
      // A thread that blocks while it waits never releases the ports that it closed.
      atomics: 'disabled',
      resourceLimits: { maxOldGenerationSizeMb: workerMemory },
      workerData,
    });
  }
}

function drain(port: MessagePort, hear: (message: WorkerMessage) => void): void {
  for (;;) {
    const next = receiveMessageOnPort(port);
    if (!next) return;
    hear(next.message as WorkerMessage);
  }
}

/** The built worker: beside the bundle in a build, in `dist` when run from the sources. */
function workerFile(): string {
  const here = dirname(fileURLToPath(import.meta.url));
  const beside = join(here, 'tree-worker.cjs');
  return existsSync(beside) ? beside : join(here, '..', '..', '..', 'dist', 'node', 'tree-worker.cjs');
}

function tooCostly(why: string): ServiceError {
  return new ServiceError('too-costly', `The task was stopped: ${why}`, {
    fix: 'Send less at once, or raise the limit: the guide lists the settings of the service.',
  });
}

function stopping(): ServiceError {
  return new ServiceError('stopping', 'The service is stopping.', {
    fix: 'Try again when it has restarted.',
  });
}

function busy(): ServiceError {
  return new ServiceError('busy', `${maxWaiting} tasks are already waiting.`, {
    fix: 'Try again later.',
  });
}
