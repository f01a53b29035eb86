import { players, type Player, type PlayerName, type Reached } from './rehearsal/tags/choose.js';
import type { Action, PlayLine } from './rehearsal/tags/playback.js';
import { playTag } from './rehearsal/tags/play.js';
import { reportTag, type TagReport } from './rehearsal/tags/report.js';
import { resolveTag, type ResolvedTag, type TagAnswer } from './rehearsal/tags/resolve.js';

/** A tag with what is known of it, and the device that it is shown on. */
export interface TagTask {
  start: string;
  answers: readonly TagAnswer[];
  reached: readonly Reached[];
  /** How many wrappers may follow one another. */
  wrappers: number;
  device: PlayerName;
  /** The bandwidth, in kilobits per second. */
  bitrate?: number | undefined;
  /** The time of the request, as an ISO date. */
  at: string;
  seed: number;
}

/** Says what a tag shows. */
export function showTag(task: TagTask): TagReport {
  return reportTag(resolved(task), playerOf(task), task.reached);
}

/** Says what a tag shows, and goes through it. */
export function goThroughTag(task: TagTask & { actions: readonly Action[] }): {
  report: TagReport;
  lines: PlayLine[];
} {
  const { reached, at, seed, actions } = task;
  const player = playerOf(task);
  const tag = resolved(task);
  return {
    report: reportTag(tag, player, reached),
    lines: playTag(tag, { player, actions, reached, startsAt: Date.parse(at), seed }),
  };
}

function resolved({ start, answers, wrappers, at, seed }: TagTask): ResolvedTag {
  const macros = { TIMESTAMP: at, CACHEBUSTING: String(seed).padStart(8, '0') };
  return resolveTag(start, answers, { limit: wrappers, macros });
}

function playerOf({ device, bitrate }: TagTask): Player {
  const player = players[device];
  return bitrate === undefined ? player : { ...player, bitrate };
}
