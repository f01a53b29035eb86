import { isSeen, type LastRehearsal } from '../rehearsal/report.js';
import { verdictText } from '../rehearsal/words.js';
import type { Platform, Stage } from '../words/words.js';
import type { BoardCell, Reading } from './model.js';

/** What was rehearsed last, by platform. */
export type LastRehearsals = Partial<Record<Platform, LastRehearsal>>;

/**
 * What the last rehearsal said of a placement on a network in the variants of one stage: the first that showed no ad, where
 * one did not. Null where nothing was rehearsed.
 */
export function rehearsedIn(
  last: LastRehearsal | undefined,
  { network, placement, stage }: { network: string; placement: string | null; stage: Stage },
  reading: Reading | undefined,
): BoardCell['rehearsed'] {
  if (!last || placement === null) return null;
  const verdicts = last.runs
    .filter((run) => run.stage === stage)
    .flatMap(({ placements }) => placements.filter((one) => one.placement === placement))
    .flatMap(({ networks }) => networks.filter((one) => one.network === network))
    .map(({ verdict }) => verdict);
  const verdict = verdicts.find((one) => !isSeen(one)) ?? verdicts[0];
  if (!verdict) return null;
  return {
    is: verdict.is,
    text: verdictText(verdict, stage),
    at: last.at,
    scenario: last.scenario,
    old: reading !== undefined && reading.snapshot !== last.snapshot,
  };
}
