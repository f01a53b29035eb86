import type { Request } from 'express';
import type { Settings } from '../api/settings.js';
import { callerOf, type Access } from './access/access.js';
import type { Log } from './log.js';
import type { Events } from './events.js';
import type { ProfileShelf } from './profiles.js';
import type { Partners } from './partners/partners.js';
import type { Secrets } from './secrets.js';
import type { InventoryStore } from './store/inventory-store.js';
import type { AcceptanceStore } from './store/acceptance-store.js';
import type { OverviewStore } from './store/overview-store.js';
import type { RosterStore, Writer } from './store/roster-store.js';
import type { TallyStore } from './store/tally-store.js';
import type { StepsStore } from './store/steps-store.js';
import type { TreeStore } from './store/tree-store.js';
import type { UpkeepTimer } from './upkeep-timer.js';
import type { TaskRunner } from './workers/task-runner.js';
import type { TreeWrites } from '../disk/writes/tree-writes.js';
import type { WatchedTrees } from '../disk/watched-trees.js';

/** What the routes work with. */
export interface ServiceContext {
  /** The data folder. */
  home: string;
  access: Access;
  roster: RosterStore;
  /** Reads across all titles. */
  overview: OverviewStore;
  /** Findings that somebody accepted. */
  accepted: AcceptanceStore;
  trees: TreeStore;
  /** Keeps the room that the record takes within bounds. */
  upkeep: UpkeepTimer;
  /** Does tasks on snapshots and on the record, in worker threads. */
  runner: TaskRunner;
  profiles: ProfileShelf;
  inventories: InventoryStore;
  steps: StepsStore;
  tallies: TallyStore;
  secrets: Secrets;
  partners: Partners;
  /** Watched folders. */
  watched: WatchedTrees;
  /** What was written into trees, so that it can be taken back. */
  writes: TreeWrites;
  /** Folders below which trees may be linked. */
  roots: readonly string[];
  events: Events;
  log: Log;
  settings: Settings;
  version: string;
  now(): Date;
}

/** The author of a request: the owner of its token, otherwise the name that it gives, shortened for the history. */
export function writerOf(context: ServiceContext, request: Request): Writer {
  const caller = callerOf(request);
  const header = String(request.headers['syndexa-who'] ?? '');
  const who = caller?.name ?? (header.replace(/[^\p{L}\p{N} ._@-]/gu, '').slice(0, 80) || 'unknown');
  return { who, at: context.now().toISOString() };
}
