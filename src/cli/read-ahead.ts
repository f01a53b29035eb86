import { readFileSync, realpathSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join, resolve } from 'node:path';
import type { CollectPlan } from '../api/trees.js';
import type { Collected } from '../service/trees/collect.js';
import type { KnownFiles } from '../service/trees/known-files.js';
import { homeFolder } from './connect.js';
import type { Io } from './io.js';

/** The files of a tree while they are being read. */
export interface TreeReading {
  folder: string;
  /** What was asked for. */
  plan: CollectPlan;
  collected: Promise<Collected>;
  known: KnownFiles;
  /** Ends it, when nobody will ask for it. */
  abandon: () => void;
}

/** Begins to read a tree; with `threads` on no more of them than that. */
export async function beginReading(
  io: Io,
  folder: string,
  plan: CollectPlan,
  threads?: number,
): Promise<TreeReading> {
  const { collectTree } = await import('../service/trees/collect.js');
  const { KnownFiles } = await import('../service/trees/known-files.js');
  const { abandonWalks } = await import('../service/trees/native-walk.js');
  const known = KnownFiles.open(join(homeFolder(io.env), 'known-files'), realOf(folder) ?? folder, plan);
  const collected = collectTree(folder, plan, { known, threads });
  return { folder, plan, known, collected, abandon: abandonWalks };
}

/**
 * Begins to read a tree before there is a service to say what it wants to see: what it wanted last time. While
 * the service starts here, the other processors are idle. Nothing when nothing is known of last time, when a write
 * to the tree was cut short, or when reading would keep the service from starting.
 */
export async function readAhead(io: Io, directory: string): Promise<TreeReading | null> {
  const { leftovers } = await import('../service/trees/leftovers.js');
  const { nativeWalk } = await import('../service/trees/native-walk.js');
  const folder = resolve(io.cwd, directory);
  const plan = keptPlan(io);
  if (!plan || !nativeWalk() || leftovers(folder).length > 0) return null;
  try {
    const reading = await beginReading(io, folder, plan, Math.max(1, availableParallelism() - 1));
    // Whatever goes wrong is told when somebody asks for it.
    reading.collected.catch(() => undefined);
    return reading;
  } catch {
    return null;
  }
}

/** Whether two plans ask for the same. */
export function isSamePlan(one: CollectPlan, other: CollectPlan): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

/** Keeps what a service wanted to see, for the next time. */
export function keepPlan(io: Io, plan: CollectPlan): void {
  try {
    writeFileSync(planFile(io), JSON.stringify(plan), { mode: 0o600 });
  } catch {
    // The next command is no quicker; that is all.
  }
}

function keptPlan(io: Io): CollectPlan | null {
  try {
    // It is not believed: a service is asked again, and what was read for another plan is thrown away.
    return JSON.parse(readFileSync(planFile(io), 'utf8')) as CollectPlan;
  } catch {
    return null;
  }
}

function planFile(io: Io): string {
  return join(homeFolder(io.env), 'collect-plan.json');
}

/** The real path of a folder; null when there is none, which is then said in the usual way. */
export function realOf(folder: string): string | null {
  try {
    return realpathSync(folder);
  } catch {
    return null;
  }
}
