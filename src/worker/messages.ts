import type { MessagePort } from 'node:worker_threads';
import type { SurveyOptions } from '../core/surveying.js';
import type { ParserLimits } from '../core/syntax/grammars.js';
import type { RecordInput, RecordTask } from '../core/record-tasks.js';
import type { TaskOutput, TreeTask } from '../core/tree-tasks.js';
import type { Asked, HowToRead, TreeContents } from '../core/workbench.js';

/** What a worker is started with. */
export interface WorkerSettings {
  limits: ParserLimits;
}

/** A reading that is kept from one run to the next, as bytes. */
export interface KeptReading {
  reader: string;
  hash: string;
  reading: Uint8Array;
}

/** A tree that is sent to a worker, with what is known of its files already. */
export interface SentTree extends TreeContents, HowToRead {
  kept: readonly KeptReading[];
}

/** How whoever waits for a task watches it. */
export interface Watched {
  /** The port for progress messages of the task. */
  port: MessagePort;
  /** Memory of a reading cell. */
  cell: SharedArrayBuffer;
}

/** A task on the record. */
export interface WorkerRecordTask<Task extends RecordTask = RecordTask> {
  record: Task;
  input: RecordInput<Task>;
}

/** A task on a tree. */
export interface WorkerTask<Task extends TreeTask = TreeTask> extends Asked<Task> {
  snapshot: string;
  /** Left out as long as the worker may hold the tree already. */
  tree?: SentTree;
}

/** How a worker answers a task on a tree. */
export type WorkerAnswer<Task extends TreeTask> = { lacks: 'tree' } | { output: TaskOutput<Task> };

/** What a worker says while it works. */
export type WorkerMessage =
  | { says: 'progress'; step: Parameters<NonNullable<SurveyOptions['progress']>>[0] }
  | { says: 'read'; kept: KeptReading }
  /** What it needs after a task, in bytes: its heap, and what objects there hold outside of it. */
  | { says: 'memory'; bytes: number }
  /** Its parsers broke down on the file in the reading cell. It does nothing more, and has to be ended. */
  | { says: 'broken' };
