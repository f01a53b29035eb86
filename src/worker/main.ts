import { deserialize, getHeapStatistics, serialize } from 'node:v8';
import { workerData } from 'node:worker_threads';
import { lastingReaders } from '../core/code/lasting-readers.js';
import { recordTasks, type RecordInput, type RecordOutput, type RecordTask } from '../core/record-tasks.js';
import { Grammars, ParserBrokenError } from '../core/syntax/grammars.js';
import { Readings, type ReadingShelf } from '../core/tree/readings.js';
import type { ReadingWatch } from '../core/tree/tree.js';
import { Workbench } from '../core/workbench.js';
import type { TreeTask } from '../core/tree-tasks.js';
import { readGrammar } from './grammar-files.js';
import type {
  KeptReading,
  Watched,
  WorkerAnswer,
  WorkerMessage,
  WorkerRecordTask,
  WorkerSettings,
  WorkerTask,
} from './messages.js';
import { ReadingCell } from './reading-cell.js';

/** The size (bytes) of files whose readings are cached in memory. */
const maxKept = 48 * 1024 * 1024;

/** What belongs to the task that is being done. */
let current: { say: (message: WorkerMessage) => void; cell: ReadingCell } | undefined;
let kept = new Map<string, KeptReading>();

const shelf: ReadingShelf = {
  take(reader, hash) {
    const found = kept.get(`${reader} ${hash}`);
    try {
      return found && (deserialize(found.reading) as unknown);
    } catch {
      // It is damaged: the file is read again.
      return undefined;
    }
  },
  keep(reader, hash, reading) {
    current?.say({ says: 'read', kept: { reader, hash, reading: serialize(reading) } });
  },
};
const watch: ReadingWatch = {
  begins: (hash) => current?.cell.begins(hash),
  ends: () => current?.cell.ends(),
};
const { limits } = workerData as WorkerSettings;
const bench = new Workbench(
  new Grammars(readGrammar, limits),
  new Readings(maxKept, { names: lastingReaders, shelf }),
  watch,
);

/** Does one task. */
export default async function work(asked: (WorkerTask | WorkerRecordTask) & Watched): Promise<unknown> {
  const { port } = asked;
  const say = (message: WorkerMessage): void => port.postMessage(message);
  current = { say, cell: new ReadingCell(asked.cell) };
  try {
    if ('record' in asked) return perform(asked);
    return await onTree(asked, say);
  } catch (error) {
    if (!(error instanceof ParserBrokenError)) throw error;
    say({ says: 'broken' });
    // Nothing more can be read here. Whoever watches ends this thread.
    return new Promise(() => undefined);
  } finally {
    say({ says: 'memory', bytes: needed() });
    current = undefined;
    port.close();
  }
}

/** Under node --expose-gc, what is measured is what is still needed. */
function needed(): number {
  globalThis.gc?.();
  const { used_heap_size: heap, external_memory: outside } = getHeapStatistics();
  return heap + outside;
}

function perform<Task extends RecordTask>({ record, input }: WorkerRecordTask<Task>): RecordOutput<Task> {
  const task = recordTasks[record] as (input: RecordInput<Task>) => RecordOutput<Task>;
  return task(input);
}

async function onTree<Task extends TreeTask>(
  asked: WorkerTask<Task>,
  say: (message: WorkerMessage) => void,
): Promise<WorkerAnswer<Task>> {
  const { snapshot, tree } = asked;
  if (tree) {
    kept = new Map(tree.kept.map((one) => [`${one.reader} ${one.hash}`, one]));
    bench.lay(snapshot, tree, tree);
  } else if (!bench.holds(snapshot)) return { lacks: 'tree' };
  return { output: await bench.run(asked, (step) => say({ says: 'progress', step })) };
}
